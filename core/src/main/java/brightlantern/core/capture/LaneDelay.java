package brightlantern.core.capture;

import java.util.Arrays;
import java.util.Optional;

/**
 * By how much one instrument began later than another: both saw the same signal in one lane, and
 * the shift at which both agree best (normalised cross-correlation, coarse first) is their delay.
 */
public final class LaneDelay {
    /** Samples that are compared when it is looked for coarsely. */
    private static final int COARSE = 6000;

    /** Coarsely it is looked for wherever both are so nearly as alike as at best. */
    private static final double NEAR_TOP = 0.15;

    /** Both must be as alike as this. */
    private static final double ALIKE = 0.8;

    /** What is not alike at the best shift is less than this share of that at any other. */
    private static final double LEFT_OVER = 0.6;

    private LaneDelay() {}

    /**
     * Samples by which the second lane shows later, with a lower index, what the first one shows;
     * so many are to be added to the time of the second. Empty where both do not agree, or agree as
     * well at another shift.
     *
     * @param most samples to either side
     */
    public static Optional<Integer> of(Lane first, Lane second, int most) {
        int by = Math.max(1, Math.max(first.length(), second.length()) / COARSE);
        double[] a = thinned(first, by);
        double[] b = thinned(second, by);
        int reach = Math.min(most / by + 1, Math.min(a.length, b.length) / 2);
        double[] alike = new double[2 * reach + 1];
        for (int s = -reach; s <= reach; s++) {
            alike[s + reach] = alike(a, b, s);
        }
        double top = Arrays.stream(alike).max().orElse(0);
        double[] best = {0, Double.NEGATIVE_INFINITY};
        double[] next = best;
        for (int i = 0; i < alike.length; i++) {
            if (alike[i] > top - NEAR_TOP && isPeak(alike, i)) {
                double[] its = refined(first, second, by, i - reach);
                if (its[1] > best[1]) {
                    next = best;
                    best = its;
                } else if (its[1] > next[1]) {
                    next = its;
                }
            }
        }
        boolean told = best[1] > ALIKE && 1 - best[1] < LEFT_OVER * (1 - next[1]);
        return told ? Optional.of((int) best[0]) : Optional.empty();
    }

    private static boolean isPeak(double[] of, int i) {
        return (i == 0 || of[i - 1] < of[i]) && (i == of.length - 1 || of[i + 1] <= of[i]);
    }

    /**
     * The best shift near a coarse one.
     *
     * @return shift in samples, and how alike both are then
     */
    private static double[] refined(Lane first, Lane second, int by, int coarse) {
        double[] best = {coarse, 0};
        for (int finer = by; ; ) {
            int next = Math.max(1, finer / 4);
            double[] a = thinned(first, next);
            double[] b = thinned(second, next);
            int around = (int) best[0] * finer / next;
            int spread = 2 * finer / next;
            best = new double[] {around, Double.NEGATIVE_INFINITY};
            for (int s = around - spread; s <= around + spread; s++) {
                double its = alike(a, b, s);
                best = its > best[1] ? new double[] {s, its} : best;
            }
            if (next == 1) {
                return best;
            }
            finer = next;
        }
    }

    /** Means of so many samples each. */
    private static double[] thinned(Lane lane, int by) {
        double[] all = new double[lane.length() / by];
        for (int i = 0; i < all.length; i++) {
            for (int k = 0; k < by; k++) {
                all[i] += lane.at(i * by + k) / by;
            }
        }
        return all;
    }

    /** Correlation (Pearson) of what both show together when the second is moved by a shift. */
    private static double alike(double[] a, double[] b, int shift) {
        int from = Math.max(0, shift);
        int to = Math.min(a.length, b.length + shift);
        double sumA = 0;
        double sumB = 0;
        double squareA = 0;
        double squareB = 0;
        double product = 0;
        int n = to - from;
        for (int i = from; i < to; i++) {
            double x = a[i];
            double y = b[i - shift];
            sumA += x;
            sumB += y;
            squareA += x * x;
            squareB += y * y;
            product += x * y;
        }
        double spread = Math.sqrt((squareA - sumA * sumA / n) * (squareB - sumB * sumB / n));
        return n > 2 && spread > 0 ? (product - sumA * sumB / n) / spread : 0;
    }
}
