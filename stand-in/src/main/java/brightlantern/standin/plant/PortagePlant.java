package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.Segment;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleSupplier;

/**
 * The van as physics: mean-value diesel with variable-vane turbo, drive line and road, coolant,
 * supply with starter and alternator, and the harness that feeds the two air actuators. The
 * corroded earth is a resistor in that harness and nothing else; that boost falls behind on a climb
 * follows from it. Pressures in kPa, speeds in m/s or rpm, temperatures in °C.
 */
public final class PortagePlant implements Plant {
    /** Step of the integration, in seconds. */
    public static final double STEP = 0.002;

    private static final double DOWN_SHARE = 0.7;
    private static final double AMBIENT_KPA = 100.2;
    private static final double AMBIENT_CELSIUS = 14;
    private static final double MASS_KG = 2900;
    private static final double WHEEL_M = 0.34;
    private static final double[] RATIOS = {0, 4.1, 2.3, 1.40, 1.0, 0.77, 0.62};
    private static final double FINAL_DRIVE = 3.9;
    private static final double DRAG_AREA = 2.8;
    private static final double IDLE_RPM = 810;
    private static final double MOST_TORQUE = 345;

    /** Largest pressure rise that the turbo is asked for, in kPa. */
    private static final double BOOST_RISE = 135;

    /**
     * Rise of the compressor in kPa with vanes in reference position at 2500 rpm and 235 kPa in the
     * manifold.
     */
    private static final double TURBO_RISE = 146;

    private static final double TURBO_SECONDS = 0.5;

    /** Load of the exhaust on the vanes, ampere per kPa of rise and per closed share. */
    private static final double VANE_LOAD = 0.0138;

    /** The module limits torque to this share after it saw boost stay behind. */
    private static final double LIMITED_SHARE = 0.6;

    private static final double BOOST_PROPORTIONAL = 0.4;
    private static final double BOOST_INTEGRAL = 0.5;
    private static final double DOORS_OPEN_AMPS = 6;

    /** Sizes of faults that a driver feels. */
    private static final double LEAST_OHM = 0.6;

    private static final double MOST_OHM = 2.5;
    private static final double LEAST_DRAG = 1.25;
    private static final double MOST_DRAG = 1.5;
    private static final double LEAST_LEAK = 0.2;
    private static final double MOST_LEAK = 0.35;
    private static final double MOTOR_COMMON = 6;
    private static final double HOSE_COMMON = 8;
    private static final double BOOST_NOISE = 0.25;
    private static final double POSITION_NOISE = 0.15;
    private static final int VANE_OUTPUT = 0x3001;
    private static final int THROTTLE_OUTPUT = 0x3002;
    private static final int VANE_REST = 0x0201;

    private final Circuit circuit;
    private final Harness harness;
    private final Faults faults = new Faults();
    private final Servo vane;
    private final Servo throttle;
    private final Random random;

    private Driver driver = Driver.away();
    private double seconds;
    private double rpm;
    private double metresPerSecond;
    private double manifoldKpa = AMBIENT_KPA;
    private int gear;
    private double coolant = 62;
    private double exhaust = 30;
    private double openVolts = 12.68;
    private double supplyVolts = 12.68;
    private double odometerKm;
    private double hours;
    private double demand;
    private double torque;
    private double boostTarget = AMBIENT_KPA;
    private double boostIntegral;
    private double crankSeconds;
    private double crankFor;
    private boolean running;
    private boolean cranking;
    private boolean limited;
    private boolean pulling;
    private double vaneCommand;
    private double throttleCommand;
    private double speedIntegral;
    private OptionalDouble vaneOverride = OptionalDouble.empty();
    private OptionalDouble throttleOverride = OptionalDouble.empty();
    private double slope;
    private boolean doorsOpen;
    private static final double STARTS_SECONDS = 0.9;
    private final PortageMonitors monitors = new PortageMonitors();

