package brightlantern.standin.plant;

/** Coolant, exhaust, and what sits beside the turbine of the van; °C. */
final class VanWarmth {
    static final double AMBIENT_CELSIUS = 14;

    private double coolant = 62;
    private double exhaust = 30;

    double coolant() {
        return coolant;
    }

    /**
     * The housing beside the turbine: half of what the exhaust has over 200, up to what the bracket
     * leads away.
     */
    double housing() {
        return 20 + Math.max(0, Math.min(75, (exhaust - 200) * 0.3));
    }

    /**
     * @param demand share of the torque that is asked for, 0 … 1
     */
    void step(Whole whole, double demand, double dt) {
        boolean running = whole.running();
        double towards = running ? 88 + 6 * demand : AMBIENT_CELSIUS;
        coolant += (towards - coolant) * dt / (running ? 160 : 2400);
        double gas =
                running ? 110 + 520 * demand * Math.min(1, whole.rpm() / 2500) : AMBIENT_CELSIUS;
        exhaust += (gas - exhaust) * dt / (running ? 12 : 90);
    }
}
