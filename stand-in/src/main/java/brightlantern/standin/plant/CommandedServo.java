package brightlantern.standin.plant;

import brightlantern.core.circuit.OperatingState;
import java.util.OptionalDouble;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleSupplier;

/** A servo that its module commands, or a diagnostic request in its place; %. */
final class CommandedServo {
    private final Harness harness;
    private final Faults faults;
    private final String motor;
    private final Servo servo;
    private final DoubleSupplier wanted;
    private OptionalDouble override = OptionalDouble.empty();

    /**
     * @param motor its id in the circuit
     * @param position where it stands at first
     * @param wanted what its module commands
     */
    CommandedServo(
            Harness harness, Faults faults, String motor, double position, DoubleSupplier wanted) {
        this.harness = harness;
        this.faults = faults;
        this.motor = motor;
        this.servo = new Servo(harness.motor(motor), harness.scatter(motor), position);
        this.wanted = wanted;
    }

    /** A diagnostic request takes it over, or gives it back when empty. */
    void override(OptionalDouble percent) {
        override = percent;
    }

    double command() {
        return override.orElse(wanted.getAsDouble());
    }

    /**
     * The output by which a diagnostic request commands it.
     *
     * @param lock of what steps it
     */
    Part.Outlet outlet(String module, int did, Object lock, BooleanSupplier allowed) {
        return new Part.Outlet(
                module,
                did,
                () -> {
                    synchronized (lock) {
                        return command();
                    }
                },
                percent -> {
                    synchronized (lock) {
                        override(percent);
                    }
                },
                allowed);
    }

    double position() {
        return servo.position();
    }

    double amps() {
        return servo.amps();
    }

    OperatingState.Drive drive() {
        return servo.drive();
    }

    void off() {
        servo.off();
    }

    void warm(double around, double dt) {
        servo.warm(around, dt);
    }

    /**
     * @param load by which what it moves pushes back, A
     */
    void step(double load, double dt) {
        servo.step(command(), harness.across(motor), faults.drag(motor), load, dt);
    }
}
