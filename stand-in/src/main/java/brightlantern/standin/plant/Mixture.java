package brightlantern.standin.plant;

import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * Air, fuel and vapour of a small spark-ignition engine with closed-loop mixture control, stepped
 * beside a {@link PlainPlant}. Masses in g/s, pressures in kPa absolute, trims in percent.
 *
 * <p>Air by speed-density (ideal gas); flow through openings by the equations of isentropic nozzle
 * flow, choked below the critical pressure ratio; a trim of s percent means s percent more fuel.
 */
public final class Mixture implements Part {
    private static final double STOICHIOMETRIC = 14.7;
    private static final double AMBIENT_KPA = 101.3;
    private static final double AMBIENT_KELVIN = 293;
    private static final double INTAKE_KELVIN = 310;
    private static final double GAS_CONSTANT = 287;
    private static final double GAMMA = 1.4;
    private static final double CRITICAL_RATIO = 0.528;
    private static final double DISCHARGE = 0.8;
    private static final double FINCH_LITRES = 1.2;
    private static final double FILLING = 0.85;
    private static final double IDLE_KPA = 34;
    private static final double LOAD_KPA = 62;

    /** Fully open purge valve, m². */
    private static final double PURGE_AREA = 1.2e-6;

    private static final double MOST_TRIM = 25;

    /** Percent of short-term trim a second for each percent of error. */
    private static final double SHORT_RATE = 2.0;

    /** Time in which the long-term trim takes the short-term one over, s. */
    private static final double LEARN_SECONDS = 90;

    private static final double CLOSED_LOOP_CELSIUS = 40;
    private static final double LEARN_CELSIUS = 70;
    private static final double PURGE_CELSIUS = 60;

    /** Fuel in the canister at which half of what it can give off is given off, g. */
    private static final double HALF_LOADED_GRAMS = 60;

    private static final double RICHEST_VAPOUR = 0.5;
    private static final double FILLING_UP_GRAMS = 35;

    /**
     * What is wrong with it.
     *
     * @param purgeHoleMm hole as which a purge valve that does not close leaks, 0 when it closes
     * @param intakeHoleMm hole between airflow meter and engine
     * @param meterReads share of the true airflow that the meter tells
     * @param fuelAtLoad share of the wanted fuel that arrives when much is wanted
     * @param drip fuel that drips from an injector, g/s
     */
    public record Faults(
            double purgeHoleMm,
            double intakeHoleMm,
            double meterReads,
            double fuelAtLoad,
            double drip) {
        public static Faults none() {
            return new Faults(0, 0, 1, 1, 0);
        }

        public static Faults leakingPurge(double mm) {
            return new Faults(mm, 0, 1, 1, 0);
        }
    }

    private final Random random;
    private volatile Faults faults;
    private final double litres;
    private final String bank;
    private double load;
    private double manifold = AMBIENT_KPA;
    private double metered;
    private double lambda = 1;
    private double shortTrim;
    private final double[] longTrim = new double[3];
    private int regime;
    private double purgeDuty;
    private double vapourGrams = 1;
    private double fuelLitres = 31;
    private double tankKpa;
    private volatile boolean pinched;

    public Mixture(Faults faults, long seed) {
        this(FINCH_LITRES, "", faults, seed);
    }

    /**
     * @param litres swept by the cylinders of this bank
     * @param bank what the ids of its values end with; empty with one bank
     */
    public Mixture(double litres, String bank, Faults faults, long seed) {
        this.litres = litres;
        this.bank = bank;
        this.faults = faults;
        this.random = new Random(seed);
    }

    /** Another state of the engine's health. */
    public void faults(Faults now) {
        faults = now;
    }

    /** Learned corrections are forgotten, as when the module's codes are cleared. */
    public synchronized void reset() {
        shortTrim = 0;
        Arrays.fill(longTrim, 0);
    }

    /** The tank is filled: its vapour goes into the canister. */
    public synchronized void fillUp() {
        fuelLitres = 45;
        vapourGrams += FILLING_UP_GRAMS;
    }

    /** One step beside the vehicle; dt in seconds. */
    @Override
    public synchronized void step(Whole p, double dt) {
        load = p.load();
        if (!p.running()) {
            manifold += (AMBIENT_KPA - manifold) * Math.min(1, dt / 0.2);
            metered = 0;
            lambda = 1;
            purgeDuty = 0;
            tankKpa += (0 - tankKpa) * Math.min(1, dt / 60);
            return;
        }
        manifold += (IDLE_KPA + LOAD_KPA * load - manifold) * Math.min(1, dt / 0.1);
        double engineAir =
                litres
                        / 2
                        * p.rpm()
                        / 60
                        * manifold
                        * 1000
                        / (GAS_CONSTANT * INTAKE_KELVIN)
                        * FILLING;
        boolean closed = p.coolant() > CLOSED_LOOP_CELSIUS && load < 0.95;
        purgeDuty = closed && p.coolant() > PURGE_CELSIUS ? (load > 0.15 ? 30 : 8) : 0;
        Faults f = faults;
        double purge = pinched ? 0 : flow(PURGE_AREA * purgeDuty / 100 + area(f.purgeHoleMm()));
        double leak = flow(area(f.intakeHoleMm()));
        double share = RICHEST_VAPOUR * vapourGrams / (vapourGrams + HALF_LOADED_GRAMS);
        tankKpa += (-0.9 * purge / 0.3 - tankKpa) * Math.min(1, dt / 5);
        vapourGrams = Math.max(0.5, vapourGrams - purge * share * dt);
        double air = Math.max(0.2, engineAir - purge - leak);
        metered = air * f.meterReads();
        double correction = (1 + shortTrim / 100) * (1 + longTrim[regime] / 100);
        double delivered = load > 0.5 ? f.fuelAtLoad() : 1;
        double fuel = metered / STOICHIOMETRIC * correction * delivered + purge * share + f.drip();
        fuelLitres = Math.max(0, fuelLitres - fuel * dt / 745);
        lambda = (air + purge * (1 - share) + leak) / STOICHIOMETRIC / fuel;
        control(closed, p.coolant() > LEARN_CELSIUS, dt);
    }

