package brightlantern.standin.plant;

/** The starter of the van: it turns for so long, and the engine catches or does not. */
final class VanStarter {
    static final double STARTS_SECONDS = 0.9;

    private static final double TURNS_RPM = 230;
    private static final double TURNS_ABOVE_VOLTS = 9;
    private static final double CATCHES_ABOVE_RPM = 150;

    private double left;
    private boolean turning;
    private boolean fuel;

    /**
     * @param withFuel whether the engine is to start
     */
    void turn(double seconds, boolean withFuel) {
        turning = true;
        left = seconds;
        fuel = withFuel;
    }

    void stop() {
        turning = false;
    }

    boolean isTurning() {
        return turning;
    }

    /** Speed of the engine after {@code dt} seconds, rpm. */
    double step(double rpm, double volts, double dt) {
        left -= dt;
        turning = left >= 0;
        return rpm + ((volts > TURNS_ABOVE_VOLTS ? TURNS_RPM : 0) - rpm) * dt / 0.15;
    }

    /** Whether it has just started. */
    boolean caught(double rpm) {
        return !turning && fuel && rpm > CATCHES_ABOVE_RPM;
    }
}
