package brightlantern.core.circuit;

/**
 * A lamp or lead that a technician puts between a point and a battery pole.
 *
 * @param point and pole: nodes
 */
public record HungLoad(String point, String pole, Load load) implements Component {
    private static final double NOMINAL_VOLTS = 12;

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
        into.resistor(point, pole, load.ohmAt(before.across(point, pole, NOMINAL_VOLTS)));
    }
}
