package brightlantern.core.study.trim;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.hipparchus.stat.regression.SimpleRegression;

/**
 * How the long-term trim creeps while it takes over what the short-term one corrects, and where it
 * will settle. A control that learns integrates: dL/dt = S/τ. So the growth of L against the
 * integral of S is a straight line of slope 1/τ; and as both together correct what is wrong all the
 * while, L settles where their sum stands now, after the law L∞ − L = (L∞ − L0)·e^(−t/τ).
 *
 * @param settled where the long-term trim will stand, percent
 * @param deviation standard deviation of that, percentage points
 * @param now where it stands at the end of the recording, percent
 * @param tau time constant, s; infinite when it does not learn
 * @param secondsLeft until it is within one point of where it settles; 0 when it is already
 */
public record TrimCreep(
        double settled, double deviation, double now, double tau, double secondsLeft) {
    /** Closer than this to its end a creep is over, percentage points. */
    private static final double OVER = 1.0;

    /** The short-term trim needs so long to catch up after a start, s. */
    private static final double CATCH_UP_SECONDS = 5;

    /** Fewer readings say nothing. */
    private static final int LEAST = 20;

    /** Readings within so many seconds of each other err alike. */
    private static final double BLOCK_SECONDS = 2;

    /**
     * Fits one stretch.
     *
     * @param seconds rising times
     * @param shortTerm and longTerm: trims in percent at these times; NaN where not known
     * @return empty with too few readings
     */
    public static Optional<TrimCreep> fit(double[] seconds, double[] shortTerm, double[] longTerm) {
        List<Double> totals = new ArrayList<>();
        SimpleRegression growth = new SimpleRegression();
        double integral = 0;
        double before = Double.NaN;
        double first = Double.NaN;
        double last = Double.NaN;
        double begun = Double.NaN;
        for (int i = 0; i < seconds.length; i++) {
            if (Double.isNaN(shortTerm[i]) || Double.isNaN(longTerm[i])) {
                continue;
            }
            begun = Double.isNaN(begun) ? seconds[i] : begun;
            if (seconds[i] - begun < CATCH_UP_SECONDS) {
                continue;
            }
            integral += Double.isNaN(before) ? 0 : shortTerm[i] * (seconds[i] - before);
            before = seconds[i];
            first = Double.isNaN(first) ? longTerm[i] : first;
            last = longTerm[i];
            growth.addData(integral, longTerm[i] - first);
            totals.add(TrimStudy.total(shortTerm[i], longTerm[i]));
        }
        if (totals.size() < LEAST) {
            return Optional.empty();
        }
        double mean = totals.stream().mapToDouble(x -> x).average().orElseThrow();
        double variance =
                totals.stream().mapToDouble(x -> (x - mean) * (x - mean)).sum()
                        / (totals.size() - 1);
        double blocks = Math.max(1, (before - begun - CATCH_UP_SECONDS) / BLOCK_SECONDS);
        double slope = growth.getSlope();
        double tau = slope > 0 ? 1 / slope : Double.POSITIVE_INFINITY;
        double away = Math.abs(mean - last);
        return Optional.of(
                new TrimCreep(
                        mean,
                        Math.sqrt(variance / Math.min(totals.size(), blocks)),
                        last,
                        tau,
                        away <= OVER ? 0 : tau * Math.log(away / OVER)));
    }

    /** Whether it will settle beyond what counts as sound. */
    public boolean over() {
        return secondsLeft == 0;
    }
}