    public PortagePlant(Circuit circuit, long seed, double odometerKm) {
        this.random = new Random(seed);
        this.circuit = circuit;
        this.harness = new Harness(circuit, faults, random);
        this.vane = new Servo(harness.motor("vane-motor"), harness.scatter("vane-motor"), 12);
        this.throttle =
                new Servo(harness.motor("throttle-motor"), harness.scatter("throttle-motor"), 8);
        this.odometerKm = odometerKm;
        this.hours = odometerKm / 46.0;
    }

    @Override
    public synchronized Driver driver() {
        return driver;
    }

    @Override
    public synchronized void driver(Driver next) {
        if (next.key() == 0 && driver.key() != 0) {
            limited = false;
            running = false;
            cranking = false;
            speedIntegral = 0;
        }
        driver = next;
    }

    /** Turns the key to start; the engine catches if the battery can turn it. */
    @Override
    public synchronized void crank() {
        if (driver.key() == 2 && !running) {
            cranking = true;
            crankSeconds = 0;
            crankFor = STARTS_SECONDS;
        }
    }

    private String crankOnly() {
        if (driver.key() != 2 || running) {
            return NEEDS_KEY;
        }
        cranking = true;
        crankSeconds = 0;
        crankFor = CRANK_ONLY_SECONDS;
        return "";
    }

    public synchronized void limit() {
        limited = true;
    }

    /** A diagnostic request takes an actuator over, or gives it back when empty. */
    public synchronized void overrideVane(OptionalDouble percent) {
        vaneOverride = percent;
    }

    public synchronized void overrideThrottle(OptionalDouble percent) {
        throttleOverride = percent;
    }

    public synchronized double overriddenVane() {
        return vaneOverride.orElse(vaneCommand);
    }

    /** Hangs a load between a point of the harness and the other battery pole. */
    @Override
    public synchronized void hang(String point, Load load) {
        harness.hang(point, load);
    }

    /** Volts at a point against battery minus, empty when there is no such point. */
    @Override
    public synchronized OptionalDouble volts(String point) {
        return harness.knows(point)
                ? OptionalDouble.of(harness.volts(point))
                : OptionalDouble.empty();
    }

    @Override
    public synchronized void step(double dt) {
        for (long i = Math.round(dt / STEP); i > 0; i--) {
            stepOnce(STEP);
        }
    }

    private void stepOnce(double dt) {
        seconds += dt;
        supply(dt);
        engine(dt);
        road(dt);
        air(dt);
        actuators(dt);
        heat(dt);
    }

    private void supply(double dt) {
        double load =
                (driver.key() == 2 ? 14 : driver.key() == 1 ? 4 : 0.3)
                        + (doorsOpen ? DOORS_OPEN_AMPS : 0);
        double wanted;
        if (running && rpm > 600) {
            wanted = 14.1;
        } else if (driver.charger()) {
            wanted = 13.6;
        } else {
            double amps = load + (cranking ? 190 : 0);
            wanted = openVolts - amps * 0.011;
            // 80 Ah; a volt between full and flat
            openVolts -= amps * dt / 3600 / 80 * 1.2;
        }
        if (running || driver.charger()) {
            openVolts = Math.min(12.72, openVolts + dt * 0.0002);
        }
        supplyVolts += (wanted - supplyVolts) * Math.min(1, dt / 0.05);
    }

