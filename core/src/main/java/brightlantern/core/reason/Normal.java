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

    /** Probability of a figure below x. */
    double below(double x, double anything) {
        if (Double.isInfinite(x)) {
            return 1;
        }
        double bell = 0.5 * (1 + Erf.erf((x - mean) / (deviation * FastMath.sqrt(2))));
        double flat = Math.max(0, Math.min(1, x / top));
        return (1 - anything) * bell + anything * flat;
    }
}
