package brightlantern.core.circuit;

/** Something wrong in a circuit, at one size: it changes the part that it is in. */
public sealed interface Fault {
    /** How large it is, in {@link #unit}. */
    double size();

    /** The unit of its size, as it is told to people. */
    String unit();

    /** A part as this fault leaves it; the part itself when the fault is in another one. */
    Component in(Component part);

    /** Id of the part that it is in. */
    String part();

    /** Ohms added in a part's way. */
    record Series(String segment, double size) implements Fault {
        /** As good as nothing at all: dust on an insulator. */
        public static final double OPEN_OHM = 1e6;

        @Override
        public String part() {
            return segment;
        }

        @Override
        public String unit() {
            return "Ω";
        }

        @Override
        public Component in(Component part) {
            return part.id().equals(segment) ? part.with(size) : part;
        }
    }

    /** A wire that touches the body, with so many ohms. */
    record Chafed(String wire, double size) implements Fault {
        @Override
        public String part() {
            return wire;
        }

        @Override
        public String unit() {
            return "Ω to earth";
        }

        @Override
        public Component in(Component part) {
            return part instanceof Segment s && s.id().equals(wire)
                    ? new brightlantern.core.circuit.Chafed(s, size)
                    : part;
        }
    }

    /** A motor whose load current is so many times the usual. */
    record Drag(String motor, double size) implements Fault {
        @Override
        public String part() {
            return motor;
        }

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
