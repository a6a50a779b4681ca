package brightlantern.standin.plant;

import java.util.Map;
import java.util.function.DoubleSupplier;

/**
 * As much of a vehicle as sweeping and roll call need: key, starter, engine speed, road speed,
 * distance and hours, coolant, battery with its load, and a clock. First-order behaviour
 * throughout; speeds in rpm and m/s, temperatures in °C, time in seconds.
 */
public final class PlainPlant implements Plant {
    private static final double IDLE_RPM = 800;

    /** Opening in percent that is made up for at idle, and what each percent beyond costs, rpm. */
    private static final double IDLE_HELD = 8;

    private static final double IDLE_LOST = 45;
    private static final double AMBIENT_CELSIUS = 14;
    private static final double DOORS_OPEN_AMPS = 9;
    private static final double STARTER_AMPS = 180;
    private static final double STARTS_SECONDS = 0.8;

    private Driver driver = Driver.away();
    private final Supply supply = new Supply(STARTER_AMPS, DOORS_OPEN_AMPS);
    private double seconds;
    private double idle = IDLE_RPM;
    private double rpm;
    private double speed;
    private double load;
    private boolean pulling;
    private double since;
    private final double rpmPerMetre;
    private final double fastest;
    private double coolant = 20;

    /** Temperature that the thermostat holds, °C. */
    private double working = 90;

    private double cranked;
    private double crankFor;
    private boolean starting;
    private boolean running;
    private Means means = new Means();

    /** For how long it has lacked what it needs to run, s. */
    private double starved;

    private boolean doorsOpen;
    private double kilometres;
    private double hours;

    public PlainPlant(double kilometres, double hours) {
        this(kilometres, hours, 75, 36);
    }

    /**
     * @param rpmPerMetre engine speed that belongs to a road speed of 1 m/s, beyond idle
     * @param fastest road speed in m/s
     */
    public PlainPlant(double kilometres, double hours, double rpmPerMetre, double fastest) {
        this.kilometres = kilometres;
        this.hours = hours;
        this.rpmPerMetre = rpmPerMetre;
        this.fastest = fastest;
    }

    public synchronized Driver driver() {
        return driver;
    }

    @Override
    public synchronized void driver(Driver next) {
        if (next.key() == 0) {
            running = false;
            starting = false;
        }
        driver = next;
    }

    @Override
    public synchronized void crank() {
        if (driver.key() == 2 && !running) {
            starting = true;
            cranked = 0;
            crankFor = STARTS_SECONDS;
        }
    }

    private String crankOnly() {
        if (driver.key() != 2 || running) {
            return NEEDS_KEY;
        }
        starting = true;
        cranked = 0;
        crankFor = CRANK_ONLY_SECONDS;
        return "";
    }

    /**
     * Breaks its supply; {@code warms} is the temperature that the thermostat holds, °C; {@code
     * idle-short} the opening of the throttle that is missing at idle, percent.
     */
    @Override
    public synchronized void fail(String mode, String of, double size) {
        if (Supply.MODES.contains(mode)) {
            supply.fail(mode, size);
        } else if (mode.equals("warms")) {
            working = size;
        } else if (mode.equals("idle-short")) {
            idle = IDLE_RPM - IDLE_LOST * Math.max(0, size - IDLE_HELD);
        } else {
            Plant.super.fail(mode, of, size);
        }
    }

    @Override
    public Map<String, String> acts() {
        return Map.of(
                Supply.CLAMP,
                Supply.CLAMPS,
                CRANK_ONLY,
                "Crank it for six seconds with its fuel off");
    }

    @Override
    public synchronized String act(String id) {
        return switch (id) {
            case CRANK_ONLY -> crankOnly();
            case Supply.CLAMP -> supply.clamped();
            default -> "";
        };
    }

    /** Interior lamps and awake modules go on drawing current. */
    @Override
    public synchronized void doorsOpen(boolean now) {
        doorsOpen = now;
    }

