package brightlantern.app.probe;

import brightlantern.core.circuit.Sensed;
import brightlantern.core.signal.Scaling;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Optional;

/** That a reading is held against what the module tells of its sensor. */
final class ToldWords {
    private ToldWords() {}

    /** With the figure in the unit in which the value is shown; empty without a sensor. */
    static String of(VehicleDescription d, Optional<Sensed> sensed) {
        return sensed.flatMap(
                        s ->
                                d.value(s.gauge().value())
                                        .map(
                                                v ->
                                                        ", as its module tells "
                                                                + Scaling.show(v, s.told())
                                                                + " "
                                                                + v.show()))
                .map(String::stripTrailing)
                .orElse("");
    }
}
