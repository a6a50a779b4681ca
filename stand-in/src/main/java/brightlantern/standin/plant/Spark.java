package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * Ignition and valve timing of a spark-ignition engine: a table over speed and load, knock that
 * takes angle away at once and gives it back slowly, cam phasers with first-order lag, a valve lift
 * that switches over. Angles in degrees before dead centre.
 */
public final class Spark implements Part {
    /** Breakpoints of the table: engine speed in rpm, load in percent. */
    static final double[] SPEEDS = {800, 1500, 2200, 3000, 4000};

    static final double[] LOADS = {5, 20, 40, 60, 80, 100};

    private static final double[][] ANGLES = {
        {8, 14, 12, 9, 5, 2},
        {16, 26, 22, 17, 11, 6},
        {22, 32, 28, 22, 15, 10},
        {26, 36, 32, 26, 19, 13},
        {29, 38, 34, 29, 22, 16},
    };

    private static final double KNOCK_STEP = 2.5;
    private static final double GIVEN_BACK_PER_SECOND = 0.6;
    private static final double LIFT_RPM = 2600;

    private final EngineSpec spec;
    private final Random random;
    private final double[] retard;
    private double knocksMore = 1;
    private double base;
    private double intakeTarget;
    private double intake;
    private double exhaustTarget;
    private double exhaust;
    private boolean highLift;
    private double dwell;
    private double knock;

    public Spark(EngineSpec spec, long seed) {
        this.spec = spec;
        this.random = new Random(seed);
        this.retard = new double[spec.cylinders()];
    }

    /** Fuel that knocks so many times more often than it should. */
    public synchronized Spark knocks(double times) {
        knocksMore = times;
        return this;
    }

    /** The table's angle, bilinear between its breakpoints and held at its edges. */
    public static double table(double rpm, double loadPercent) {
        int i = cell(SPEEDS, rpm);
        int j = cell(LOADS, loadPercent);
        double x = share(SPEEDS, i, rpm);
        double y = share(LOADS, j, loadPercent);
        return ANGLES[i][j] * (1 - x) * (1 - y)
                + ANGLES[i + 1][j] * x * (1 - y)
                + ANGLES[i][j + 1] * (1 - x) * y
                + ANGLES[i + 1][j + 1] * x * y;
    }

    private static int cell(double[] at, double v) {
        int i = 0;
        while (i < at.length - 2 && v >= at[i + 1]) {
            i++;
        }
        return i;
    }

    private static double share(double[] at, int i, double v) {
        return Math.max(0, Math.min(1, (v - at[i]) / (at[i + 1] - at[i])));
    }

    @Override
    public synchronized void step(Whole w, double dt) {
        double load = 100 * w.load();
        base = w.running() ? table(w.rpm(), load) : w.cranking() ? 6 : 0;
        double risk = w.running() && load > 60 ? 0.05 * (load - 60) / 40 * knocksMore : 0;
        knock += (12 + 0.25 * load - knock) * Math.min(1, dt / 0.2);
        for (int k = 0; k < retard.length; k++) {
            if (random.nextDouble() < risk * dt * 10) {
                retard[k] = Math.min(12, retard[k] + KNOCK_STEP);
                knock += 30;
            }
            retard[k] = Math.max(0, retard[k] - GIVEN_BACK_PER_SECOND * dt);
        }
        boolean oil = w.running() && w.coolant() > 30;
        intakeTarget = oil ? Math.max(0, Math.min(40, 0.55 * load - 4)) : 0;
        exhaustTarget = oil ? Math.max(0, Math.min(25, 0.3 * load)) : 0;
        intake += (intakeTarget - intake) * Math.min(1, dt / 0.25);
        exhaust += (exhaustTarget - exhaust) * Math.min(1, dt / 0.3);
        highLift = w.running() && (w.rpm() > LIFT_RPM || highLift && w.rpm() > LIFT_RPM - 200);
        dwell = w.running() || w.cranking() ? 2.6 * 12 / Math.max(8, w.volts()) : 0;
    }

    private double told() {
        double sum = 0;
        for (double r : retard) {
            sum += r;
        }
        return base - sum / retard.length;
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        s.put("ignition.wanted", () -> base);
        s.put("ignition.angle", this::told);
        s.put("ignition.dwell", () -> dwell);
        s.put("knock.level", () -> knock + random.nextGaussian());
        s.put("cam.intake.target", () -> intakeTarget);
        s.put("cam.intake", () -> Math.max(0, intake + 0.1 * random.nextGaussian()));
        s.put("cam.exhaust.target", () -> exhaustTarget);
        s.put("cam.exhaust", () -> Math.max(0, exhaust + 0.1 * random.nextGaussian()));
        s.put("valve.lift", () -> highLift ? 1 : 0);
        for (int k = 0; k < retard.length; k++) {
            int its = k;
            s.put("knock.retard." + (k + 1), () -> retard[its]);
        }
        return s;
    }

    @Override
    public void fail(String mode, String of, double size) {
        if (mode.equals("knocks")) {
            knocks(size);
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}