    /**
     * One step.
     *
     * @param dt seconds; may be long while nothing runs, as overnight
     */
    @Override
    public synchronized void step(double dt) {
        seconds += dt;
        start(dt);
        road(dt);
        boolean warming = driver.program() == Driver.Program.WARM_UP;
        double wantedRpm =
                cranking() ? 230 : running ? idle + (warming ? 500 : 0) + rpmPerMetre * speed : 0;
        rpm += (wantedRpm - rpm) * Math.min(1, dt / 0.4);
        coolant +=
                ((running ? working : AMBIENT_CELSIUS) - coolant)
                        * Math.min(1, dt / (running ? 160 : 2400));
        kilometres += speed * dt / 1000;
        hours += running ? dt / 3600 : 0;
        supply.step(this, running, doorsOpen, dt);
    }

    private void start(double dt) {
        if (starting) {
            cranked += dt;
            if (cranked > crankFor) {
                starting = false;
                running =
                        crankFor == STARTS_SECONDS
                                && supply.volts() > 8.5
                                && means.turns()
                                && means.runs();
            }
        }
        starved = running && !means.runs() ? starved + dt : 0;
        running &= starved < STARVES_SECONDS;
    }

    /** Road speed, and the load that it and its change ask of the engine. */
    private void road(double dt) {
        since += dt;
        double before = speed;
        double top = Math.min(fastest, 30);
        if (!running) {
            speed += (0 - speed) * Math.min(1, dt / 6);
        } else {
            switch (driver.program()) {
                case PULL -> ramp(0.33 * top, top, 1.9, -1.1, dt);
                case OVERRUN -> ramp(0.3 * top, 0.85 * top, 0.9, -0.9, dt);
                case STOP_AND_GO -> towards(since % 40 < 22 ? Math.min(fastest, 11) : 0, 3, dt);
                case CRUISE -> towards(Math.min(fastest, 80 / 3.6), 6, dt);
                case CLIMB -> towards(Math.min(fastest, 62 / 3.6), 6, dt);
                case BY_HAND ->
                        towards(
                                driver.gear() > 0 ? Math.min(fastest, driver.pedal() * 0.4) : 0,
                                6,
                                dt);
                default -> towards(0, 6, dt);
            }
        }
        double pull = (speed - before) / dt;
        boolean hill = driver.program() == Driver.Program.CLIMB && speed > 5;
        double wanted =
                !running
                        ? 0
                        : speed < 0.5
                                ? 0.02
                                : pull < -0.5
                                        ? 0
                                        : 0.10
                                                + 0.8 * Math.pow(speed / 39, 2)
                                                + Math.max(0, pull) / 3
                                                + (hill ? 0.5 : 0)
                                                + (driver.program() == Driver.Program.PULL
                                                        ? 0.3
                                                        : 0);
        load = running ? load + (Math.min(1, wanted) - load) * Math.min(1, dt / 0.3) : 0;
    }

    private void towards(double wanted, double lag, double dt) {
        speed += (wanted - speed) * Math.min(1, dt / lag);
    }

    /** Up at one rate until the upper speed, down at another until the lower one. */
    private void ramp(double low, double high, double up, double down, double dt) {
        pulling = pulling ? speed < high : speed < low;
        speed = Math.max(0, speed + (pulling ? up : down) * dt);
    }

    /** Share of what the engine can give, 0..1. */
    public synchronized double load() {
        return load;
    }

    public synchronized double seconds() {
        return seconds;
    }

    public synchronized boolean running() {
        return running;
    }

    public synchronized boolean cranking() {
        return starting && means.turns();
    }

    @Override
    public synchronized boolean starting() {
        return starting;
    }

    @Override
    public synchronized void with(Means its) {
        means = its;
    }

    public synchronized double rpm() {
        return rpm < 1 ? 0 : rpm;
    }

    public synchronized double kilometresPerHour() {
        return 3.6 * speed;
    }

    public synchronized double coolant() {
        return coolant;
    }

    @Override
    public synchronized double[] supplyWave(double seconds, int count) {
        return supply.wave(seconds, count);
    }

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

    @Override
    public synchronized double kilometres() {
        return kilometres;
    }

    @Override
    public synchronized double hours() {
        return hours;
    }

    /** Beside those that every vehicle has: what its supply has learned. */
    @Override
    public Map<String, DoubleSupplier> sensors() {
        return supply.sensors();
    }
}
