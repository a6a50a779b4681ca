package brightlantern.standin.plant;

import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.OperatingState;

/**
 * An actuator with its motor, spring, friction and position controller. All loads are motor
 * currents in ampere. Quasi-static: the mechanical time constant (some 10 ms) is below what
 * anything here resolves.
 */
final class Servo {
    /** Share of the resting load that is friction; the rest is the return spring. */
    private static final double FRICTION_SHARE = 0.6;

    /** Copper: resistance grows by this share a kelvin. */
    private static final double COPPER_PER_KELVIN = 0.0039;

    /** Position controller: duty per percent of error, and per percent second. */
    private static final double PROPORTIONAL = 0.25;

    private static final double INTEGRAL = 0.6;

    /**
     * Within this error the bridge is off: the gear holds by friction, and no current flows at
     * rest.
     */
    private static final double DEAD_ZONE_PERCENT = 0.8;

    private final MotorPart part;
    private final double scatter;
    private double position;
    private double integral;
    private double duty;
    private double backEmf;
    private double amps;
    private double windingCelsius = 20;

    Servo(MotorPart part, double scatter, double position) {
        this.part = part;
        this.scatter = scatter;
        this.position = position;
    }

    /** Current of the winding, as its driver measures it. */
    double amps() {
        return Math.abs(amps);
    }

    double position() {
        return position;
    }

    OperatingState.Drive drive() {
        return new OperatingState.Drive(duty, backEmf, ohm());
    }

    private double ohm() {
        return part.ohm() * (1 + COPPER_PER_KELVIN * (windingCelsius - 20));
    }

    /**
     * Warms or cools the winding towards a temperature; its heat goes into the housing within some
     * 20 s.
     */
    void warm(double towardsCelsius, double dt) {
        windingCelsius += (towardsCelsius - windingCelsius) * dt / 20;
    }

    /** Lets go of the motor; the spring takes the flap back where friction allows. */
    void off() {
        amps = 0;
        duty = 0;
        backEmf = 0;
        integral = 0;
    }

    /**
     * One step.
     *
     * @param command wanted position in percent
     * @param volts across the actuator's pins
     * @param drag factor on friction and spring
     * @param extraLoad further load against closing, in ampere
     */
    void step(double command, double volts, double drag, double extraLoad, double dt) {
        double error = command - position;
        integral = Math.max(-1, Math.min(1, integral + INTEGRAL * error * dt));
        duty = Math.max(-1, Math.min(1, PROPORTIONAL * error + integral));
        if (Math.abs(duty) >= 1 && duty * error > 0) {
            // hold the integral while the bridge is fully on, or it would overshoot at the end
            integral -= INTEGRAL * error * dt;
        }
        if (Math.abs(error) < DEAD_ZONE_PERCENT) {
            duty = 0;
            integral *= 1 - Math.min(1, dt / 0.1);
        }
        double whole = part.loadAmps() * scatter * drag;
        double friction = FRICTION_SHARE * whole;
        double spring = whole - friction + extraLoad;
        double net = duty * Math.max(0, volts) / ohm() - spring;
        if (Math.abs(net) <= friction) {
            backEmf = 0;
        } else {
            double moving = net - Math.signum(net) * friction;
            backEmf = moving * ohm() / (1 + part.dampAmpsPerVolt() * ohm());
        }
        amps = duty == 0 ? 0 : (duty * Math.max(0, volts) - backEmf) / ohm();
        position += part.percentPerVoltSecond() * backEmf * dt;
        if (position < 0 || position > 100) {
            position = Math.max(0, Math.min(100, position));
            backEmf = 0;
        }
    }
}
