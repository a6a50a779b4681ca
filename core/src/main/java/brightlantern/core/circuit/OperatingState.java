package brightlantern.core.circuit;

import java.util.Map;
import java.util.Set;

/**
 * How a circuit is used.
 *
 * @param supplyVolts at the battery
 * @param moving motors in steady motion
 * @param driven motors whose drive is known at this instant
 * @param open relays that are open
 * @param hung point → what hangs on it, to the other battery pole
 * @param felt sensor → so many times its ohms, or its share, at rest by what it feels; at rest
 *     where it is not told
 */
public record OperatingState(
        double supplyVolts,
        Set<String> moving,
        Map<String, Drive> driven,
        Set<String> open,
        Map<String, Load> hung,
        Map<String, Double> felt) {
    public OperatingState {
        moving = Set.copyOf(moving);
        driven = Map.copyOf(driven);
        open = Set.copyOf(open);
        hung = Map.copyOf(hung);
        felt = Map.copyOf(felt);
    }

    /**
     * A motor behind its bridge: with duty d the bridge draws d·I from its supply pin, and I = (d·V
     * − e)/R.
     *
     * @param duty −1 … 1
     * @param backEmf e, V
     * @param ohm R
     */
    public record Drive(double duty, double backEmf, double ohm) {}

    /** All fed, nothing moves, nothing is hung on. */
    public static OperatingState idle(double supplyVolts) {
        return new OperatingState(supplyVolts, Set.of(), Map.of(), Set.of(), Map.of(), Map.of());
    }

    /** The same with these motors in steady motion. */
    public OperatingState moving(Set<String> motors) {
        return new OperatingState(supplyVolts, motors, driven, open, hung, felt);
    }

    /** The same with motors whose drive is known at this instant. */
    public OperatingState driven(Map<String, Drive> drives) {
        return new OperatingState(supplyVolts, moving, drives, open, hung, felt);
    }

    /** The same with these relays open. */
    public OperatingState open(Set<String> relays) {
        return new OperatingState(supplyVolts, moving, driven, relays, hung, felt);
    }

    /** The same with a load hung on a point. */
    public OperatingState loaded(String point, Load load) {
        return new OperatingState(
                supplyVolts,
                moving,
                driven,
                open,
                load == Load.NOTHING ? Map.of() : Map.of(point, load),
                felt);
    }

    /** The same while sensors feel something else than at rest. */
    public OperatingState feeling(Map<String, Double> factors) {
        return new OperatingState(supplyVolts, moving, driven, open, hung, factors);
    }

    /** So many times what it is at rest, of a sensor. */
    double times(String sensor) {
        return felt.getOrDefault(sensor, 1.0);
    }
}
