package brightlantern.core.reason;

import org.hipparchus.special.Erf;
import org.hipparchus.util.FastMath;

/**
 * A normal distribution on a bounded scale from 0 to {@code top}, mixed with a little of anything
 * on that scale.
 */
record Normal(double mean, double deviation, double top) {
    /** The same, read with an instrument that has a deviation of its own. */
    Normal blurred(double byDeviation) {
        return new Normal(mean, Math.hypot(deviation, byDeviation), top);
    }

    /**
     * Density of a figure.
     *
     * @param anything share that may lie anywhere on the scale
     */
    double density(double x, double anything) {
        double z = (x - mean) / deviation;
        double bell = FastMath.exp(-0.5 * z * z) / (deviation * FastMath.sqrt(2 * Math.PI));
        return (1 - anything) * bell + anything / top;
    }

    /** Whether a figure lies where it rather comes from anything than from the distribution. */
    boolean isSlip(double x, double anything) {
        return density(x, 0) * (1 - anything) < anything / top;
    }

    /** Probability of a figure below x. */
    double below(double x, double anything) {
        if (Double.isInfinite(x)) {
            return 1;
        }
        double bell = cumulated((x - mean) / deviation);
        double flat = Math.max(0, Math.min(1, x / top));
        return (1 - anything) * bell + anything * flat;
    }

    /** Beyond so many deviations nothing is left that would count. */
    private static final double FAR = 8;

    private static final int STEPS = 256;

    /** The standard normal distribution, tabulated: planning asks for it a million times. */
    private static final double[] TABLE = table();

    private static double[] table() {
        double[] table = new double[(int) (2 * FAR * STEPS) + 2];
        for (int i = 0; i < table.length; i++) {
            table[i] = 0.5 * (1 + Erf.erf((i / (double) STEPS - FAR) / FastMath.sqrt(2)));
        }
        return table;
    }

    /** The standard normal distribution, interpolated between entries; off by less than 10⁻⁶. */
    static double cumulated(double z) {
        if (z <= -FAR) {
            return 0;
        }
        if (z >= FAR) {
            return 1;
        }
        double at = (z + FAR) * STEPS;
        int i = (int) at;
        return TABLE[i] + (at - i) * (TABLE[i + 1] - TABLE[i]);
    }
}
