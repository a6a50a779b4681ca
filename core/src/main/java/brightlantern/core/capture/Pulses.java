package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Pulses of a lane: where it rises through the upper and falls through the lower part of its range.
 *
 * @param rises seconds of the rising edges
 * @param widths seconds that it stays up, of each pulse that ends within the capture
 * @param low and high: where it rests, in the lane's unit
 */
public record Pulses(List<Double> rises, List<Double> widths, double low, double high) {
    private static final double UP = 0.6;
    private static final double DOWN = 0.4;

    /** A gap of so many periods lacks a pulse. */
    private static final double MISSING = 1.6;

    /** Two rises within this share of a period are one too many. */
    private static final double EXTRA = 0.6;

    /** The usual gap is learned from so many at the beginning. */
    private static final int LEARNED = 9;

    /** Fewer are no train of pulses. */
    private static final int TRAIN = 3;

    /** So many at most are kept. */
    private static final int MOST = 200_000;

    public Pulses {
        rises = List.copyOf(rises);
        widths = List.copyOf(widths);
    }

    /** Pulses of a lane; empty when nothing moves in it. */
    public static Optional<Pulses> of(Lane lane, double interval) {
        if (lane.silent()) {
            return Optional.empty();
        }
        short[] levels = lane.levels(0.02, 0.98, 0.5, 0, 1);
        double low = levels[0];
        double high = levels[1];
        if (high - low < (levels[4] - levels[3]) / 2.0) {
            // pulses that are short beside their pauses
            low = levels[2];
            high = levels[4];
        }
        double up = low + UP * (high - low);
        double down = low + DOWN * (high - low);
        List<Double> rises = new ArrayList<>();
        List<Double> widths = new ArrayList<>();
        boolean above = lane.steps()[0] > up;
        boolean whole = false;
        for (int i = 1; i < lane.length() && rises.size() < MOST; i++) {
            short v = lane.steps()[i];
            if (!above && v > up) {
                rises.add(i * interval);
                above = true;
                whole = true;
            } else if (above && v < down) {
                if (whole) {
                    widths.add(i * interval - rises.get(rises.size() - 1));
                }
                above = false;
            }
        }
        return Optional.of(new Pulses(rises, widths, lane.worth(low), lane.worth(high)));
    }

    /** Whether there are enough to speak of a period. */
    public boolean isTrain() {
        return rises.size() >= TRAIN;
    }

    /** Whether as many are missing or too many as there are: what jumps at random is no train. */
    public boolean isNoise() {
        return 2 * (missing().size() + extra().size()) > rises.size();
    }

    /** Middle time from one rise to the next, s; NaN without a train. */
    public double period() {
        return middle(gaps());
    }

    /** Middle width, s; NaN without any. */
    public double width() {
        return middle(widths.stream().mapToDouble(w -> w).toArray());
    }

    /** Share of the time that it is up; NaN without a train. */
    public double duty() {
        return width() / period();
    }

    /** Seconds at which a pulse is missing, given the ones before it. */
    public List<Double> missing() {
        return odd(true);
    }

    /** Seconds of pulses that come too soon after the one before. */
    public List<Double> extra() {
        return odd(false);
    }

    private List<Double> odd(boolean tooLong) {
        double[] gaps = gaps();
        List<Double> found = new ArrayList<>();
        // as it began, whatever speed it comes to later
        double usual = middle(Arrays.copyOf(gaps, Math.min(gaps.length, LEARNED)));
        for (int i = 0; i < gaps.length; i++) {
            boolean is = tooLong ? gaps[i] > MISSING * usual : gaps[i] < EXTRA * usual;
            if (is) {
                found.add(tooLong ? rises.get(i) + usual : rises.get(i + 1));
            } else {
                // speed drifts: the usual gap follows it
                usual += (gaps[i] - usual) / 8;
            }
        }
        return found;
    }

    /**
     * How far rises lie from where the ones before them let expect them, s (root mean square, odd
     * ones left out); NaN for fewer than three.
     */
    public double jitter() {
        double[] gaps = gaps();
        double usual = middle(Arrays.copyOf(gaps, Math.min(gaps.length, LEARNED)));
        double squares = 0;
        int count = 0;
        for (double gap : gaps) {
            if (gap <= MISSING * usual && gap >= EXTRA * usual) {
                squares += (gap - usual) * (gap - usual);
                count++;
                usual += (gap - usual) / 8;
            }
        }
        return count < 2 ? Double.NaN : Math.sqrt(squares / count);
    }

    private double[] gaps() {
        double[] gaps = new double[Math.max(0, rises.size() - 1)];
        for (int i = 0; i < gaps.length; i++) {
            gaps[i] = rises.get(i + 1) - rises.get(i);
        }
        return gaps;
    }

    private static double middle(double[] of) {
        double[] sorted = of.clone();
        Arrays.sort(sorted);
        return sorted.length == 0 ? Double.NaN : sorted[sorted.length / 2];
    }
}
