package brightlantern.core.circuit;

/**
 * A voltage that a module gives out at a pin, against another pin of its own: a reference, or the
 * bias behind a pull-up. By Norton a current beside its inner conductance.
 *
 * @param from the pin
 * @param to what it counts from
 * @param ohm inner resistance, limits included
 */
public record Source(String id, String name, String from, String to, double volts, double ohm)
        implements Component {
    @Override
    public Wear wear() {
        return Wear.MODULE;
    }

    @Override
    public Source with(double moreOhm) {
        return new Source(id, name, from, to, volts, ohm + moreOhm);
    }

    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        into.current(from, to, -volts / ohm, 1 / ohm);
    }
}
