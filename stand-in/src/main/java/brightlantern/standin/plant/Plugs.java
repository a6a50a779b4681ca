package brightlantern.standin.plant;

import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.Random;

/**
 * The spark plugs of an engine, and what a pickup at their leads shows: the voltage rises until it
 * breaks over (with gap and density, Paschen's law in its straight part), burns as long as the coil
 * has energy for it, and rings out; where it does not break over it rings out from all that the
 * coil can give.
 */
final class Plugs {
    /** Modes in which one fails: its gap in mm, and the share of the voltage that is left. */
    static final String GAP = "gap";

    static final String FOULED = "fouled";

    private static final double GAP_MM = 0.8;

    /** Breaks over at so much, kV, and so much more for each mm at full density. */
    private static final double LEAST_KV = 3;

    private static final double KV_PER_MM = 10;

    /** What a coil can give, against what a sound plug needs in the fullest cylinder. */
    private static final double COIL_TIMES = 1.5;

    private static final double BURNS_SECONDS = 1.6e-3;
    private static final double BURNS_KV = 0.9;
    private static final double BURNS_KV_PER_MM = 0.6;
    private static final double RISE_SECONDS = 4e-5;
    private static final double RING_HERTZ = 4000;
    private static final double RING_SECONDS = 3e-4;
    private static final double RING_KV = 1.4;

    /** From firing to firing it breaks over, and burns, otherwise by this share. */
    private static final double SCATTER = 0.05;

    private final double[] gap;
    private final double[] left;
    private final double[] needs;
    private final double[] burns;
    private final Random random;

    /** What a coil gives at its full current, kV. */
    private final double coil;

    /**
     * @param fullest density of a charge, 1 for one at ambient pressure
     */
    Plugs(int cylinders, double fullest, long seed) {
        coil = COIL_TIMES * (LEAST_KV + KV_PER_MM * GAP_MM * fullest);
        random = new Random(seed);
        gap = new double[cylinders];
        left = new double[cylinders];
        needs = new double[cylinders];
        burns = new double[cylinders];
        Arrays.fill(gap, GAP_MM);
        Arrays.fill(left, 1);
        for (int k = 0; k < cylinders; k++) {
            gap[k] *= 1 + 0.03 * random.nextGaussian();
            fires(k);
        }
    }

    /**
     * @param mode gap (its size in mm, 0 for a new plug) or fouled (share of the voltage, 1 for
     *     none)
     */
    void fail(String mode, int k, double size) {
        if (mode.equals(GAP)) {
            gap[k] = size > 0 ? size : GAP_MM;
        } else {
            left[k] = size;
        }
    }

    /** One more firing begins. */
    void fires(int k) {
        needs[k] = 1 + SCATTER * random.nextGaussian();
        burns[k] = 1 + SCATTER * random.nextGaussian();
    }

    /** What one needs to break over, kV, at so much of a full charge. */
    private double breaksAt(int k, double density) {
        return LEAST_KV + KV_PER_MM * gap[k] * density;
    }

    /** What is there to break over with, kV. */
    private double there(int k, double current) {
        return coil * left[k] * current;
    }

    /**
     * Whether it ignites.
     *
     * @param density of the charge, 1 for a full one
     */
    boolean ignites(int k, double density) {
        return there(k, 1) > breaksAt(k, density);
    }

    /**
     * What its pickup shows, kV.
     *
     * @param since seconds since its coil was switched off
     * @param current of the coil at that instant, as a share of its full one
     */
    double kilovolts(int k, double since, double density, double current) {
        double there = there(k, current);
        double needs = breaksAt(k, density) * this.needs[k];
        if (since < 0 || current < 0.02) {
            return 0;
        }
        double top = Math.min(there, needs);
        if (since < RISE_SECONDS) {
            return top * since / RISE_SECONDS;
        }
        double after = since - RISE_SECONDS;
        if (there < needs) {
            return ring(there, after);
        }
        double kv = BURNS_KV + BURNS_KV_PER_MM * gap[k];
        double healthy = BURNS_KV + BURNS_KV_PER_MM * GAP_MM;
        // what breaking over took is not there to burn with
        double energy = Math.max(0.1, current * current - 0.35 * Math.pow(needs / coil, 2));
        double lasts = BURNS_SECONDS * energy * healthy / kv * burns[k];
        if (after < lasts) {
            // towards its end the gas between is thinner and needs more
            return kv * (1 + 0.3 * Math.pow(after / lasts, 4));
        }
        return ring(RING_KV, after - lasts);
    }

    private static double ring(double from, double seconds) {
        return seconds > 8 * RING_SECONDS
                ? 0
                : from
                        * Math.cos(2 * Math.PI * RING_HERTZ * seconds)
                        * Math.exp(-seconds / RING_SECONDS);
    }

    /** What is looked at of them, by hand. */
    static Map<String, String> acts() {
        return Map.of("look-plugs", "Take the spark plugs out and look at them");
    }

    /** What is seen of them. */
    String seen() {
        for (int k = 0; k < gap.length; k++) {
            if (left[k] < 1) {
                return "That of cylinder " + (k + 1) + " is black and wet.";
            }
            if (gap[k] > 1.5 * GAP_MM) {
                return String.format(
                        Locale.ROOT,
                        "That of cylinder %d is burnt away, its gap %.1f mm.",
                        k + 1,
                        gap[k]);
            }
        }
        return "All alike, light brown, gaps right.";
    }
}
