package brightlantern.app.probe;

import brightlantern.core.circuit.Sensed;
import brightlantern.core.signal.Scaling;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Map;
import java.util.Optional;

/** That a reading is held against what the module tells of its sensor. */
final class ToldWords {
    private ToldWords() {}

    /** With the figure in the unit in which the value is shown; empty without a sensor. */
    static String of(VehicleDescription d, Optional<Sensed> sensed) {
        String its =
                figure(d, sensed.map(s -> Map.of(s.gauge().value(), s.told())).orElse(Map.of()));
        return its.isEmpty() ? "" : ", as its module tells " + its;
    }

    /**
     * A figure in the unit in which its value is shown.
     *
     * @param told value → figure; empty for none
     */
    static String figure(VehicleDescription d, Map<String, Double> told) {
        return told.entrySet().stream()
                .flatMap(
                        t ->
                                d
                                        .value(t.getKey())
                                        .map(v -> Scaling.show(v, t.getValue()) + " " + v.show())
                                        .stream())
                .findFirst()
                .map(String::strip)
                .orElse("");
    }
}
