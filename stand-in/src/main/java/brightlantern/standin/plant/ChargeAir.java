package brightlantern.standin.plant;

/**
 * What the turbo of the van presses into its manifold, what its module wants there, and the
 * commands by which it tries to get it; kPa and %.
 */
final class ChargeAir {
    static final double AMBIENT_KPA = 100.2;

    /** Largest pressure rise that the turbo is asked for, in kPa. */
    private static final double BOOST_RISE = 135;

    /**
     * Rise of the compressor in kPa with vanes in reference position at 2500 rpm and 235 kPa in the
     * manifold.
     */
    private static final double TURBO_RISE = 146;

    private static final double TURBO_SECONDS = 0.5;
    private static final double BOOST_PROPORTIONAL = 0.4;
    private static final double BOOST_INTEGRAL = 0.5;

    private double manifold = AMBIENT_KPA;
    private double target = AMBIENT_KPA;
    private double integral;
    private double vaneCommand;
    private double throttleCommand;

    double manifold() {
        return manifold;
    }

    double target() {
        return target;
    }

    /** Above the air outside. */
    double rise() {
        return manifold - AMBIENT_KPA;
    }

    double vaneCommand() {
        return vaneCommand;
    }

    double throttleCommand() {
        return throttleCommand;
    }

    /** The smoke limit, as a share of the torque: no more fuel than the air can burn. */
    double burns() {
        return manifold / (AMBIENT_KPA + BOOST_RISE) * 1.04;
    }

    /**
     * @param demand share of the torque that is asked for, 0 … 1
     * @param closed share by which the vanes are closed
     * @param leak share that a hose loses
     */
    void step(Whole whole, double demand, double closed, double leak, double dt) {
        double rpm = whole.rpm();
        double shape =
                Math.max(0, Math.min(1, (rpm - 1100) / 800))
                        * (rpm > 3300 ? Math.max(0.6, 1 - (rpm - 3300) / 2500) : 1);
        target =
                whole.running()
                        ? AMBIENT_KPA
                                + BOOST_RISE * shape * Math.max(0, Math.min(1, 1.1 * demand - 0.05))
                        : AMBIENT_KPA;
        double flow = Math.max(0, rpm / 2500 * manifold / 235);
        double rise =
                whole.running()
                        ? TURBO_RISE
                                * Math.pow(flow, 1.2)
                                * (0.15 + 1.3 * Math.pow(closed, 1.3))
                                * (1 - leak)
                        : 0;
        manifold += (AMBIENT_KPA + rise - manifold) * dt / TURBO_SECONDS;
        control(whole, demand, dt);
    }

    private void control(Whole whole, double demand, double dt) {
        if (!whole.running()) {
            integral = 0;
            vaneCommand = whole.driver().key() == 2 ? 15 : 0;
            throttleCommand = whole.driver().key() == 2 ? 10 : 0;
            return;
        }
        double error = target - manifold;
        boolean boosting = demand > 0.25 && whole.rpm() > 1200;
        integral =
                boosting ? Math.max(-40, Math.min(60, integral + BOOST_INTEGRAL * error * dt)) : 0;
        double wanted = boosting ? 22 + 42 * demand + BOOST_PROPORTIONAL * error + integral : 30;
        vaneCommand = Math.max(5, Math.min(95, wanted));
        // the throttle closes a little at idle for exhaust heat and stays open otherwise
        throttleCommand = boosting ? 2 : 25;
    }
}