    private void engine(double dt) {
        if (cranking) {
            crankSeconds += dt;
            rpm += ((supplyVolts > 9 ? 230 : 0) - rpm) * dt / 0.15;
            if (crankSeconds > crankFor) {
                cranking = false;
                running = crankFor == STARTS_SECONDS && rpm > 150;
            }
            return;
        }
        if (!running) {
            rpm += (0 - rpm) * dt / 0.3;
            demand = 0;
            torque = 0;
            return;
        }
        hours += dt / 3600;
        gear = chosenGear();
        double pedal = pedal(dt);
        double ratio = RATIOS[gear] * FINAL_DRIVE;
        double geared = metresPerSecond / WHEEL_M * ratio * 60 / (2 * Math.PI);
        if (gear > 0 && geared > 700) {
            rpm = geared;
        } else {
            rpm += (IDLE_RPM + pedal * 25 - rpm) * dt / 0.4;
        }
        double shareLimit = limited ? LIMITED_SHARE : 1;
        double idle = 0.11;
        double wanted = Math.min(shareLimit, idle + (1 - idle) * pedal / 100);
        demand += (wanted - demand) * dt / 0.15;
        // the smoke limit: no more fuel than the air can burn
        double air = manifoldKpa / (AMBIENT_KPA + BOOST_RISE);
        torque = MOST_TORQUE * Math.min(demand, air * 1.04);
    }

    private int chosenGear() {
        return switch (driver.program()) {
            case STAND, WARM_UP -> 0;
            case PULL -> metresPerSecond < 5 ? 2 : 3;
            case CRUISE, OVERRUN, STOP_AND_GO -> shift(new int[] {1, 3, 5}, new double[] {5, 11});
            case CLIMB -> shift(new int[] {1, 2, 3}, new double[] {4, 9});
            case BY_HAND -> driver.gear();
        };
    }

    /**
     * @param upAt m/s from which the next gear is taken; one changes down later than up, or would
     *     hunt between two gears on every hill
     */
    private int shift(int[] gears, double[] upAt) {
        int at = 0;
        while (at < upAt.length
                && metresPerSecond >= upAt[at] * (gear > gears[at] ? DOWN_SHARE : 1)) {
            at++;
        }
        return gears[at];
    }

    private double pedal(double dt) {
        if (!running || driver.program() == Driver.Program.STAND) {
            pulling = false;
            return 0;
        }
        switch (driver.program()) {
            case BY_HAND -> {
                return driver.pedal();
            }
            case WARM_UP -> {
                return 15;
            }
            case PULL -> {
                pulling = pulling ? rpm < 3600 : metresPerSecond < 7;
                return pulling ? 100 : 0;
            }
            case OVERRUN -> {
                pulling = pulling ? metresPerSecond < 24 : metresPerSecond < 9;
                return pulling ? 45 : 0;
            }
            case STOP_AND_GO -> {
                return seconds % 40 < 20
                        ? Math.max(0, Math.min(50, 8 * (11 - metresPerSecond)))
                        : 0;
            }
            default -> {
                // below
            }
        }
        double target = driver.program() == Driver.Program.CRUISE ? 80 / 3.6 : 62 / 3.6;
        double error = target - metresPerSecond;
        speedIntegral = Math.max(0, Math.min(60, speedIntegral + 3 * error * dt));
        double wanted =
                20 * error + speedIntegral + (driver.program() == Driver.Program.CLIMB ? 45 : 10);
        return Math.max(0, Math.min(100, wanted));
    }

    private double lastPedal() {
        return running ? Math.max(0, Math.min(100, (demand - 0.11) / 0.89 * 100)) : 0;
    }

