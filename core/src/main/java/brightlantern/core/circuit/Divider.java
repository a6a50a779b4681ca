package brightlantern.core.circuit;

/**
 * A sensor of three wires that tells a share of the voltage between two of them on the third, as a
 * potentiometer does.
 *
 * @param from where its reference comes in
 * @param to its earth
 * @param out its signal
 * @param ohm from reference to earth
 * @param share of the reference that it tells, above 0 and below 1
 * @param moreOhm in the way of its reference by a fault
 */
public record Divider(
        String id,
        String name,
        String from,
        String out,
        String to,
        double ohm,
        double share,
        double moreOhm)
        implements Component {
    /** None tells all of its reference. */
    static final double MOST_SHARE = 0.99;

    /** A healthy one. */
    public Divider(
            String id, String name, String from, String out, String to, double ohm, double share) {
        this(id, name, from, out, to, ohm, share, 0);
    }

    @Override
    public Wear wear() {
        return Wear.SENSOR;
    }

    @Override
    public Divider with(double more) {
        return new Divider(id, name, from, out, to, ohm, share, moreOhm + more);
    }

    /** The same while what it feels makes another share of it. */
    public Divider telling(double otherShare) {
        return new Divider(id, name, from, out, to, ohm, otherShare, moreOhm);
    }

    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        double tells = Math.min(MOST_SHARE, share * state.times(id));
        into.resistor(from, out, ohm * (1 - tells) + moreOhm);
        into.resistor(out, to, ohm * tells);
    }
}
