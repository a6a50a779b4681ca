package brightlantern.core.circuit;

/**
 * A part that carries current. What is not linear stamps itself as it is at the voltages of the
 * round before; rounds are repeated until the voltages stand.
 */
public sealed interface Component permits Segment, MotorPart, HungLoad {
    String id();

    /** Adds itself to the equations. */
    void stamp(Equations into, OperatingState state, Voltages before);
}
