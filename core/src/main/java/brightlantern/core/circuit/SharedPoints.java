package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * What the other circuits of a vehicle draw through a point that a circuit shares with them, such
 * as an earth stud: it adds to what the circuit itself makes there (superposition). Remembers what
 * it computed.
 */
public final class SharedPoints {
    /** States that are kept solved; a supply that drifts makes ever new ones. */
    private static final int MOST_TABLES = 200;

    private final Map<String, List<Circuit>> with = new HashMap<>();
    private final Map<Solved, FaultTable> tables = new ConcurrentHashMap<>();

    private record Solved(String circuit, OperatingState state) {}

    /**
     * @param circuits of the vehicle; those without gauges are fed on their own
     */
    public SharedPoints(List<Circuit> circuits) {
        for (Circuit c : circuits) {
            if (!c.gauges().isEmpty()) {
                c.points().stream()
                        .map(ProbePoint::id)
                        .filter(p -> !p.equals(Circuit.PLUS) && !p.equals(Circuit.MINUS))
                        .forEach(p -> with.computeIfAbsent(p, k -> new ArrayList<>()).add(c));
            }
        }
    }

    /**
     * Volts by which the others move a point of a circuit.
     *
     * @param state how the circuit is used; what it shares with others is set for them too
     * @param fault that may be in a part that is shared
     */
    public double besides(
            Circuit circuit, String point, OperatingState state, Optional<Fault> fault) {
        if (circuit.gauges().isEmpty()) {
            return 0;
        }
        OperatingState unloaded = state.loaded(point, Load.NOTHING);
        double sum = 0;
        for (Circuit other : with.getOrDefault(point, List.of())) {
            if (!other.id().equals(circuit.id())) {
                double volts = table(other, unloaded).with(fault).at(point);
                boolean fed = other.point(point).side().equals("supply");
                sum += volts - (fed ? state.supplyVolts() : 0);
            }
        }
        return sum;
    }

    private FaultTable table(Circuit circuit, OperatingState state) {
        if (tables.size() > MOST_TABLES) {
            tables.clear();
        }
        return tables.computeIfAbsent(
                new Solved(circuit.id(), state), k -> new FaultTable(circuit, state));
    }
}
