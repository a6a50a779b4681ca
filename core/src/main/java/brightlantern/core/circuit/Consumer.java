package brightlantern.core.circuit;

/**
 * What draws current whenever it is fed: a lamp, a heater, a coil, a motor that nobody watches.
 *
 * @param kind decides how it ages, and whether it is a filament
 * @param ohm at its nominal voltage
 * @param moreOhm in its way by a fault
 */
public record Consumer(
        String id,
        String name,
        ConsumerKind kind,
        String from,
        String to,
        double ohm,
        double moreOhm)
        implements Component {
    /** Volts at which its rating holds. */
    public static final double NOMINAL_VOLTS = 12;

    /** A cold filament has a fifth of its hot resistance. */
    private static final double COLDEST = 0.2;

    private static final double HOTTEST = Math.sqrt(2);

    /** A healthy one, in ohms at its nominal voltage. */
    public Consumer(String id, String name, ConsumerKind kind, String from, String to, double ohm) {
        this(id, name, kind, from, to, ohm, 0);
    }

    @Override
    public Wear wear() {
        return kind.wear();
    }

    @Override
    public Consumer with(double more) {
        return new Consumer(id, name, kind, from, to, ohm, moreOhm + more);
    }

    /**
     * Whether it works or does not: a filament burns through, and a sensor of which too many ohms
     * are left is one that tells wrong.
     */
    public boolean isOpenOrWell() {
        return kind == ConsumerKind.LAMP || kind == ConsumerKind.SENSOR;
    }

    /** What a meter reads of it while it is unplugged, cold. */
    public double coldOhm() {
        return (kind == ConsumerKind.LAMP ? COLDEST * ohm : ohm) + moreOhm;
    }

    /** The same with so many times its ohms. */
    Consumer times(double factor) {
        return new Consumer(id, name, kind, from, to, ohm * factor, moreOhm);
    }

    @Override
    public boolean isLinear(OperatingState state) {
        return kind != ConsumerKind.LAMP;
    }

    /**
     * The resistance of a filament grows about with the root of the voltage across it; with r its
     * share of the nominal resistance and m that of what is in its way, r·(r + m) = V/12.
     */
    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        double own = ohm * state.times(id);
        if (kind == ConsumerKind.LAMP) {
            double share = Math.abs(before.across(from, to, NOMINAL_VOLTS)) / NOMINAL_VOLTS;
            double more = moreOhm / ohm;
            // the root in the form that loses no digits while much is in the way
            double hot = 2 * share / (more + Math.sqrt(more * more + 4 * share));
            own = ohm * Math.max(COLDEST, Math.min(HOTTEST, share == 0 ? 0 : hot));
        }
        into.resistor(from, to, own + moreOhm);
    }
}
