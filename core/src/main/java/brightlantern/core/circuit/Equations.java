package brightlantern.core.circuit;

/** The equations of a circuit, into which its parts stamp themselves; nodes go by name. */
public interface Equations {
    /**
     * @param ohm above zero
     */
    void resistor(String a, String b, double ohm);

    /**
     * A current that flows from a to b through a part whatever the voltage, with a conductance
     * beside it.
     */
    void current(String a, String b, double amps, double siemens);
}
