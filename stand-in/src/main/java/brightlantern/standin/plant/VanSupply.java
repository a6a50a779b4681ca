package brightlantern.standin.plant;

/** Battery, starter current and alternator of the van; volts. */
final class VanSupply {
    private static final double DOORS_OPEN_AMPS = 6;
    private static final double STARTER_AMPS = 190;
    private static final double CHARGES_ABOVE_RPM = 600;
    private static final double BATTERY_OHM = 0.011;

    private double open = 12.68;
    private double volts = 12.68;

    double volts() {
        return volts;
    }

    void step(Whole whole, boolean doorsOpen, double dt) {
        Driver driver = whole.driver();
        double load =
                (driver.key() == 2 ? 14 : driver.key() == 1 ? 4 : 0.3)
                        + (doorsOpen ? DOORS_OPEN_AMPS : 0);
        double wanted;
        if (whole.running() && whole.rpm() > CHARGES_ABOVE_RPM) {
            wanted = 14.1;
        } else if (driver.charger()) {
            wanted = 13.6;
        } else {
            double amps = load + (whole.cranking() ? STARTER_AMPS : 0);
            wanted = open - amps * BATTERY_OHM;
            // 80 Ah; a volt between full and flat
            open -= amps * dt / 3600 / 80 * 1.2;
        }
        if (whole.running() || driver.charger()) {
            open = Math.min(12.72, open + dt * 0.0002);
        }
        volts += (wanted - volts) * Math.min(1, dt / 0.05);
    }
}
