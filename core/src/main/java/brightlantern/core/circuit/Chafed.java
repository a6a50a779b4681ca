package brightlantern.core.circuit;

/**
 * A wire whose insulation has worn through.
 *
 * @param ohm to what it touches, at its far end
 */
public record Chafed(Segment wire, Touched touched, double ohm) implements Component {
    @Override
    public String id() {
        return wire.id();
    }

    @Override
    public String name() {
        return wire.name();
    }

    @Override
    public String from() {
        return wire.from();
    }

    @Override
    public String to() {
        return wire.to();
    }

    @Override
    public Wear wear() {
        return touched.wear();
    }

    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        wire.stamp(into, state, before);
        into.resistor(wire.to(), touched.node(), ohm);
    }
}