    private void road(double dt) {
        double wanted =
                switch (driver.program()) {
                    // the hill begins once the van is rolling, and it undulates as real ones do
                    case CLIMB ->
                            metresPerSecond > 12 || slope > 5
                                    ? 12 + 1.5 * Math.sin(seconds / 2.5)
                                    : 1;
                    case BY_HAND -> driver.slope();
                    default -> 0;
                };
        slope += (wanted - slope) * dt / 2.0;
        double ratio = RATIOS[gear] * FINAL_DRIVE;
        double friction = running ? 18 + 0.006 * rpm : 0;
        double drive =
                gear == 0
                        ? 0
                        : (torque - friction * (demand < 0.12 ? 1 : 0)) * ratio * 0.92 / WHEEL_M;
        double resist =
                metresPerSecond > 0.05
                        ? MASS_KG * 9.81 * 0.012
                                + 0.5 * 1.2 * DRAG_AREA * metresPerSecond * metresPerSecond
                        : 0;
        boolean halting =
                driver.program() == Driver.Program.STAND
                        || driver.program() == Driver.Program.WARM_UP
                        || driver.program() == Driver.Program.STOP_AND_GO && seconds % 40 > 24
                        || driver.key() == 0
                        || driver.brake();
        double brake = halting && metresPerSecond > 0 ? MASS_KG * 3.0 : 0;
        double hill = halting && metresPerSecond < 0.1 ? 0 : MASS_KG * 9.81 * slope / 100;
        metresPerSecond =
                Math.max(0, metresPerSecond + (drive - resist - brake - hill) / MASS_KG * dt);
        odometerKm += metresPerSecond * dt / 1000;
    }

    private void air(double dt) {
        double shape =
                Math.max(0, Math.min(1, (rpm - 1100) / 800))
                        * (rpm > 3300 ? Math.max(0.6, 1 - (rpm - 3300) / 2500) : 1);
        boostTarget =
                running
                        ? AMBIENT_KPA
                                + BOOST_RISE * shape * Math.max(0, Math.min(1, 1.1 * demand - 0.05))
                        : AMBIENT_KPA;
        double closed = vane.position() / 100;
        double flow = Math.max(0, rpm / 2500 * manifoldKpa / 235);
        double rise =
                running
                        ? TURBO_RISE
                                * Math.pow(flow, 1.2)
                                * (0.15 + 1.3 * Math.pow(closed, 1.3))
                                * (1 - faults.hoseLeak())
                        : 0;
        manifoldKpa += (AMBIENT_KPA + rise - manifoldKpa) * dt / TURBO_SECONDS;
        control(dt);
    }

    private void control(double dt) {
        if (!running) {
            boostIntegral = 0;
            vaneCommand = driver.key() == 2 ? 15 : 0;
            throttleCommand = driver.key() == 2 ? 10 : 0;
            return;
        }
        double error = boostTarget - manifoldKpa;
        boolean boosting = demand > 0.25 && rpm > 1200;
        boostIntegral =
                boosting
                        ? Math.max(-40, Math.min(60, boostIntegral + BOOST_INTEGRAL * error * dt))
                        : 0;
        double wanted =
                boosting ? 22 + 42 * demand + BOOST_PROPORTIONAL * error + boostIntegral : 30;
        vaneCommand = Math.max(5, Math.min(95, wanted));
        // the throttle closes a little at idle for exhaust heat and stays open otherwise
        throttleCommand = boosting ? 2 : 25;
    }

    private void actuators(double dt) {
        boolean powered = driver.key() == 2 && supplyVolts > 7;
        if (!powered) {
            harness.rest(supplyVolts);
            vane.off();
            throttle.off();
            return;
        }
        harness.drive(
                supplyVolts,
                Map.of("vane-motor", vane.drive(), "throttle-motor", throttle.drive()));
        double rise = Math.max(0, manifoldKpa - AMBIENT_KPA);
        double onVanes = VANE_LOAD * rise * vane.position() / 100;
        vane.step(
                vaneOverride.orElse(vaneCommand),
                harness.across("vane-motor"),
                faults.drag("vane-motor"),
                onVanes,
                dt);
        throttle.step(
                throttleOverride.orElse(throttleCommand),
                harness.across("throttle-motor"),
                faults.drag("throttle-motor"),
                0,
                dt);
    }

    private void heat(double dt) {
        double towards = running ? 88 + 6 * demand : AMBIENT_CELSIUS;
        coolant += (towards - coolant) * dt / (running ? 160 : 2400);
        double gas = running ? 110 + 520 * demand * Math.min(1, rpm / 2500) : AMBIENT_CELSIUS;
        exhaust += (gas - exhaust) * dt / (running ? 12 : 90);
        // the housing sits beside the turbine: half of what the exhaust has over 200 °C, up to what
        // the bracket leads away
        double housing = 20 + Math.max(0, Math.min(75, (exhaust - 200) * 0.3));
        vane.warm(housing, dt);
        throttle.warm(20 + Math.max(0, (coolant - 60) * 0.1), dt);
    }

