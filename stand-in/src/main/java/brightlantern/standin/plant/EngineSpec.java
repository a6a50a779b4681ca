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

    /** The engine of a described vehicle. */
    public static EngineSpec of(String vehicleId) {
        return switch (vehicleId) {
            case "tamarack-portage" ->
                    new EngineSpec(
                            2.2, List.of(1, 3, 4, 2), true, 345, 0.42, 16.2, 135, mpa(28, 180));
            case "oriel-finch" ->
                    new EngineSpec(1.2, List.of(1, 2, 3), false, 200, 0.16, 10, 90, mpa(5, 20));
            case "velmont-cairn" ->
                    new EngineSpec(
                            3.2, List.of(1, 4, 3, 6, 2, 5), false, 330, 0.32, 11, 0, mpa(4, 15));
            case "quillon-ember" ->
                    new EngineSpec(1.5, List.of(1, 3, 4, 2), false, 150, 0.2, 13, 0, mpa(5, 20));
            case "stonebarrow-wl9" ->
                    new EngineSpec(
                            7.1, List.of(1, 5, 3, 6, 2, 4), true, 1150, 1.7, 17, 150, mpa(35, 160));
            case "oriel-heron" ->
                    new EngineSpec(1.6, List.of(1, 3, 4, 2), true, 300, 0.3, 16, 120, mpa(26, 160));
            default ->
                    new EngineSpec(2, List.of(1, 3, 4, 2), false, 200, 0.25, 10.5, 0, mpa(5, 15));
        };
    }

    private static double[] mpa(double idle, double most) {
        return new double[] {idle, most};
    }

    /** Torque that friction and auxiliaries take, Nm (rises with speed; Chen and Flynn's form). */
    public double friction(double rpm) {
        return litres * (diesel ? 8.5 : 7) * (1 + rpm / 6000);
    }
}
