package brightlantern.core.circuit;

/** Something wrong in a circuit, at one size. */
public sealed interface Fault {
    /** How large it is, in {@link #unit}. */
    double size();

    /** The unit of its size, as it is told to people. */
    String unit();

    /** Ohms added in a segment. */
    record Series(String segment, double size) implements Fault {
        @Override
        public String unit() {
            return "Ω";
        }
    }

    /** A motor whose load current is so many times the usual. */
    record Drag(String motor, double size) implements Fault {
        @Override
        public String unit() {
            return "times the load";
        }
    }
}
