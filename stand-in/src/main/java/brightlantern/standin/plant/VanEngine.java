package brightlantern.standin.plant;

/**
 * The van's diesel as mean values: speed from starter, idle control or the wheels, torque from what
 * is asked for and what the air burns. Speeds in rpm, torque in Nm, shares 0..1.
 */
final class VanEngine {
    static final double MOST_TORQUE = 345;

    private static final double IDLE_RPM = 810;

    /** Share of the torque that idling takes. */
    private static final double IDLE_SHARE = 0.11;

    /** The module limits torque to this share after it saw boost stay behind. */
    private static final double LIMITED_SHARE = 0.6;

    private final VanStarter starter = new VanStarter();
    private final VanRoad road;
    private final ChargeAir air;
    private double rpm;
    private double hours;
    private double demand;
    private double torque;
    private boolean running;
    private boolean limited;
    private Means means = new Means();

    /** For how long it has lacked what it needs to run, s. */
    private double starved;

    VanEngine(VanRoad road, ChargeAir air, double hours) {
        this.road = road;
        this.air = air;
        this.hours = hours;
    }

    /** The key is turned off; what was limited is limited no longer. */
    void off() {
        limited = false;
        running = false;
        starter.stop();
    }

    /**
     * @param withFuel whether it is to start
     */
    void turn(double seconds, boolean withFuel) {
        starter.turn(seconds, withFuel);
    }

    void limit() {
        limited = true;
    }

    void step(Whole whole, double dt) {
        if (starter.isTurning()) {
            rpm = starter.step(rpm, means.turns() ? whole.volts() : 0, dt);
            running = starter.caught(rpm) && means.runs();
            return;
        }
        starved = running && !means.runs() ? starved + dt : 0;
        running &= starved < Plant.STARVES_SECONDS;
        if (!running) {
            rpm += (0 - rpm) * dt / 0.3;
            demand = 0;
            torque = 0;
            return;
        }
        hours += dt / 3600;
        road.change(whole.driver());
        double pedal = road.pedal(whole, dt);
        double geared = road.geared();
        rpm = geared > 700 ? geared : rpm + (IDLE_RPM + pedal * 25 - rpm) * dt / 0.4;
        double wanted =
                Math.min(limited ? LIMITED_SHARE : 1, IDLE_SHARE + (1 - IDLE_SHARE) * pedal / 100);
        demand += (wanted - demand) * dt / 0.15;
        torque = MOST_TORQUE * Math.min(demand, air.burns());
    }

    /** What is left for the wheels: while fuel is cut the engine's own friction brakes, Nm. */
    double drives() {
        return torque - (running && demand < 0.12 ? 18 + 0.006 * rpm : 0);
    }

    /** The accelerator as its sensor tells it, percent. */
    double pedal() {
        return running
                ? Math.max(0, Math.min(100, (demand - IDLE_SHARE) / (1 - IDLE_SHARE) * 100))
                : 0;
    }

    /** Air that it draws in, kg/h: swept volume, filling, and density in the manifold. */
    double airFlow() {
        return running
                ? rpm / 2 / 60 * 2.2 * 0.9 * (air.manifold() / ChargeAir.AMBIENT_KPA) * 1.22 * 3.6
                : 0;
    }

    double rpm() {
        return rpm;
    }

    double hours() {
        return hours;
    }

    double demand() {
        return demand;
    }

    double torque() {
        return torque;
    }

    boolean running() {
        return running;
    }

    boolean limited() {
        return limited;
    }

    boolean cranking() {
        return starter.isTurning() && means.turns();
    }

    boolean starting() {
        return starter.isTurning();
    }

    void with(Means its) {
        means = its;
    }
}
