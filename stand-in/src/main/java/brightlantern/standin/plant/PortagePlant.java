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

    private static final double IDLE_RPM = 810;
    private static final double MOST_TORQUE = 345;

    /** Load of the exhaust on the vanes, ampere per kPa of rise and per closed share. */
    private static final double VANE_LOAD = 0.0138;

    /** The module limits torque to this share after it saw boost stay behind. */
    private static final double LIMITED_SHARE = 0.6;

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
    private final VanSupply supply = new VanSupply();
    private final ChargeAir air = new ChargeAir();
    private final VanRoad road;
    private final VanStarter starter = new VanStarter();
    private final VanWarmth warmth = new VanWarmth();

    private Driver driver = Driver.away();
    private double seconds;
    private double rpm;
    private double hours;
    private double demand;
    private double torque;
    private boolean running;
    private boolean limited;
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
            starter.stop();
            road.off();
        }
        driver = next;
    }

    /** Turns the key to start; the engine catches if the battery can turn it. */
    @Override
    public synchronized void crank() {
        if (driver.key() == 2 && !running) {
            starter.turn(VanStarter.STARTS_SECONDS, true);
        }
    }

    private String crankOnly() {
        if (driver.key() != 2 || running) {
            return NEEDS_KEY;
        }
        starter.turn(CRANK_ONLY_SECONDS, false);
        return "";
    }

    public synchronized void limit() {
        limited = true;
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
        for (long i = Math.round(dt / STEP); i > 0; i--) {
            stepOnce(STEP);
        }
    }

    private void stepOnce(double dt) {
        seconds += dt;
        supply.step(this, doorsOpen, dt);
        engine(dt);
        // while fuel is cut the engine's own friction brakes
        double friction = running && demand < 0.12 ? 18 + 0.006 * rpm : 0;
        road.step(this, torque - friction, dt);
        air.step(this, demand, vane.position() / 100, faults.hoseLeak(), dt);
        actuators(dt);
        heat(dt);
    }

    private void engine(double dt) {
        if (starter.isTurning()) {
            rpm = starter.step(rpm, supply.volts(), dt);
            running = starter.caught(rpm);
            return;
        }
        if (!running) {
            rpm += (0 - rpm) * dt / 0.3;
            demand = 0;
            torque = 0;
            return;
        }
        hours += dt / 3600;
        road.change(driver);
        double pedal = road.pedal(this, dt);
        double geared = road.geared();
        if (geared > 700) {
            rpm = geared;
        } else {
            rpm += (IDLE_RPM + pedal * 25 - rpm) * dt / 0.4;
        }
        double shareLimit = limited ? LIMITED_SHARE : 1;
        double idle = 0.11;
        double wanted = Math.min(shareLimit, idle + (1 - idle) * pedal / 100);
        demand += (wanted - demand) * dt / 0.15;
        torque = MOST_TORQUE * Math.min(demand, air.burns());
    }

    private double lastPedal() {
        return running ? Math.max(0, Math.min(100, (demand - 0.11) / 0.89 * 100)) : 0;
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
        warmth.step(this, demand, dt);
        vane.warm(warmth.housing(), dt);
        throttle.warm(20 + Math.max(0, (warmth.coolant() - 60) * 0.1), dt);
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
        sensor(s, "air.mass", () -> Math.max(0, noisy(airFlow(), running ? 1.5 : 0)));
        sensor(
                s,
                "intake.air",
                () -> VanWarmth.AMBIENT_CELSIUS + 8 + 0.12 * Math.max(0, air.rise()));
        sensor(s, "ambient.pressure", () -> noisy(ChargeAir.AMBIENT_KPA, 0.05));
        sensor(s, "pedal", this::lastPedal);
        sensor(s, "brakes.speed", () -> 3.6 * road.metresPerSecond());
        sensor(s, "gear", road::gear);
        sensor(s, "fuel.quantity", () -> running ? 6 + 48 * torque / MOST_TORQUE : 0);
        sensor(s, "engine.supply", () -> told() - 0.03);
        sensor(s, "body.supply", () -> told() - 0.05);
        sensor(s, "torque.limit", () -> limited ? 1 : 0);
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

    private double airFlow() {
        return running
                ? rpm / 2 / 60 * 2.2 * 0.9 * (air.manifold() / ChargeAir.AMBIENT_KPA) * 1.22 * 3.6
                : 0;
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

    @Override
    public boolean isWired(String segment) {
        return circuit.segments().stream().anyMatch(s -> s.id().equals(segment));
    }

    /** Every segment of its harness, both motors, and the charge-air pipes. */
    @Override
    public List<Failure> failures() {
        return PortageFailures.of(circuit);
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
        if (repair.equals(PortageFailures.HOSE)) {
            faults.hoseLeak(0);
        }
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
        return starter.isTurning();
    }

    @Override
    public synchronized double rpm() {
        return rpm < 5 ? 0 : rpm;
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
    public synchronized double volts() {
        return supply.volts();
    }

    /** Share of its torque, what idling takes left out. */
    @Override
    public synchronized double load() {
        return running ? Math.max(0, torque / MOST_TORQUE - 0.09) : 0;
    }
}
