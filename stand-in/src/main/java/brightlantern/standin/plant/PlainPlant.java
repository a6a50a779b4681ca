package brightlantern.standin.plant;

/**
 * As much of a vehicle as sweeping and roll call need: key, starter, engine speed, road speed,
 * distance and hours, coolant, battery with its load, and a clock. First-order behaviour
 * throughout; speeds in rpm and m/s, temperatures in °C, time in seconds.
 */
public final class PlainPlant {
    private static final double IDLE_RPM = 800;
    private static final double AMBIENT_CELSIUS = 14;
    private static final double BATTERY_AH = 70;

    /** Volts between a full and a flat battery. */
    private static final double BATTERY_SPAN = 1.6;

    private static final double FULL_VOLTS = 12.7;
    private static final double SLEEP_AMPS = 0.03;
    private static final double DOORS_OPEN_AMPS = 9;

    private Driver driver = Driver.away();
    private double seconds;
    private double rpm;
    private double speed;
    private double coolant = 20;
    private double open = FULL_VOLTS - 0.05;
    private double volts = FULL_VOLTS - 0.05;
    private double cranked;
    private boolean cranking;
    private boolean running;
    private boolean doorsOpen;
    private double kilometres;
    private double hours;

    public PlainPlant(double kilometres, double hours) {
        this.kilometres = kilometres;
        this.hours = hours;
    }

    public synchronized Driver driver() {
        return driver;
    }

    public synchronized void driver(Driver next) {
        if (next.key() == 0) {
            running = false;
            cranking = false;
        }
        driver = next;
    }

    public synchronized void crank() {
        if (driver.key() == 2 && !running) {
            cranking = true;
            cranked = 0;
        }
    }

    /** Interior lamps and awake modules go on drawing current. */
    public synchronized void doorsOpen(boolean now) {
        doorsOpen = now;
    }

    /**
     * One step.
     *
     * @param dt seconds; may be long while nothing runs, as overnight
     */
    public synchronized void step(double dt) {
        seconds += dt;
        if (cranking) {
            cranked += dt;
            if (cranked > 0.8) {
                cranking = false;
                running = volts > 8.5;
            }
        }
        double wantedSpeed =
                !running
                        ? 0
                        : switch (driver.program()) {
                            case STAND -> 0;
                            case CRUISE -> 80 / 3.6;
                            case CLIMB -> 62 / 3.6;
                            case BY_HAND -> driver.gear() > 0 ? driver.pedal() * 0.4 : 0;
                        };
        speed += (wantedSpeed - speed) * Math.min(1, dt / 6);
        double wantedRpm = cranking ? 230 : running ? IDLE_RPM + 75 * speed : 0;
        rpm += (wantedRpm - rpm) * Math.min(1, dt / 0.4);
        coolant +=
                ((running ? 90 : AMBIENT_CELSIUS) - coolant)
                        * Math.min(1, dt / (running ? 160 : 2400));
        kilometres += speed * dt / 1000;
        hours += running ? dt / 3600 : 0;
        double amps =
                (driver.key() == 2 ? 14 : driver.key() == 1 ? 4 : SLEEP_AMPS)
                        + (doorsOpen ? DOORS_OPEN_AMPS : 0)
                        + (cranking ? 180 : 0);
        boolean charged = running || driver.charger();
        open =
                charged
                        ? Math.min(FULL_VOLTS, open + dt * 0.0003)
                        : Math.max(9, open - amps * dt / 3600 / BATTERY_AH * BATTERY_SPAN);
        double wanted = running ? 14.1 : driver.charger() ? 13.6 : open - amps * 0.011;
        volts += (wanted - volts) * Math.min(1, dt / 0.05);
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

    public synchronized double kilometres() {
        return kilometres;
    }

    public synchronized double hours() {
        return hours;
    }
}
