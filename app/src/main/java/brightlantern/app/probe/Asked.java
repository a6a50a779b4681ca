package brightlantern.app.probe;

import brightlantern.app.page.JobPages;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.HungOn;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Where a reading is asked for, and under which condition. */
record Asked(Circuit circuit, ProbePoint point, ProbeCondition condition) {
    /**
     * @throws IllegalArgumentException names what is not there
     */
    static Asked of(VehicleDescription d, String circuitId, String pointId, String conditionId) {
        Circuit circuit = d.circuit(circuitId).orElseThrow(() -> no("circuit", circuitId));
        return new Asked(
                circuit,
                circuit.probe(pointId).orElseThrow(() -> no("probe point", pointId)),
                new HungOn(circuit, pointId)
                        .offered().stream()
                                .filter(c -> c.id().equals(conditionId))
                                .findFirst()
                                .orElseThrow(() -> no("condition", conditionId)));
    }

    /**
     * @throws IllegalStateException when nothing is fed because the key is off
     */
    void needsKey(JobPages.Context context) {
        if (context.keyOff() && !circuit.sources().isEmpty()) {
            throw new IllegalStateException(
                    "The key is off, says the vehicle: a module feeds nothing then, and a reading at "
                            + point.name()
                            + " would say nothing. Turn the key on, then read again.");
        }
    }

    /** What the module tells of the sensor whose signal is at a point, while it answers. */
    static Map<String, Double> told(JobPages.Context context, Circuit circuit, ProbePoint point) {
        return told(context, Sensed.valueAt(circuit, point.id()));
    }

    /** What a module tells of a value, while it answers. */
    static Map<String, Double> told(JobPages.Context context, Optional<String> value) {
        return value.filter(v -> context.link().status().connected())
                .map(v -> context.link().read(context.description(), List.of(v)))
                .filter(told -> told.values().stream().noneMatch(f -> f.isNaN()))
                .orElse(Map.of());
    }

    private static IllegalArgumentException no(String what, String id) {
        return new IllegalArgumentException("There is no " + what + " '" + id + "'.");
    }
}
