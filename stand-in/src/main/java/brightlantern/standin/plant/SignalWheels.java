package brightlantern.standin.plant;

import brightlantern.core.cylinder.SignalWheel;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * The wheels of crank and camshaft as their sensors feel them: cut a little unevenly, and as a
 * chain that stretches, a mark that breaks off and a blow that bends the wheel leave them.
 */
final class SignalWheels {
    /** What {@link #fail} knows. */
    enum Mode {
        /** Degrees by which the chain lets the camshaft lag. */
        CHAIN,
        /** The mark that broke off, counted from the gap; 0 for none. */
        MARK,
        /** Share by which the speed seems to swing in each turn. */
        BENT
    }

    private static final double HIGH_VOLTS = 5;
    private static final double LOW_VOLTS = 0.2;

    /** A mark begins so far behind the place at which its pitch begins, share of a pitch. */
    private static final double BEGINS = 0.2;

    private static final double MARK_SHARE = 0.45;
    private static final double CAM_MARK_DEGREES = 28;

    /** Standard deviation of a tooth's place, share of a pitch. */
    private static final double CUT = 0.006;

    /** Standard deviation of where the camshaft stands in a new engine, degrees of the crank. */
    private static final double FITTED = 1;

    private static final double TURN = 360;

    private final SignalWheel wheel;
    private final double[] cut;
    private final double fitted;
    private double stretched;
    private int lost;
    private double bent;

    SignalWheels(SignalWheel wheel, Random random) {
        this.wheel = wheel;
        cut = random.doubles(wheel.teeth()).map(u -> CUT * random.nextGaussian()).toArray();
        fitted = FITTED * random.nextGaussian();
    }

    /** Degrees of the crank by which the camshaft lags. */
    double late() {
        return fitted + stretched;
    }

    void fail(Mode mode, double size) {
        switch (mode) {
            case CHAIN -> stretched = size;
            case MARK -> lost = (int) size;
            case BENT -> bent = size;
        }
    }

    /**
     * Volts of the crank's sensor.
     *
     * @param angle degrees after cylinder 1 fires at its dead centre, 0 to 720
     */
    double crank(double angle) {
        double at = (angle + wheel.first() + BEGINS * wheel.pitch()) % TURN;
        // bent: each mark comes by so much early or late
        at = (at + Math.toDegrees(bent) * Math.sin(Math.toRadians(at)) + TURN) % TURN;
        int tooth = (int) (at / wheel.pitch());
        if (tooth >= wheel.there() || tooth == lost - 1) {
            return LOW_VOLTS;
        }
        double within = at / wheel.pitch() - tooth - BEGINS - cut[tooth];
        return within >= 0 && within < MARK_SHARE ? HIGH_VOLTS : LOW_VOLTS;
    }

    /** Volts of the camshaft's sensor, at the same angle of the crank. */
    double cam(double angle) {
        double at = angle + wheel.first() - late();
        for (double mark : wheel.cam()) {
            if ((at - mark + 2 * TURN) % (2 * TURN) < CAM_MARK_DEGREES) {
                return HIGH_VOLTS;
            }
        }
        return LOW_VOLTS;
    }

    /** What its module learns of them. */
    Map<String, DoubleSupplier> sensors() {
        return Map.of(
                "cam.offset",
                this::late,
                "cam.away",
                () -> Math.abs(late()),
                "wheel.correction",
                () -> 100 * (bent + CUT),
                "wheel.missed",
                () -> lost > 0 ? 1 : 0);
    }
}
