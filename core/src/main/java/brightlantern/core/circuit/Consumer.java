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
    public static final double NOMINAL_VOLTS = Filament.NOMINAL_VOLTS;

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
        return (kind == ConsumerKind.LAMP ? Filament.COLDEST * ohm : ohm) + moreOhm;
    }

    /** The same with so many times its ohms. */
    Consumer times(double factor) {
        return new Consumer(id, name, kind, from, to, ohm * factor, moreOhm);
    }

    @Override
    public boolean isLinear(OperatingState state) {
        return kind != ConsumerKind.LAMP;
    }

    /** A filament as hot as the voltages before make it. */
    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        if (kind == ConsumerKind.LAMP) {
            filament().stamp(into, from, to, before.across(from, to, NOMINAL_VOLTS));
        } else {
            into.resistor(from, to, ohm * state.times(id) + moreOhm);
        }
    }

    @Override
    public void tangent(Equations into, OperatingState state, Voltages before) {
        if (kind == ConsumerKind.LAMP) {
            filament().tangent(into, from, to, before.across(from, to, 0));
        } else {
            stamp(into, state, before);
        }
    }

    private Filament filament() {
        return new Filament(ohm, moreOhm);
    }
}
