package brightlantern.standin.plant;

import java.util.List;

/**
 * The figures of an engine.
 *
 * @param order cylinders in the order in which they fire
 * @param mostTorque at full load, Nm
 * @param inertia of crank and flywheel, kg·m²
 * @param injectionMpa injection pressure at idle, and at full load
 */
public record EngineSpec(
        double litres,
        List<Integer> order,
        boolean diesel,
        double mostTorque,
        double inertia,
        double compression,
        double boostKpa,
        double[] injectionMpa) {
    public int cylinders() {
        return order.size();
    }

    /** Torque that friction and auxiliaries take, Nm (rises with speed; Chen and Flynn's form). */
    public double friction(double rpm) {
        return litres * (diesel ? 8.5 : 7) * (1 + rpm / 6000);
    }

    /** How full its cylinders are at a load of 0 to 1, as a share of ambient pressure. */
    public double drawn(double load) {
        double boost = load * boostKpa / 101.3;
        return diesel ? 1 + boost : 0.34 + 0.66 * load + boost;
    }
}
