package brightlantern.core.capture;

import java.util.Arrays;
import java.util.List;

/**
 * The current through a coil from when it is switched on until it is switched off, as the mean of
 * many pulses: i = I·(1 − e^(−t/τ)) with τ = L/R (a coil behind its ohms). For every τ the best I
 * follows by least squares, so only τ is searched for (variable projection).
 *
 * @param amps that it would come to in the end, I, A; of a ramp that is too straight to tell, what
 *     it came to
 * @param rises its time constant τ, s; NaN where that cannot be told
 * @param lasts how long it is on, s
 * @param ends current at which it is switched off, A
 * @param moves when its armature moves, s after it was switched on; NaN where no step shows
 */
public record CurrentRamp(double amps, double rises, double lasts, double ends, double moves) {
    /** An armature that moves takes more than this share of the current for a moment. */
    private static final double STEP = 0.04;

    /** So long about a step, as a share of the ramp, it is left out of the fit. */
    private static final double BESIDE_STEP = 0.2;

    /** So many samples at either end are its edges. */
    private static final int EDGE = 2;

    private static final int MEAN_OVER = 5;

    /** Whether it is so straight that its end cannot be told. */
    boolean isStraight() {
        return Double.isNaN(rises);
    }

    /** The same, by the current at which it was switched off. */
    CurrentRamp asItEnds() {
        return new CurrentRamp(ends, Double.NaN, lasts, ends, moves);
    }

    /** A ramp of fewer samples says nothing. */
    static final int LEAST = 20;

    /** Time constants that are looked at, as shares of the ramp; above the last it is straight. */
    private static final double SHORTEST = 0.05;

    private static final double LONGEST = 5;
    private static final double FINE = 1.02;

    /** The ramp I − B·e^(−t/τ), and the sum of squares by which it misses what was measured. */
    private record Fit(double amps, double missing, double tau, double squares) {
        double at(double t) {
            return amps - missing * Math.exp(-t / tau);
        }
    }

    /**
     * @param lane in which its pulses stand
     * @param starts first samples of its pulses
     * @param length samples of the shortest of them, {@link #LEAST} or more
     * @param interval seconds between samples
     */
    static CurrentRamp of(Lane lane, List<Integer> starts, int length, double interval) {
        double[] mean = new double[length];
        for (int start : starts) {
            for (int i = 0; i < length; i++) {
                mean[i] += lane.at(start + i) / starts.size();
            }
        }
        boolean[] used = new boolean[length];
        Arrays.fill(used, EDGE, length - EDGE, true);
        Fit fit = fitted(mean, used, interval);
        double moves = Double.NaN;
        int deepest = deepest(mean, fit, interval);
        if (deepest >= 0) {
            int beside = (int) (BESIDE_STEP * length);
            Arrays.fill(
                    used,
                    Math.max(0, deepest - beside),
                    Math.min(length, deepest + beside + 1),
                    false);
            fit = fitted(mean, used, interval);
            moves = off(mean, fit, deepest, interval) < -STEP ? deepest * interval : Double.NaN;
        }
        double ends = around(mean, length - 1 - EDGE - MEAN_OVER / 2);
        boolean straight = fit.tau() > LONGEST / FINE * length * interval;
        return new CurrentRamp(
                straight ? ends : fit.amps(),
                straight ? Double.NaN : fit.tau(),
                length * interval,
                ends,
                moves);
    }

    private static double around(double[] of, int at) {
        int from = Math.max(0, at - MEAN_OVER / 2);
        int to = Math.min(of.length, at + MEAN_OVER / 2 + 1);
        return Arrays.stream(of, from, to).average().orElseThrow();
    }

    private static Fit fitted(double[] mean, boolean[] used, double interval) {
        double whole = mean.length * interval;
        Fit best = null;
        for (double tau = SHORTEST * whole; tau <= LONGEST * whole; tau *= FINE) {
            Fit fit = fitted(mean, used, interval, tau);
            if (best == null || fit.squares() < best.squares()) {
                best = fit;
            }
        }
        return best;
    }

    /** Least squares of I and B for one τ (normal equations of a straight line in e^(−t/τ)). */
    private static Fit fitted(double[] mean, boolean[] used, double interval, double tau) {
        double n = 0;
        double x = 0;
        double y = 0;
        double xx = 0;
        double xy = 0;
        for (int i = 0; i < mean.length; i++) {
            if (used[i]) {
                double e = Math.exp(-i * interval / tau);
                n++;
                x += e;
                y += mean[i];
                xx += e * e;
                xy += e * mean[i];
            }
        }
        double slope = (n * xy - x * y) / (n * xx - x * x);
        Fit fit = new Fit((y - slope * x) / n, -slope, tau, 0);
        double squares = 0;
        for (int i = 0; i < mean.length; i++) {
            squares += used[i] ? Math.pow(mean[i] - fit.at(i * interval), 2) : 0;
        }
        return new Fit(fit.amps(), fit.missing(), tau, squares);
    }

    private static double off(double[] mean, Fit fit, int at, double interval) {
        return (around(mean, at) - fit.at(at * interval)) / fit.amps();
    }

    /** Where what was measured lies furthest below the smooth ramp; below 0 for nowhere. */
    private static int deepest(double[] mean, Fit fit, double interval) {
        int deepest = -1;
        double most = 0;
        for (int i = mean.length / 8; i < mean.length - EDGE - MEAN_OVER; i++) {
            double off = off(mean, fit, i, interval);
            if (off < most) {
                most = off;
                deepest = i;
            }
        }
        return deepest;
    }
}
