package brightlantern.standin.instrument;

import java.util.Arrays;

/**
 * What a meter makes of a stretch of samples.
 *
 * @param alternating root mean square without the steady part, V
 * @param hertz how often a second it repeats itself; infinite where nothing does
 * @param duty share of the time above its middle; infinite where nothing repeats itself
 */
record WaveFigures(double alternating, double hertz, double duty) {
    /** A swing below this is no signal to a counter, V. */
    private static final double LEAST_SWING = 0.1;

    /** A counter takes a crossing for one once it has gone so far beyond the middle. */
    private static final double HYSTERESIS = 0.2;

    /**
     * @param samples at least one, evenly over the seconds
     */
    static WaveFigures of(double[] samples, double seconds) {
        double mean = Arrays.stream(samples).average().orElseThrow();
        double square = Arrays.stream(samples).map(v -> (v - mean) * (v - mean)).sum();
        double least = Arrays.stream(samples).min().orElseThrow();
        double most = Arrays.stream(samples).max().orElseThrow();
        double rms = Math.sqrt(square / samples.length);
        if (most - least < LEAST_SWING) {
            return new WaveFigures(rms, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY);
        }
        double middle = (most + least) / 2;
        double band = HYSTERESIS * (most - least) / 2;
        int rises = 0;
        int first = -1;
        int last = -1;
        int above = 0;
        int aboveAtLast = 0;
        boolean high = samples[0] > middle;
        for (int i = 0; i < samples.length; i++) {
            boolean now = high ? samples[i] > middle - band : samples[i] > middle + band;
            if (now && !high) {
                first = first < 0 ? i : first;
                above = first == i ? 0 : above;
                aboveAtLast = above;
                last = i;
                rises++;
            }
            high = now;
            above += high ? 1 : 0;
        }
        if (rises < 2) {
            return new WaveFigures(rms, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY);
        }
        return new WaveFigures(
                rms,
                (rises - 1) / ((last - first) * seconds / samples.length),
                (double) aboveAtLast / (last - first));
    }
}
