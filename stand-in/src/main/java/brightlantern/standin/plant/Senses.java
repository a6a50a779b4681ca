package brightlantern.standin.plant;

import brightlantern.core.circuit.Characteristic;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Value;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleSupplier;

/** What the sensors of a vehicle feel of its plant, as their circuits have it. */
final class Senses {
    /** A change of a signal by less than this share is not worth a new solution. */
    private static final double STEP = 0.005;

    /** Value → its sensor. */
    private final Map<String, Sense> all = new LinkedHashMap<>();

    private volatile Map<LiveCircuit, Map<String, Double>> felt = Map.of();

    /**
     * A sensor in its plant.
     *
     * @param on the circuit in which it is
     * @param feels what it feels, in the value's own unit
     */
    record Sense(
            LiveCircuit on, Gauge gauge, Characteristic characteristic, DoubleSupplier feels) {}

    /** Lets the sensor of a value feel something. */
    void with(LiveCircuit on, Gauge gauge, Value value, DoubleSupplier feels) {
        Characteristic.of(on.circuit(), gauge, value)
                .ifPresent(c -> all.put(value.id(), new Sense(on, gauge, c, feels)));
    }

    /** The sensor of a value; empty where nobody feels it. */
    Optional<Sense> of(String value) {
        return Optional.ofNullable(all.get(value));
    }

    /**
     * They feel what is now. Without any lock of the circuits: a plant asks these while it holds
     * its own.
     */
    void feel() {
        Map<LiveCircuit, Map<String, Double>> next = new HashMap<>();
        for (Sense s : all.values()) {
            double share = s.characteristic().shareAt(s.feels().getAsDouble());
            next.computeIfAbsent(s.on(), c -> new HashMap<>())
                    .putAll(s.characteristic().at(Math.round(share / STEP) * STEP));
        }
        felt = next;
    }

    /** So many times its ohms at rest, by what a sensor felt last; 1 of what feels nothing. */
    double times(String sensor) {
        return felt.values().stream()
                .filter(its -> its.containsKey(sensor))
                .mapToDouble(its -> its.get(sensor))
                .findFirst()
                .orElse(1);
    }

    /** What the sensors of a circuit make of what they felt last, as its state has it. */
    Map<String, Double> on(LiveCircuit circuit) {
        return felt.getOrDefault(circuit, Map.of());
    }
}
