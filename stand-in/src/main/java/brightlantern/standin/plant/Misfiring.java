package brightlantern.standin.plant;

import java.util.Arrays;

/**
 * Why a module counts misfires, and what it does then: it does not know how its crank twists at
 * speed, or a coil opens when it is hot; and of a cylinder whose count is high under load it stops
 * the injector until the engine is started anew, to save the catalyst.
 */
final class Misfiring {
    /** At this speed, rad/s, an unlearned crank is believed to lose so much as its size says. */
    private static final double AT_SPEED = 200;

    /** Twist grows towards the crank's own resonance; at idle there is next to none. */
    private static final double STEEP = 6;

    /** Under a load above this a coil gets hot, in about so many seconds, and cools as slowly. */
    private static final double LOAD = 0.5;

    private static final double HEAT_SECONDS = 6;
    private static final double OPENS_AT = 0.8;
    private static final double CLOSES_AT = 0.3;

    /** Counted so often in the window of the module, and above this speed, rpm, it stops one. */
    private static final int MOST_COUNTED = 40;

    private static final double PROTECTS_ABOVE_RPM = 1500;

    private final double[] twist;
    private final double[] coilHot;
    private final double[] heat;
    private final boolean[] open;
    private final boolean[] stopped;
    private boolean protects;

    Misfiring(int cylinders) {
        twist = new double[cylinders];
        coilHot = new double[cylinders];
        heat = new double[cylinders];
        open = new boolean[cylinders];
        stopped = new boolean[cylinders];
    }

    /**
     * @param mode unlearned or coil-hot
     */
    void fail(String mode, int k, double size) {
        switch (mode) {
            case "unlearned" -> twist[k] = size;
            case "coil-hot" -> {
                coilHot[k] = size;
                heat[k] = 0;
            }
            default -> throw new IllegalArgumentException("Nothing misfires by '" + mode + "'");
        }
    }

    /** Its module stops the injector of a cylinder that misfires under load. */
    void protect() {
        protects = true;
    }

    /** The wheel was learned. */
    void learned() {
        Arrays.fill(twist, 0);
    }

    /**
     * @param counted misfires of each cylinder in the module's window
     */
    void step(Whole whole, double dt, int[] counted) {
        boolean pulls = whole.running() && whole.load() > LOAD;
        for (int k = 0; k < twist.length; k++) {
            heat[k] += ((pulls ? 1 : 0) - heat[k]) * Math.min(1, dt / HEAT_SECONDS);
            double opens = OPENS_AT / Math.max(1e-9, coilHot[k]);
            open[k] = coilHot[k] > 0 && (heat[k] > opens || open[k] && heat[k] > CLOSES_AT);
            stopped[k] =
                    whole.running()
                            && (stopped[k]
                                    || protects
                                            && pulls
                                            && whole.rpm() > PROTECTS_ABOVE_RPM
                                            && counted[k] >= MOST_COUNTED);
        }
    }

    boolean burns(int k) {
        return !open[k] && !stopped[k];
    }

    boolean coilIsWhole(int k) {
        return !open[k];
    }

    boolean isStopped(int k) {
        return stopped[k];
    }

    /** Speed that the module believes to be lost on a cylinder, rad/s, because of the twist. */
    double believed(int k, double mean) {
        return twist[k] * Math.pow(mean / AT_SPEED, STEEP);
    }
}
