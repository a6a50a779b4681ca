package brightlantern.core.circuit;

/**
 * A lamp or lead that a technician puts between a point and a battery pole.
 *
 * @param point and pole: nodes
 */
public record HungLoad(String point, String pole, Load load) implements Component {
    @Override
    public Wear wear() {
        return Wear.NONE;
    }

    @Override
    public String id() {
        return "load at " + point;
    }

    @Override
    public String from() {
        return point;
    }

    @Override
    public String to() {
        return pole;
    }

    @Override
    public boolean isLinear(OperatingState state) {
        return load == Load.LEAD;
    }

    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        into.resistor(point, pole, load.ohmAt(before.across(point, pole, Filament.NOMINAL_VOLTS)));
    }

    @Override
    public void tangent(Equations into, OperatingState state, Voltages before) {
        if (load == Load.LEAD) {
            stamp(into, state, before);
        } else {
            load.filament().tangent(into, point, pole, before.across(point, pole, 0));
        }
    }
}
