package brightlantern.standin.plant;

import java.util.Locale;
import java.util.Map;
import java.util.function.DoubleSupplier;

/**
 * As much of a vehicle as sweeping and roll call need: key, starter, engine speed, road speed,
 * distance and hours, coolant, battery with its load, and a clock. First-order behaviour
 * throughout; speeds in rpm and m/s, temperatures in °C, time in seconds.
 */
public final class PlainPlant implements Plant {
    private static final double IDLE_RPM = 800;
    private static final double AMBIENT_CELSIUS = 14;
    private static final double BATTERY_AH = 70;

    /** Volts between a full and a flat battery. */
    private static final double BATTERY_SPAN = 1.6;

    private static final double FULL_VOLTS = 12.7;
    private static final double SLEEP_AMPS = 0.03;
    private static final double DOORS_OPEN_AMPS = 9;

    private static final double CHARGED_VOLTS = 14.1;
    private static final double BATTERY_OHM = 0.011;
    private static final double STARTS_SECONDS = 0.8;

    private Driver driver = Driver.away();
    private boolean gives = true;
    private double regulated = CHARGED_VOLTS;
    private double batteryOhm = BATTERY_OHM;
    private double sleepAmps = SLEEP_AMPS;
    private double seconds;
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

    private double open = FULL_VOLTS - 0.05;
    private double volts = FULL_VOLTS - 0.05;
    private double cranked;
    private double crankFor;
    private boolean cranking;
    private boolean running;
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
            cranking = false;
        }
        driver = next;
    }

    @Override
    public synchronized void crank() {
        if (driver.key() == 2 && !running) {
            cranking = true;
            cranked = 0;
            crankFor = STARTS_SECONDS;
        }
    }

    private String crankOnly() {
        if (driver.key() != 2 || running) {
            return NEEDS_KEY;
        }
        cranking = true;
        cranked = 0;
        crankFor = CRANK_ONLY_SECONDS;
        return "";
    }

    /**
     * Breaks its battery or what charges it: {@code gives} is the alternator (1 whole, 0 dead),
     * {@code regulated} volts, {@code battery} ohms inside, {@code draws} ampere at rest.
     */
    @Override
    public synchronized void fail(String mode, String of, double size) {
        switch (mode) {
            case "gives" -> gives = size > 0.5;
            case "regulated" -> regulated = size;
            case "warms" -> working = size;
            case "battery" -> {
                batteryOhm = size;
                open = size > BATTERY_OHM ? open : FULL_VOLTS;
            }
            case "draws" -> {
                sleepAmps = size;
                // what drew is mended, and the battery charged
                open = size > SLEEP_AMPS ? open : FULL_VOLTS;
            }
            default -> Plant.super.fail(mode, of, size);
        }
    }

    @Override
    public Map<String, String> acts() {
        return Map.of(
                "clamp-battery",
                "Lock it, let it sleep, and clamp the battery cable",
                CRANK_ONLY,
                "Crank it for six seconds with its fuel off");
    }

    @Override
    public synchronized String act(String id) {
        if (id.equals(CRANK_ONLY)) {
            return crankOnly();
        }
        return id.equals("clamp-battery")
                ? String.format(Locale.ROOT, "It draws %.2f A at rest.", sleepAmps)
                : "";
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
        if (cranking) {
            cranked += dt;
            if (cranked > crankFor) {
                cranking = false;
                running = crankFor == STARTS_SECONDS && volts > 8.5;
            }
        }
        road(dt);
        boolean warming = driver.program() == Driver.Program.WARM_UP;
        double wantedRpm =
                cranking ? 230 : running ? IDLE_RPM + (warming ? 500 : 0) + rpmPerMetre * speed : 0;
        rpm += (wantedRpm - rpm) * Math.min(1, dt / 0.4);
        coolant +=
                ((running ? working : AMBIENT_CELSIUS) - coolant)
                        * Math.min(1, dt / (running ? 160 : 2400));
        kilometres += speed * dt / 1000;
        hours += running ? dt / 3600 : 0;
        double amps =
                (driver.key() == 2 ? 14 : driver.key() == 1 ? 4 : sleepAmps)
                        + (doorsOpen ? DOORS_OPEN_AMPS : 0)
                        + (cranking ? 180 : 0);
        boolean alternates = running && gives;
        boolean charged = alternates || driver.charger();
        open =
                charged
                        ? Math.min(FULL_VOLTS, open + dt * 0.0003)
                        : Math.max(9, open - amps * dt / 3600 / BATTERY_AH * BATTERY_SPAN);
        double wanted = alternates ? regulated : driver.charger() ? 13.6 : open - amps * batteryOhm;
        volts += (wanted - volts) * Math.min(1, dt / 0.05);
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
        return cranking;
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

    public synchronized double volts() {
        return volts;
    }

    @Override
    public synchronized double kilometres() {
        return kilometres;
    }

    @Override
    public synchronized double hours() {
        return hours;
    }

    /** Its sensors are those that every vehicle has. */
    @Override
    public Map<String, DoubleSupplier> sensors() {
        return Map.of();
    }
}