    private void control(boolean closed, boolean learns, double dt) {
        int now = load < 0.06 ? 0 : load < 0.5 ? 1 : 2;
        if (now != regime) {
            regime = now;
            shortTrim = 0;
        }
        if (!closed) {
            shortTrim = 0;
            return;
        }
        double error = 100 * (lambda - 1);
        shortTrim = limit(shortTrim + SHORT_RATE * error * dt + 0.15 * random.nextGaussian());
        if (learns) {
            longTrim[regime] = limit(longTrim[regime] + shortTrim * dt / LEARN_SECONDS);
        }
    }

    private static double limit(double trim) {
        return Math.max(-MOST_TRIM, Math.min(MOST_TRIM, trim));
    }

    private static double area(double mm) {
        return Math.PI / 4 * mm * mm * 1e-6;
    }

    /** Air drawn from outside through an opening into the manifold, g/s. */
    private double flow(double squareMetres) {
        double ratio = Math.min(1, Math.max(CRITICAL_RATIO, manifold / AMBIENT_KPA));
        double psi =
                Math.sqrt(
                        2
                                * GAMMA
                                / (GAMMA - 1)
                                * (Math.pow(ratio, 2 / GAMMA)
                                        - Math.pow(ratio, (GAMMA + 1) / GAMMA)));
        return 1000
                * DISCHARGE
                * squareMetres
                * AMBIENT_KPA
                * 1000
                / Math.sqrt(GAS_CONSTANT * AMBIENT_KELVIN)
                * psi;
    }

    @Override
    public void cleared() {
        reset();
    }

    /** The engine module forgets what it learned, on request; with two banks it cannot. */
    @Override
    public Map<Integer, Doing> doings() {
        return !bank.isEmpty()
                ? Map.of()
                : Map.of(
                        0x0602,
                        Doing.at(
                                "engine",
                                () -> {
                                    reset();
                                    return 0;
                                },
                                () -> new int[0]));
    }

    @Override
    public Map<String, String> acts() {
        Map<String, String> acts = new LinkedHashMap<>();
        acts.put("smoke-intake", "Blow smoke into the intake");
        if (bank.isEmpty()) {
            acts.put("fill-up", "Fill the tank up");
        }
        return acts;
    }

    @Override
    public String act(String id) {
        if (id.equals("fill-up")) {
            fillUp();
        } else if (id.endsWith("-purge")) {
            pinched = id.startsWith("pinch");
        } else if (id.equals("smoke-intake")) {
            return faults.intakeHoleMm() > 0
                    ? "Smoke comes out of the hose under the intake."
                    : "No smoke comes out.";
        }
        return "";
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> sensors = new HashMap<>();
        sensors.put("intake.pressure", this::manifold);
        sensors.put("air.flow" + bank, this::airflow);
        sensors.put("lambda" + bank, this::lambda);
        sensors.put("trim.short" + bank, this::shortTrim);
        sensors.put("trim.long" + bank, this::longTrim);
        sensors.put("trim.sum" + bank, () -> shortTrim() + longTrim());
        sensors.put("purge.duty", this::purgeDuty);
        sensors.put("fuel.level", this::fuelLitres);
        sensors.put("tank.pressure", () -> tankKpa);
        // behind the catalyst: rich reads high, lean low, and little of it comes through
        sensors.put("lambda.rear" + bank, () -> 0.68 - 1.5 * (lambda() - 1));
        return sensors;
    }

    public synchronized double load() {
        return 100 * load;
    }

    public synchronized double manifold() {
        return manifold;
    }

    public synchronized double airflow() {
        return metered;
    }

    public synchronized double lambda() {
        return lambda;
    }

    public synchronized double shortTrim() {
        return shortTrim;
    }

    public synchronized double longTrim() {
        return longTrim[regime];
    }

    public synchronized double purgeDuty() {
        return purgeDuty;
    }

    public synchronized double fuelLitres() {
        return fuelLitres;
    }

    @Override
    public void fail(String mode, String of, double size) {
        Faults was = faults;
        faults =
                switch (mode) {
                    case "purge-leak" ->
                            new Faults(
                                    size,
                                    was.intakeHoleMm(),
                                    was.meterReads(),
                                    was.fuelAtLoad(),
                                    was.drip());
                    case "intake-leak" ->
                            new Faults(
                                    was.purgeHoleMm(),
                                    size,
                                    was.meterReads(),
                                    was.fuelAtLoad(),
                                    was.drip());
                    case "meter-reads" ->
                            new Faults(
                                    was.purgeHoleMm(),
                                    was.intakeHoleMm(),
                                    size,
                                    was.fuelAtLoad(),
                                    was.drip());
                    case "fuel-short" ->
                            new Faults(
                                    was.purgeHoleMm(),
                                    was.intakeHoleMm(),
                                    was.meterReads(),
                                    size,
                                    was.drip());
                    case "drip" ->
                            new Faults(
                                    was.purgeHoleMm(),
                                    was.intakeHoleMm(),
                                    was.meterReads(),
                                    was.fuelAtLoad(),
                                    size);
                    default -> {
                        Part.super.fail(mode, of, size);
                        yield was;
                    }
                };
    }
}
