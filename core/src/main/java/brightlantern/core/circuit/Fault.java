package brightlantern.core.circuit;

/** Something wrong in a circuit, at one size: it changes the part that it is in. */
public sealed interface Fault {
    /** How large it is, in {@link #unit}. */
    double size();

    /** The unit of its size, as it is told to people; empty for what has no size. */
    String unit();

    /** A part as this fault leaves it; the part itself when the fault is in another one. */
    Component in(Component part);

    /** Id of the part that it is in. */
    String part();

    /** The same so many times as large; itself where it has no size. */
    default Fault times(double factor) {
        return this;
    }

    /** Ohms added in a part's way. */
    record Series(String segment, double size) implements Fault {
        /** As good as nothing at all: dust on an insulator. */
        public static final double OPEN_OHM = 1e9;

        @Override
        public Fault times(double factor) {
            return new Series(segment, size * factor);
        }

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

    /** What switches stays closed, whatever it is told. */
    record Stuck(String part) implements Fault {
        @Override
        public double size() {
            return 1;
        }

        @Override
        public String unit() {
            return "";
        }

        @Override
        public Component in(Component its) {
            return its instanceof Segment s && s.id().equals(part) ? s.closed() : its;
        }
    }

    /** A wire that touches the body, or what is live, with so many ohms. */
    record Chafed(String wire, Touched touched, double size) implements Fault {
        @Override
        public Fault times(double factor) {
            return new Chafed(wire, touched, size * factor);
        }

        @Override
        public String part() {
            return wire;
        }

        @Override
        public String unit() {
            return touched == Touched.EARTH ? "Ω to earth" : "Ω to a live wire";
        }

        @Override
        public Component in(Component part) {
            return part instanceof Segment s && s.id().equals(wire)
                    ? new brightlantern.core.circuit.Chafed(s, touched, size)
                    : part;
        }
    }

    /** A sensor that tells so many times what a healthy one would, of ohms or of its share. */
    record Biased(String sensor, double size) implements Fault {
        @Override
        public Fault times(double factor) {
            return new Biased(sensor, size * factor);
        }

        @Override
        public String part() {
            return sensor;
        }

        @Override
        public String unit() {
            return "times its healthy signal";
        }

        @Override
        public Component in(Component part) {
            if (!part.id().equals(sensor)) {
                return part;
            }
            return part instanceof Divider d
                    ? d.telling(Math.min(Divider.MOST_SHARE, d.share() * size))
                    : part instanceof Consumer c ? c.times(size) : part;
        }
    }

    /**
     * A module that makes so many times of what arrives at its pin.
     *
     * @param input the part of the circuit that stands for the input
     */
    record Misread(String input, double size) implements Fault {
        @Override
        public Fault times(double factor) {
            return new Misread(input, size * factor);
        }

        @Override
        public String part() {
            return input;
        }

        @Override
        public String unit() {
            return "times what arrives";
        }

        @Override
        public Component in(Component part) {
            return part;
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