    private double noisy(double value, double deviation) {
        return value + deviation * random.nextGaussian();
    }

    /** Readings carry a little noise. */
    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        sensor(s, "engine.speed", () -> rpm < 5 ? 0 : noisy(rpm, running ? 4 : 0));
        sensor(s, "engine.load", () -> 100 * Math.min(1, demand));
        sensor(s, "boost.target", () -> 10 * boostTarget);
        sensor(s, "boost.actual", this::boost);
        sensor(s, "vane.command", this::overriddenVane);
        sensor(s, "vane.position", () -> Math.max(0, noisy(vane.position(), POSITION_NOISE)));
        sensor(s, "vane.current", vane::amps);
        sensor(s, "throttle.command", () -> throttleOverride.orElse(throttleCommand));
        sensor(
                s,
                "throttle.position",
                () -> Math.max(0, noisy(throttle.position(), POSITION_NOISE)));
        sensor(s, "throttle.current", throttle::amps);
        sensor(s, "air.mass", () -> Math.max(0, noisy(airFlow(), running ? 1.5 : 0)));
        sensor(
                s,
                "intake.air",
                () -> AMBIENT_CELSIUS + 8 + 0.12 * Math.max(0, manifoldKpa - AMBIENT_KPA));
        sensor(s, "ambient.pressure", () -> noisy(AMBIENT_KPA, 0.05));
        sensor(s, "pedal", this::lastPedal);
        sensor(s, "brakes.speed", () -> 3.6 * metresPerSecond);
        sensor(s, "gear", () -> gear);
        sensor(s, "fuel.quantity", () -> running ? 6 + 48 * torque / MOST_TORQUE : 0);
        sensor(s, "engine.supply", () -> supply() - 0.03);
        sensor(s, "body.supply", () -> supply() - 0.05);
        sensor(s, "torque.limit", () -> limited ? 1 : 0);
        sensor(s, "outside.temperature", () -> AMBIENT_CELSIUS);
        sensor(s, "trailer.plug", () -> driver.trailer() ? 1 : 0);
        return s;
    }

    private void sensor(Map<String, DoubleSupplier> into, String id, DoubleSupplier reading) {
        into.put(
                id,
                () -> {
                    synchronized (this) {
                        return reading.getAsDouble();
                    }
                });
    }

    private double airFlow() {
        return running ? rpm / 2 / 60 * 2.2 * 0.9 * (manifoldKpa / AMBIENT_KPA) * 1.22 * 3.6 : 0;
    }

    /** Boost as its sensor tells it, kPa. */
    private double boost() {
        return noisy(manifoldKpa, BOOST_NOISE);
    }

    private double supply() {
        return noisy(supplyVolts, driver.key() == 2 ? 0.01 : 0);
    }

    @Override
    public List<Outlet> outlets() {
        BooleanSupplier engineOff = () -> !running();
        return List.of(
                new Outlet(
                        "engine", VANE_OUTPUT, this::overriddenVane, this::overrideVane, engineOff),
                new Outlet(
                        "engine",
                        THROTTLE_OUTPUT,
                        () -> throttleOverride.orElse(throttleCommand),
                        this::overrideThrottle,
                        engineOff));
    }

    @Override
    public Map<Integer, Doing> doings() {
        return Map.of(
                VANE_REST,
                Doing.at(
                        "engine",
                        () -> {
                            overrideVane(OptionalDouble.empty());
                            return 0;
                        },
                        () -> new int[0]));
    }

    @Override
    public synchronized void watch(double dt, Watcher watcher) {
        monitors.boost(this, boostTarget - boost(), dt, watcher);
        monitors.supply(supplyVolts, cranking, dt, watcher);
        if (driver.trailer()) {
            monitors.lamp(faults.trailerLampOpen(), dt, watcher);
        }
    }

    @Override
    public Set<String> monitored() {
        return PortageMonitors.CODES;
    }

    @Override
    public synchronized void keyOn() {
        monitors.reset();
    }

    @Override
    public synchronized boolean warning() {
        return limited;
    }

    synchronized boolean limited() {
        return limited;
    }

    /** Share of the torque that the driver asks for, 0..1. */
    synchronized double demand() {
        return demand;
    }

    @Override
    public boolean hasCircuits() {
        return true;
    }

    /** Every segment of its harness, both motors, and the charge-air pipes. */
    @Override
    public List<Failure> failures() {
        List<Failure> all = new ArrayList<>();
        for (Segment s : circuit.segments()) {
            all.add(
                    new Failure(
                            "series",
                            s.id(),
                            LEAST_OHM,
                            MOST_OHM,
                            s.wear().common(),
                            s.name() + " " + s.wear().broken()));
        }
        for (MotorPart m : circuit.motors()) {
            all.add(
                    new Failure(
                            "drag",
                            m.id(),
                            LEAST_DRAG,
                            MOST_DRAG,
                            MOTOR_COMMON,
                            m.name() + " worn"));
        }
        all.add(
                new Failure(
                        "hose-leak",
                        "",
                        LEAST_LEAK,
                        MOST_LEAK,
                        HOSE_COMMON,
                        "Charge-air hose leaks"));
        return all;
    }

    @Override
    public Map<String, String> acts() {
        return Map.of(
                "smoke",
                "Blow smoke into the charge-air pipes",
                CRANK_ONLY,
                "Crank it for six seconds with its fuel off");
    }

    @Override
    public synchronized String act(String id) {
        if (id.equals(CRANK_ONLY)) {
            return crankOnly();
        }
        if (!id.equals("smoke")) {
            return "";
        }
        return faults.hoseLeak() > 0
                ? "Smoke leaves the charge-air hose."
                : "No smoke leaves the pipes.";
    }

    /** Faults of its harness, of its motors, and of its pipes. */
    @Override
    public void fail(String mode, String of, double size) {
        switch (mode) {
            case "series" -> faults.series(of, size);
            case "drag" -> faults.drag(of, size);
            case "hose-leak" -> faults.hoseLeak(size);
            case "trailer-lamp-open" -> faults.trailerLampOpen(true);
            default -> Plant.super.fail(mode, of, size);
        }
    }

    @Override
    public void mend(String repair) {
        faults.mend(repair);
        if (repair.equals("boost-hose")) {
            faults.hoseLeak(0);
        }
    }

    @Override
    public synchronized void doorsOpen(boolean now) {
        doorsOpen = now;
    }

    @Override
    public synchronized double kilometres() {
        return odometerKm;
    }

    @Override
    public synchronized double hours() {
        return hours;
    }

    @Override
    public synchronized double seconds() {
        return seconds;
    }

    @Override
    public synchronized boolean running() {
        return running;
    }

    @Override
    public synchronized boolean cranking() {
        return cranking;
    }

    @Override
    public synchronized double rpm() {
        return rpm < 5 ? 0 : rpm;
    }

    @Override
    public synchronized double kilometresPerHour() {
        return 3.6 * metresPerSecond;
    }

    @Override
    public synchronized double coolant() {
        return coolant;
    }

    @Override
    public synchronized double volts() {
        return supplyVolts;
    }

    /** Share of its torque, what idling takes left out. */
    @Override
    public synchronized double load() {
        return running ? Math.max(0, torque / MOST_TORQUE - 0.09) : 0;
    }

    public synchronized Map<String, Double> harnessVolts() {
        return harness.all();
    }
}
