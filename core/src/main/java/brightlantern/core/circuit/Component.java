package brightlantern.core.circuit;

/**
 * A part that carries current. What is not linear stamps itself as it is at the voltages of the
 * round before; rounds are repeated until the voltages stand.
 */
public sealed interface Component
        permits Segment, MotorPart, Consumer, Source, Divider, HungLoad, Chafed {
    String id();

    /** What it is called, in words. */
    default String name() {
        return id();
    }

    /** The nodes between which its current flows. */
    String from();

    /** See {@link #from}. */
    String to();

    /** How it ages, and what its repair takes. */
    Wear wear();

    /** Adds itself to the equations. */
    void stamp(Equations into, OperatingState state, Voltages before);

    /**
     * Adds itself as it is near these voltages, with how it changes there, so that few rounds come
     * to rest; where it bends, it bends away from what it has when all is dead.
     */
    default void tangent(Equations into, OperatingState state, Voltages before) {
        stamp(into, state, before);
    }

    /** Whether in this state it stamps the same at whatever voltages. */
    default boolean isLinear(OperatingState state) {
        return true;
    }

    /** The same with so many ohms more in its way; itself where that has no meaning. */
    default Component with(double moreOhm) {
        return this;
    }
}
