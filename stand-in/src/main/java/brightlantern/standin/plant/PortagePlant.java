package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Load;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
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

    /** Step while it stands with its key off, in seconds. */
    private static final double REST_STEP = 1;

    /** Load of the exhaust on the vanes, ampere per kPa of rise and per closed share. */
    private static final double VANE_LOAD = 0.0138;

    private static final double DOORS_OPEN_AMPS = 6;
    private static final double STARTER_AMPS = 190;
    private static final double CHARGES_ABOVE_RPM = 600;
    private static final double BOOST_NOISE = 0.25;
    private static final double POSITION_NOISE = 0.15;
    private static final int VANE_OUTPUT = 0x3001;
    private static final int THROTTLE_OUTPUT = 0x3002;
    private static final int VANE_REST = 0x0201;

    private final Circuit circuit;
    private final Harness harness;
    private final Faults faults = new Faults();
    private final CommandedServo vane;
    private final CommandedServo throttle;
    private final Random random;
    private final Supply supply = new Supply(STARTER_AMPS, DOORS_OPEN_AMPS);
    private final ChargeAir air = new ChargeAir();
    private final VanRoad road;
    private final VanEngine engine;
    private final PortageFailures failures;
    private final VanWarmth warmth = new VanWarmth();

    private Driver driver = Driver.away();
    private double seconds;
    private boolean doorsOpen;
    private final PortageMonitors monitors = new PortageMonitors();

    public PortagePlant(Circuit circuit, long seed, double odometerKm) {
        this.random = new Random(seed);
        this.circuit = circuit;
        this.harness = new Harness(circuit, faults, random);
        this.vane = new CommandedServo(harness, faults, "vane-motor", 12, air::vaneCommand);
        this.throttle =
                new CommandedServo(harness, faults, "throttle-motor", 8, air::throttleCommand);
        this.road = new VanRoad(odometerKm);
        this.engine = new VanEngine(road, air, odometerKm / 46.0);
        this.failures = new PortageFailures(circuit, faults, supply);
    }

    @Override
    public synchronized Driver driver() {
        return driver;
    }

    @Override
    public synchronized void driver(Driver next) {
        if (next.key() == 0 && driver.key() != 0) {
            engine.off();
            road.off();
        }
        driver = next;
    }

    /** Turns the key to start; the engine catches if the battery can turn it. */
    @Override
    public synchronized void crank() {
        if (driver.key() == 2 && !engine.running()) {
            engine.turn(VanStarter.STARTS_SECONDS, true);
        }
    }

    private String crankOnly() {
        if (driver.key() != 2 || engine.running()) {
            return NEEDS_KEY;
        }
        engine.turn(CRANK_ONLY_SECONDS, false);
        return "";
    }

    public synchronized void limit() {
        engine.limit();
    }

    /** A diagnostic request takes the vanes over, or gives them back when empty. */
    public synchronized void overrideVane(OptionalDouble percent) {
        vane.override(percent);
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
        double left = dt;
        while (left > REST_STEP && driver.key() == 0 && rpm() == 0) {
            rest(REST_STEP);
            left -= REST_STEP;
        }
        for (long i = Math.round(left / STEP); i > 0; i--) {
            stepOnce(STEP);
        }
    }

    /** Nothing turns and nothing blows: it cools down, and its battery is drawn from. */
    private void rest(double dt) {
        seconds += dt;
        supply.step(this, false, doorsOpen, dt);
        actuators(dt);
        heat(dt);
    }

    private void stepOnce(double dt) {
        seconds += dt;
        boolean turns = engine.running() && engine.rpm() > CHARGES_ABOVE_RPM;
        supply.step(this, turns, doorsOpen, dt);
        engine.step(this, dt);
        road.step(this, engine.drives(), dt);
        air.step(this, engine.demand(), vane.position() / 100, faults.hoseLeak(), dt);
        actuators(dt);
        heat(dt);
    }

    private void actuators(double dt) {
        boolean powered = driver.key() == 2 && supply.volts() > 7;
        if (!powered) {
            harness.rest(supply.volts());
            vane.off();
            throttle.off();
            return;
        }
        harness.drive(
                supply.volts(),
                Map.of("vane-motor", vane.drive(), "throttle-motor", throttle.drive()));
        vane.step(VANE_LOAD * Math.max(0, air.rise()) * vane.position() / 100, dt);
        throttle.step(0, dt);
    }

    private void heat(double dt) {
        warmth.step(this, engine.demand(), dt);
        vane.warm(warmth.housing(), dt);
        throttle.warm(20 + Math.max(0, (warmth.coolant() - 60) * 0.1), dt);
    }

    private double noisy(double value, double deviation) {
        return value + deviation * random.nextGaussian();
    }

    /** Readings carry a little noise. */
    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>(supply.sensors());
        sensor(s, "engine.speed", this::speed);
        sensor(s, "engine.load", () -> 100 * Math.min(1, engine.demand()));
        sensor(s, "boost.target", () -> 10 * air.target());
        sensor(s, "boost.actual", this::boost);
        sensor(s, "vane.command", vane::command);
        sensor(s, "vane.position", () -> Math.max(0, noisy(vane.position(), POSITION_NOISE)));
        sensor(s, "vane.current", vane::amps);
        sensor(s, "throttle.command", throttle::command);
        sensor(
                s,
                "throttle.position",
                () -> Math.max(0, noisy(throttle.position(), POSITION_NOISE)));
        sensor(s, "throttle.current", throttle::amps);
        sensor(
                s,
                "air.mass",
                () -> Math.max(0, noisy(engine.airFlow(), engine.running() ? 1.5 : 0)));
        sensor(
                s,
                "intake.air",
                () -> VanWarmth.AMBIENT_CELSIUS + 8 + 0.12 * Math.max(0, air.rise()));
        sensor(s, "ambient.pressure", () -> noisy(ChargeAir.AMBIENT_KPA, 0.05));
        sensor(s, "pedal", engine::pedal);
        sensor(s, "brakes.speed", () -> 3.6 * road.metresPerSecond());
        sensor(s, "gear", road::gear);
        sensor(
                s,
                "fuel.quantity",
                () -> engine.running() ? 6 + 48 * engine.torque() / VanEngine.MOST_TORQUE : 0);
        sensor(s, "engine.supply", () -> told() - 0.03);
        sensor(s, "body.supply", () -> told() - 0.05);
        sensor(s, "torque.limit", () -> engine.limited() ? 1 : 0);
        sensor(s, "outside.temperature", () -> VanWarmth.AMBIENT_CELSIUS);
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

    private double speed() {
        return engine.rpm() < 5 ? 0 : noisy(engine.rpm(), engine.running() ? 4 : 0);
    }

    /** Boost as its sensor tells it, kPa. */
    private double boost() {
        return noisy(air.manifold(), BOOST_NOISE);
    }

    private double told() {
        return noisy(supply.volts(), driver.key() == 2 ? 0.01 : 0);
    }

    @Override
    public List<Outlet> outlets() {
        return List.of(
                vane.outlet("engine", VANE_OUTPUT, this, () -> !running()),
                throttle.outlet("engine", THROTTLE_OUTPUT, this, () -> !running()));
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
        monitors.boost(this, air.target() - boost(), dt, watcher);
        monitors.supply(supply.volts(), cranking(), dt, watcher);
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
        return engine.limited();
    }

    synchronized boolean limited() {
        return engine.limited();
    }

    /** Share of the torque that the driver asks for, 0..1. */
    synchronized double demand() {
        return engine.demand();
    }

    @Override
    public boolean hasCircuits() {
        return true;
    }

    @Override
    public boolean isWired(String segment) {
        return circuit.segments().stream().anyMatch(s -> s.id().equals(segment));
    }

    @Override
    public List<Failure> failures() {
        return failures.all();
    }

    @Override
    public Map<String, String> acts() {
        Map<String, String> acts = new HashMap<>(PortageFailures.acts());
        acts.put(CRANK_ONLY, "Crank it for six seconds with its fuel off");
        return acts;
    }

    @Override
    public synchronized String act(String id) {
        return id.equals(CRANK_ONLY) ? crankOnly() : failures.seen(id);
    }

    @Override
    public synchronized void fail(String mode, String of, double size) {
        if (!failures.fail(mode, of, size)) {
            Plant.super.fail(mode, of, size);
        }
    }

    @Override
    public synchronized void mend(String repair) {
        failures.mend(repair);
    }

    @Override
    public synchronized void doorsOpen(boolean now) {
        doorsOpen = now;
    }

    @Override
    public synchronized double kilometres() {
        return road.kilometres();
    }

    @Override
    public synchronized double hours() {
        return engine.hours();
    }

    @Override
    public synchronized double seconds() {
        return seconds;
    }

    @Override
    public synchronized boolean running() {
        return engine.running();
    }

    @Override
    public synchronized boolean cranking() {
        return engine.cranking();
    }

    @Override
    public synchronized boolean starting() {
        return engine.starting();
    }

    @Override
    public synchronized void with(Means means) {
        engine.with(means);
    }

    @Override
    public synchronized double rpm() {
        return engine.rpm() < 5 ? 0 : engine.rpm();
    }

    @Override
    public synchronized double kilometresPerHour() {
        return 3.6 * road.metresPerSecond();
    }

    @Override
    public synchronized double coolant() {
        return warmth.coolant();
    }

    @Override
    public synchronized double[] supplyWave(double seconds, int count) {
        return supply.wave(seconds, count);
    }

    @Override
    public synchronized double volts() {
        return supply.volts();
    }

    @Override
    public synchronized double plusOhm() {
        return supply.plusOhm();
    }

    @Override
    public synchronized double earthOhm() {
        return supply.earthOhm();
    }

    /** Share of its torque, what idling takes left out. */
    @Override
    public synchronized double load() {
        return engine.running() ? Math.max(0, engine.torque() / VanEngine.MOST_TORQUE - 0.09) : 0;
    }
}
