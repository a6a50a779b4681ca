package brightlantern.core.procedure;

import brightlantern.core.configuration.Configuration;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;

/**
 * What procedures of a vehicle can command: outputs, routines, and what its modules can be told.
 *
 * @param writing gates that must be open before anything is written
 */
public record Equipment(
        List<Procedure.Output> outputs,
        List<Procedure.Routine> routines,
        List<Configuration> configurations,
        List<Procedure.GateRule> writing) {
    public Equipment {
        outputs = List.copyOf(outputs);
        routines = List.copyOf(routines);
        configurations = List.copyOf(configurations);
        writing = List.copyOf(writing);
    }

    /** What its actuators alone give. */
    public static Equipment of(VehicleDescription d) {
        return new Equipment(
                d.actuators().stream()
                        .map(a -> new Procedure.Output(a.id(), a.name(), a.module(), a.did()))
                        .toList(),
                List.of(),
                List.of(),
                List.of());
    }
}
