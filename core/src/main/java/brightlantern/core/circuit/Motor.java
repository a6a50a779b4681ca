package brightlantern.core.circuit;

/**
 * A direct-current motor that moves a load, in electrical terms: with back-EMF e (V), winding R
 * (Ω), terminal voltage V and load current i₀ (A), the steady state obeys I = (V − e)/R and I = i₀
 * + b·e. Position moves at s·e percent a second. Source: the textbook equations of the separately
 * excited DC motor, mechanical side divided by its torque constant.
 *
 * @param ohm winding resistance R
 * @param loadAmps current i₀ that the load alone asks for
 * @param dampAmpsPerVolt viscous friction b
 * @param percentPerVoltSecond s
 */
public record Motor(
        double ohm, double loadAmps, double dampAmpsPerVolt, double percentPerVoltSecond) {
    public Motor {
        if (!(ohm > 0)
                || !(loadAmps >= 0)
                || !(dampAmpsPerVolt >= 0)
                || !(percentPerVoltSecond > 0)) {
            throw new IllegalArgumentException(
                    "A motor needs a winding and a gear above zero: "
                            + ohm
                            + " Ω, "
                            + percentPerVoltSecond
                            + " %/Vs");
        }
    }

    /** The motor of a part of a circuit. */
    public static Motor of(MotorPart part) {
        return new Motor(
                part.ohm(), part.loadAmps(), part.dampAmpsPerVolt(), part.percentPerVoltSecond());
    }

    /** The same motor with a load that is so many times heavier. */
    public Motor withDrag(double factor) {
        return new Motor(ohm, loadAmps * factor, dampAmpsPerVolt, percentPerVoltSecond);
    }

    /** Back-EMF in steady motion at a terminal voltage; 0 when it stalls. */
    public double backEmf(double volts) {
        return Math.max(0, (volts - loadAmps * ohm) / (1 + dampAmpsPerVolt * ohm));
    }

    /** Whether a terminal voltage is too low to move the load. */
    public boolean stallsAt(double volts) {
        return volts < loadAmps * ohm;
    }

    /** Part of the current in motion that does not depend on the voltage: I = this + G·V. */
    public double movingAmps() {
        return loadAmps / (1 + dampAmpsPerVolt * ohm);
    }

    /** Conductance G of the motor in motion, in siemens. */
    public double movingSiemens() {
        return dampAmpsPerVolt / (1 + dampAmpsPerVolt * ohm);
    }

    /** Current drawn at a terminal voltage, moving or stalled, in ampere. */
    public double amps(double volts) {
        return (volts - backEmf(volts)) / ohm;
    }

    /** Speed in percent of travel a second. */
    public double speed(double volts) {
        return percentPerVoltSecond * backEmf(volts);
    }
}
