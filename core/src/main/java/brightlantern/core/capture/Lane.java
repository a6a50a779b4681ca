package brightlantern.core.capture;

import java.util.Arrays;

/**
 * One lane of a capture. Samples are kept as the steps of a converter of at most 16 bits: a sample
 * is {@code step × scale + offset} in its unit.
 *
 * @param name as it is shown
 * @param place where it was connected
 * @param scale size of a step in its unit, above 0
 * @param steps at least one
 */
public record Lane(
        String name,
        LaneRole role,
        String unit,
        String place,
        double scale,
        double offset,
        short[] steps) {
    private static final int STEPS = 65_000;

    /** So many samples in a row at the very same end of a range are no signal. */
    private static final int FLAT_RUN = 5;

    private static final int FLAT_PEAKS = 3;

    /** A lane of fewer steps is far from the ends of its range, and rests on some by itself. */
    private static final int WIDE = 1000;

    public Lane {
        if (steps.length == 0) {
            throw new IllegalArgumentException("Lane '" + name + "' has no samples");
        }
        if (!(scale > 0) || !Double.isFinite(scale) || !Double.isFinite(offset)) {
            throw new IllegalArgumentException(
                    "Lane '"
                            + name
                            + "' has a scale of "
                            + scale
                            + " and an offset of "
                            + offset
                            + "; expected finite numbers and a scale above 0");
        }
    }

    /**
     * A lane of numbers; they are rounded to a 65,000th of their span.
     *
     * @throws IllegalArgumentException names the first number that is not finite
     */
    public static Lane of(String name, LaneRole role, String unit, String place, double[] samples) {
        for (int i = 0; i < samples.length; i++) {
            if (!Double.isFinite(samples[i])) {
                throw new IllegalArgumentException(
                        "Lane '" + name + "', sample " + (i + 1) + ": expected a finite number");
            }
        }
        double least = Arrays.stream(samples).min().orElse(0);
        double most = Arrays.stream(samples).max().orElse(0);
        double scale = most > least ? (most - least) / STEPS : 1;
        double middle = (least + most) / 2;
        short[] steps = new short[samples.length];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = (short) Math.round((samples[i] - middle) / scale);
        }
        return new Lane(name, role, unit, place, scale, middle, steps);
    }

    /** Whether its peaks lie flat at an end, as where a range is too small. */
    public boolean clipped() {
        short least = steps[0];
        short most = steps[0];
        for (short s : steps) {
            least = s < least ? s : least;
            most = s > most ? s : most;
        }
        return most - least >= WIDE && (flat(least) || flat(most));
    }

    /** Whether nothing moves in it, as where a probe is not connected. */
    public boolean silent() {
        for (short s : steps) {
            if (s != steps[0]) {
                return false;
            }
        }
        return true;
    }

    private boolean flat(short end) {
        int run = 0;
        int flats = 0;
        int at = 0;
        for (short s : steps) {
            run = s == end ? run + 1 : 0;
            flats += run == FLAT_RUN ? 1 : 0;
            at += s == end ? 1 : 0;
        }
        // one slow peak is flat by itself, and a lane that rests at its end, as a switch does, too
        return flats >= FLAT_PEAKS && at < steps.length / 4;
    }

    public int length() {
        return steps.length;
    }

    /** The largest sample, in its unit. */
    public double most() {
        return worth(levels(1)[0]);
    }

    /** The least sample, in its unit. */
    public double least() {
        return worth(levels(0)[0]);
    }

    /**
     * The steps below which such shares of all samples lie (percentiles of the nearest rank).
     *
     * @param shares from 0, the least, to 1, the largest
     */
    public short[] levels(double... shares) {
        int[] counts = new int[1 << Short.SIZE];
        for (short s : steps) {
            counts[s - Short.MIN_VALUE]++;
        }
        short[] levels = new short[shares.length];
        for (int i = 0; i < levels.length; i++) {
            int rank = (int) (shares[i] * (steps.length - 1));
            int level = 0;
            for (long below = counts[0]; below <= rank; below += counts[level]) {
                level++;
            }
            levels[i] = (short) (level + Short.MIN_VALUE);
        }
        return levels;
    }

    /** What a step is worth in its unit. */
    public double worth(double step) {
        return step * scale + offset;
    }

    /** A sample in its unit. */
    public double at(int index) {
        return worth(steps[index]);
    }

    /** All samples in its unit. */
    public double[] samples() {
        double[] all = new double[steps.length];
        for (int i = 0; i < all.length; i++) {
            all[i] = at(i);
        }
        return all;
    }

    /**
     * A part of it.
     *
     * @param from first sample, and {@code to}: the one behind its last
     */
    public Lane between(int from, int to) {
        return new Lane(
                name, role, unit, place, scale, offset, Arrays.copyOfRange(steps, from, to));
    }

    /** The same as what a study takes it for. */
    public Lane as(LaneRole other) {
        return new Lane(name, other, unit, place, scale, offset, steps);
    }

    /** The same, turned over. */
    public Lane inverted() {
        short[] turned = new short[steps.length];
        for (int i = 0; i < turned.length; i++) {
            turned[i] = (short) Math.min(Short.MAX_VALUE, -steps[i]);
        }
        return new Lane(name, role, unit, place, scale, -offset, turned);
    }
}
