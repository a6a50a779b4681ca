package brightlantern.core.capture;

import brightlantern.core.signal.Words;
import java.util.List;
import java.util.Optional;

/** What any study of an engine that is cranked needs of its capture. */
final class Cranked {
    /** Slower than this no capture tells cylinders apart, samples a second. */
    private static final double LEAST_RATE = 1000;

    private static final int LEAST_CYCLES = 3;

    /** Engines that turn faster run by themselves, rpm. */
    private static final double MOST_RPM = 450;

    private Cranked() {}

    /** Why its samples come too slowly; empty where they are fast enough. */
    static Optional<String> tooSlow(Capture capture) {
        return capture.rate() < LEAST_RATE
                ? Optional.of(
                        "%.0f samples a second are too few: at least %.0f are needed."
                                .formatted(capture.rate(), LEAST_RATE))
                : Optional.empty();
    }

    /**
     * Why its cycles tell nothing: too few of them, or the engine ran; empty where they do.
     *
     * @param cycles as pairs of samples
     */
    static Optional<String> notCranked(Capture capture, List<int[]> cycles) {
        if (cycles.size() < LEAST_CYCLES) {
            return Optional.of(
                    "Only "
                            + Words.count(cycles.size(), "whole cycle")
                            + " of the engine: crank it for some seconds, at least "
                            + LEAST_CYCLES
                            + " cycles are needed.");
        }
        double rpm = rpm(capture, cycles);
        return rpm > MOST_RPM
                ? Optional.of(
                        "The engine ran by itself, at %.0f rpm: turn its fuel off before it is cranked."
                                .formatted(rpm))
                : Optional.empty();
    }

    /** Mean speed over its cycles of two turns each, rpm; there must be one. */
    static double rpm(Capture capture, List<int[]> cycles) {
        double samples = cycles.stream().mapToInt(c -> c[1] - c[0]).average().orElseThrow();
        return 120 / (samples * capture.interval());
    }
}
