package brightlantern.core.procedure;

import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.signal.Scaling;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Condition;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One gate of a test as it stands now.
 *
 * @param wanted and present in words, with units
 * @param opens what would open it
 */
public record Gate(String name, boolean open, String wanted, String present, String opens) {

    /**
     * Reads every gate against the newest values (own units); a value that is not known keeps its
     * gate shut.
     */
    public static List<Gate> read(
            List<Condition> gates, VehicleDescription description, Map<String, Double> now) {
        return gates.stream().map(gate -> read(gate, description, now)).toList();
    }

    private static Gate read(
            Condition gate, VehicleDescription description, Map<String, Double> now) {
        Optional<VehicleDescription.Value> value = description.value(gate.value());
        Double reading = now.get(gate.value());
        String present =
                value.isEmpty() || reading == null || reading.isNaN()
                        ? "not known"
                        : (Scaling.show(value.get(), reading)
                                        + (value.get().isState() ? "" : " " + value.get().show()))
                                .trim();
        return new Gate(
                value.map(VehicleDescription.Value::name).orElse(gate.value()),
                RangeVerdict.holds(gate, reading),
                gate.says(),
                present,
                gate.opens());
    }

    /** Why the first shut gate is shut, and what would open it; empty when all are open. */
    public static Optional<String> whyShut(List<Gate> gates) {
        return gates.stream()
                .filter(g -> !g.open())
                .findFirst()
                .map(
                        g ->
                                "Gate shut: %s is %s, needs %s. %s."
                                        .formatted(g.name(), g.present(), g.wanted(), g.opens()));
    }

    public static boolean allOpen(List<Gate> gates) {
        return gates.stream().allMatch(Gate::open);
    }
}
