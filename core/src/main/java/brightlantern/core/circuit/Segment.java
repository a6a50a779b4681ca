package brightlantern.core.circuit;

/**
 * What joins two points.
 *
 * @param ohm resistance when healthy
 */
public record Segment(String id, String name, SegmentKind kind, String from, String to, double ohm)
        implements Component {
    /** An open relay leaks a little, as dust does. */
    private static final double OPEN_OHM = 1e7;

    /** The same with so many ohms more. */
    public Segment with(double moreOhm) {
        return new Segment(id, name, kind, from, to, ohm + moreOhm);
    }

    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        into.resistor(from, to, state.open().contains(id) ? OPEN_OHM : ohm);
    }
}
