package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A recording of lanes that were sampled evenly and together.
 *
 * @param interval seconds between two samples, above 0
 * @param lanes of one length, at least one
 */
public record Capture(double interval, List<Lane> lanes) {
    /** As many lanes as can be read side by side. */
    public static final int MOST_LANES = 8;

    private static final double MILLION = 1e6;

    public Capture {
        lanes = List.copyOf(lanes);
        if (!(interval > 0) || !Double.isFinite(interval)) {
            throw new IllegalArgumentException(
                    "The interval of a capture is " + interval + " s; expected a number above 0");
        }
        if (lanes.isEmpty() || lanes.size() > MOST_LANES) {
            throw new IllegalArgumentException(
                    "A capture has " + lanes.size() + " lanes; expected 1 to " + MOST_LANES);
        }
        int length = lanes.get(0).length();
        for (Lane lane : lanes) {
            if (lane.length() != length) {
                throw new IllegalArgumentException(
                        "Lane '"
                                + lane.name()
                                + "' has "
                                + lane.length()
                                + " samples, the first one "
                                + length
                                + "; expected lanes of one length");
            }
        }
    }

    /** Samples of each lane. */
    public int length() {
        return lanes.get(0).length();
    }

    /** How long it lasts, s. */
    public double seconds() {
        return length() * interval;
    }

    /** Samples a second. */
    public double rate() {
        return 1 / interval;
    }

    /** How long and how fast, in words. */
    static String pace(double seconds, double interval) {
        double rate = 1 / interval;
        return String.format(
                Locale.ROOT,
                "%s, %s samples a second",
                seconds < 1 ? "%.0f ms".formatted(1000 * seconds) : "%.0f s".formatted(seconds),
                rate >= MILLION
                        ? "%.1f million".formatted(rate / MILLION)
                        : "%.0f".formatted(rate));
    }

    /** How long and how fast, in words. */
    public String pace() {
        return pace(seconds(), interval);
    }

    /** The first lane that shows this. */
    public Optional<Lane> lane(LaneRole role) {
        return lanes.stream().filter(l -> l.role() == role).findFirst();
    }

    /**
     * The same with lanes moved in time, cut to what all of them show.
     *
     * @param later by how many samples each began later than the first to begin, in their order
     * @throws IllegalArgumentException when there is not one for each lane, or nothing is left
     */
    public Capture moved(List<Integer> later) {
        if (later.size() != lanes.size()) {
            throw new IllegalArgumentException(
                    "There are " + later.size() + " delays for " + lanes.size() + " lanes");
        }
        int last = later.stream().mapToInt(d -> d).max().orElseThrow();
        int first = later.stream().mapToInt(d -> d).min().orElseThrow();
        int left = length() - (last - first);
        if (left < 2) {
            throw new IllegalArgumentException(
                    "Delays of %d samples leave nothing of %d; expected fewer"
                            .formatted(last - first, length()));
        }
        List<Lane> all = new ArrayList<>();
        for (int i = 0; i < lanes.size(); i++) {
            int from = last - later.get(i);
            all.add(lanes.get(i).between(from, from + left));
        }
        return new Capture(interval, all);
    }
}
