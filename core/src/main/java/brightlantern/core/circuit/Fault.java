package brightlantern.core.circuit;

/** Something wrong in a circuit, at one size: it changes the part that it is in. */
public sealed interface Fault {
    /** How large it is, in {@link #unit}. */
    double size();

    /** The unit of its size, as it is told to people. */
    String unit();

    /** A part as this fault leaves it; the part itself when the fault is in another one. */
    Component in(Component part);

    /** Ohms added in a segment. */
    record Series(String segment, double size) implements Fault {
        @Override
        public String unit() {
            return "Ω";
        }

        @Override
        public Component in(Component part) {
            return part instanceof Segment s && s.id().equals(segment) ? s.with(size) : part;
        }
    }

    /** A motor whose load current is so many times the usual. */
    record Drag(String motor, double size) implements Fault {
        @Override
        public String unit() {
            return "times the load";
        }

        @Override
        public Component in(Component part) {
            return part instanceof MotorPart m && m.id().equals(motor) ? m.withDrag(size) : part;
        }
    }
}
