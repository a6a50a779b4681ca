package brightlantern.core.capture;

import java.util.Locale;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/**
 * How a second capture is laid under a first one.
 *
 * @param words what was done, or why it could not be
 * @param other time in the second one, s, for a time in the first; NaN where it shows nothing
 */
public record CaptureAlignment(String words, DoubleUnaryOperator other) {
    /** By what both are laid together. */
    public enum By {
        START("at their beginnings"),
        ALIKE("where they are most alike"),
        ANGLE("by the crank's angle");

        private final String words;

        By(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Lays the second one under the first; says so where that way does not go. */
    public static CaptureAlignment of(By by, Turned first, Turned second) {
        return switch (by) {
            case START -> shifted("", 0);
            case ALIKE ->
                    alike(first.capture(), second.capture())
                            .map(
                                    s ->
                                            shifted(
                                                    String.format(
                                                            Locale.ROOT,
                                                            "Moved by %+.3f ms, where both are most alike.",
                                                            1000 * s),
                                                    s))
                            .orElse(
                                    shifted(
                                            "Where they are most alike cannot be told: no lane of one name is in both with the same rate, or it repeats itself. Laid at their beginnings.",
                                            0));
            case ANGLE ->
                    first.cycles().all().isEmpty() || second.cycles().all().isEmpty()
                            ? shifted(
                                    "By angle it needs a lane in both that tells the engine's cycles: a firing, the crank or the pressure of a cylinder. Laid at their beginnings.",
                                    0)
                            : new CaptureAlignment(
                                    "From its first cycle on, cycle by cycle, whatever the speed of either.",
                                    t -> second.cycles().at(first.cycles().cyclesBefore(t)));
        };
    }

    /** The same, moved to the right by so many seconds. */
    public CaptureAlignment moved(double seconds) {
        return new CaptureAlignment(words, t -> other.applyAsDouble(t - seconds));
    }

    /** A capture with the cycles of the engine in it. */
    public record Turned(Capture capture, EngineCycles cycles) {}

    private static CaptureAlignment shifted(String words, double by) {
        return new CaptureAlignment(words, t -> t - by);
    }

    /** Seconds by which the second shows later what the first shows. */
    private static Optional<Double> alike(Capture first, Capture second) {
        double interval = first.interval();
        if (Math.abs(second.interval() / interval - 1) > 1e-6) {
            return Optional.empty();
        }
        for (Lane lane : first.lanes()) {
            Optional<Lane> same =
                    second.lanes().stream().filter(l -> l.name().equals(lane.name())).findFirst();
            Optional<Integer> by =
                    same.flatMap(
                            l -> LaneDelay.of(lane, l, Math.max(lane.length(), l.length()) / 2));
            if (by.isPresent()) {
                return by.map(b -> b * interval);
            }
        }
        return Optional.empty();
    }

    /**
     * Least and most of each column of a picture of the first capture, as a lane of the second
     * shows them.
     *
     * @param from and to: times in the first one, s
     * @param interval of the second one, s
     * @return two for each column, as {@link Extents#of}; null where it shows nothing
     */
    public Short[] columns(Extents lane, double interval, double from, double to, int columns) {
        Short[] out = new Short[2 * columns];
        for (int c = 0; c < columns; c++) {
            double begin = sample(from + (to - from) * c / columns, interval);
            double end = sample(from + (to - from) * (c + 1) / columns, interval);
            if (begin >= 0 && end >= begin && begin < lane.length()) {
                int first = (int) begin;
                int last = (int) Math.max(first + 1, Math.min(lane.length(), end));
                short[] its = lane.of(first, last, 1);
                out[2 * c] = its[0];
                out[2 * c + 1] = its[1];
            }
        }
        return out;
    }

    /** A sample that is as good as reached counts as reached; NaN where there is none. */
    private double sample(double seconds, double interval) {
        return Math.floor(other.applyAsDouble(seconds) / interval + 1e-6);
    }
}
