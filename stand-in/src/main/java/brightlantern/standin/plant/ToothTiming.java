package brightlantern.standin.plant;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * What an engine's module makes of the teeth of its crank: how much each cylinder speeds it up, who
 * lacks more than scatter allows, and what it has learned of the wheel.
 */
final class ToothTiming {
    private static final int TEETH = 60;
    private static final double TOOTH_DEGREES = 360.0 / TEETH;

    /** Tooth pitch error that is left after the module learned its wheel, degrees. */
    private static final double PITCH_ERROR = 0.006;

    /** How much of a new cycle goes into the deviation that is told. */
    private static final double FILTER = 0.06;

    /** A combustion that lacks more than this share of its work is counted as a misfire. */
    private static final double MISFIRE_SHARE = 0.55;

    private static final int WINDOW_CYCLES = 500;

    /** Cycles are numbered up to here, and then from the beginning. */
    private static final int NUMBERED = 1_000_000;

    /** The wheel is learned in so many swings over the threshold and back, foot off. */
    private static final int SWINGS = 4;

    private static final double SWING_RPM = 2000;
    private static final double RELEASED_RPM = 1500;

    /** The first ones after a start are not judged. */
    private static final int SETTLING_CYCLES = 20;

    /** Below this speed, rad/s, it evens out what cylinders give. */
    private static final double EVENS_OUT_BELOW = 130;

    private final EngineSpec spec;
    private final double[] phase;
    private final double[] pitch = new double[TEETH];
    private final double[] startSpeed;
    private final double[] gain;
    private final double[] deviation;
    private final double[] correction;
    private final Deque<Integer> missed = new ArrayDeque<>();
    private final int[] misfires;
    private long cycles;
    private int toLearn;
    private boolean above;

    /**
     * @param phase degrees of crank angle at which each cylinder fires
     */
    ToothTiming(EngineSpec spec, double[] phase, Random random) {
        this.spec = spec;
        this.phase = phase;
        int n = phase.length;
        startSpeed = new double[n];
        gain = new double[n];
        deviation = new double[n];
        correction = new double[n];
        misfires = new int[n];
        for (int i = 0; i < TEETH; i++) {
            pitch[i] = PITCH_ERROR * random.nextGaussian();
        }
    }

    /** Each journey is counted for itself. */
    void started() {
        missed.clear();
        Arrays.fill(misfires, 0);
    }

    void stands() {
        Arrays.fill(deviation, 0);
    }

    /** What it had counted and evened out is forgotten. */
    void cleared() {
        started();
        Arrays.fill(deviation, 0);
        Arrays.fill(correction, 0);
    }

    /** Misfires of each cylinder within its window. */
    int[] misfires() {
        return misfires;
    }

    /** Begins to learn the wheel; whether it can, now. */
    boolean learn(boolean running) {
        toLearn = running ? SWINGS : toLearn;
        above = false;
        return running;
    }

    void stopLearning() {
        toLearn = 0;
    }

    /** Swings that are left; 0 when nothing is learned. */
    int toLearn() {
        return toLearn;
    }

    /** Follows the swings; whether the last of them is over at this instant. */
    boolean learns(Whole whole) {
        if (!whole.running()) {
            toLearn = 0;
        }
        if (toLearn == 0) {
            return false;
        }
        if (whole.rpm() > SWING_RPM) {
            above = true;
        } else if (above && whole.rpm() < RELEASED_RPM && whole.load() < 0.05) {
            above = false;
            toLearn--;
            return toLearn == 0;
        }
        return false;
    }

    /**
     * Times a tooth; at a cylinder's ends it takes the speed.
     *
     * @param speed at this tooth, and {@code mean}, both rad/s
     * @param wanted torque, Nm
     */
    void tooth(double angle, double speed, double mean, double wanted, Misfiring misfiring) {
        int n = phase.length;
        int index = (int) Math.round(angle / TOOTH_DEGREES);
        double measured = speed * (1 + pitch[index % TEETH] / (3 * TOOTH_DEGREES));
        for (int k = 0; k < n; k++) {
            double at = Math.floorMod((int) Math.round(angle - phase[k]) + 1440, 720);
            if (at == 0) {
                startSpeed[k] = measured;
            } else if (Math.abs(at - Math.min(144, 720.0 / n)) < TOOTH_DEGREES / 2) {
                gain[k] = measured - startSpeed[k] - misfiring.believed(k, mean);
            }
        }
        if (index % (2 * TEETH) == 0) {
            cycle(mean, wanted);
        }
    }

    private void cycle(double mean, double wanted) {
        int n = phase.length;
        cycles++;
        double average = 0;
        for (double g : gain) {
            average += g / n;
        }
        // what the work of one combustion is worth in speed: J·ω·Δω = W
        double worth = 4 * Math.PI * wanted / n / (spec.inertia() * mean);
        for (int k = 0; k < n; k++) {
            double its = gain[k] - average;
            deviation[k] += FILTER * (its * 60 / (2 * Math.PI) - deviation[k]);
            if (cycles > SETTLING_CYCLES
                    && wanted > 0
                    && its < -MISFIRE_SHARE * worth * (n - 1) / n) {
                missed.addLast(k + (int) (cycles % NUMBERED) * n);
                misfires[k]++;
            }
            if (mean < EVENS_OUT_BELOW) {
                correction[k] =
                        Math.max(-40, Math.min(40, correction[k] - 0.2 * deviation[k] * FILTER));
            }
        }
        while (!missed.isEmpty() && missed.peekFirst() / n < cycles % NUMBERED - WINDOW_CYCLES) {
            misfires[missed.removeFirst() % n]--;
        }
    }

    /** What it tells. */
    Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> sensors = new HashMap<>();
        for (int k = 0; k < phase.length; k++) {
            int its = k;
            sensors.put("deviation." + (k + 1), () -> deviation[its]);
            sensors.put("misfires." + (k + 1), () -> misfires[its]);
            sensors.put("quantity." + (k + 1), () -> correction[its]);
        }
        sensors.put("misfires.total", () -> Arrays.stream(misfires).sum());
        sensors.put(
                "crank.roughness",
                () -> Math.sqrt(Arrays.stream(deviation).map(d -> d * d).average().orElse(0)));
        return sensors;
    }
}
