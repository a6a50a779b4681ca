package brightlantern.core.circuit;

/** Voltages of the nodes of a circuit against battery minus, in volts. */
@FunctionalInterface
public interface Voltages {
    /** A circuit of which nothing is known yet: every part has its nominal voltage. */
    Voltages NOMINAL = node -> Double.NaN;

    /** NaN while it is not known. */
    double at(String node);

    /**
     * Volts from one node to another; what is not known is taken for the nominal voltage.
     *
     * @param nominal volts
     */
    default double across(String from, String to, double nominal) {
        double volts = at(from) - at(to);
        return Double.isNaN(volts) ? nominal : volts;
    }
}
