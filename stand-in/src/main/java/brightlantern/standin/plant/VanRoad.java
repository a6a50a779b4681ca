package brightlantern.standin.plant;

/**
 * The van's drive line and road, and the foot of its driver: gears, pedal, slope, speed in m/s,
 * kilometres.
 */
final class VanRoad {
    private static final double DOWN_SHARE = 0.7;
    private static final double MASS_KG = 2900;
    private static final double WHEEL_M = 0.34;
    private static final double[] RATIOS = {0, 4.1, 2.3, 1.40, 1.0, 0.77, 0.62};
    private static final double FINAL_DRIVE = 3.9;
    private static final double DRAG_AREA = 2.8;

    private double metresPerSecond;
    private double slope;
    private int gear;
    private boolean pulling;
    private double speedIntegral;
    private double kilometres;

    VanRoad(double kilometres) {
        this.kilometres = kilometres;
    }

    double metresPerSecond() {
        return metresPerSecond;
    }

    int gear() {
        return gear;
    }

    double kilometres() {
        return kilometres;
    }

    /** The key was turned off. */
    void off() {
        speedIntegral = 0;
    }

    /** Changes gear where that is due. */
    void change(Driver driver) {
        gear = chosenGear(driver);
    }

    /** Speed of the engine in this gear, rpm; 0 in neutral. */
    double geared() {
        return metresPerSecond / WHEEL_M * RATIOS[gear] * FINAL_DRIVE * 60 / (2 * Math.PI);
    }

    private int chosenGear(Driver driver) {
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

    /** How far the driver presses the pedal, 0 … 100 %. */
    double pedal(Whole whole, double dt) {
        Driver driver = whole.driver();
        if (!whole.running() || driver.program() == Driver.Program.STAND) {
            pulling = false;
            return 0;
        }
        return switch (driver.program()) {
            case BY_HAND -> driver.pedal();
            case WARM_UP -> 15;
            case PULL -> {
                pulling = pulling ? whole.rpm() < 3600 : metresPerSecond < 7;
                yield pulling ? 100 : 0;
            }
            case OVERRUN -> {
                pulling = pulling ? metresPerSecond < 24 : metresPerSecond < 9;
                yield pulling ? 45 : 0;
            }
            case STOP_AND_GO ->
                    whole.seconds() % 40 < 20
                            ? Math.max(0, Math.min(50, 8 * (11 - metresPerSecond)))
                            : 0;
            default -> held(driver.program(), dt);
        };
    }

    /** Holds a speed. */
    private double held(Driver.Program program, double dt) {
        double target = program == Driver.Program.CRUISE ? 80 / 3.6 : 62 / 3.6;
        double error = target - metresPerSecond;
        speedIntegral = Math.max(0, Math.min(60, speedIntegral + 3 * error * dt));
        double wanted = 20 * error + speedIntegral + (program == Driver.Program.CLIMB ? 45 : 10);
        return Math.max(0, Math.min(100, wanted));
    }

    /**
     * @param push torque at the crankshaft that drives the van, Nm
     */
    void step(Whole whole, double push, double dt) {
        Driver driver = whole.driver();
        double wanted =
                switch (driver.program()) {
                    // the hill begins once the van is rolling, and it undulates as real ones do
                    case CLIMB ->
                            metresPerSecond > 12 || slope > 5
                                    ? 12 + 1.5 * Math.sin(whole.seconds() / 2.5)
                                    : 1;
                    case BY_HAND -> driver.slope();
                    default -> 0;
                };
        slope += (wanted - slope) * dt / 2.0;
        double drive = gear == 0 ? 0 : push * RATIOS[gear] * FINAL_DRIVE * 0.92 / WHEEL_M;
        double resist =
                metresPerSecond > 0.05
                        ? MASS_KG * 9.81 * 0.012
                                + 0.5 * 1.2 * DRAG_AREA * metresPerSecond * metresPerSecond
                        : 0;
        boolean halting =
                driver.program() == Driver.Program.STAND
                        || driver.program() == Driver.Program.WARM_UP
                        || driver.program() == Driver.Program.STOP_AND_GO
                                && whole.seconds() % 40 > 24
                        || driver.key() == 0
                        || driver.brake();
        double brake = halting && metresPerSecond > 0 ? MASS_KG * 3.0 : 0;
        double hill = halting && metresPerSecond < 0.1 ? 0 : MASS_KG * 9.81 * slope / 100;
        metresPerSecond =
                Math.max(0, metresPerSecond + (drive - resist - brake - hill) / MASS_KG * dt);
        kilometres += metresPerSecond * dt / 1000;
    }
}
