package brightlantern.app.prove;

import brightlantern.core.procedure.Procedure;
import brightlantern.core.proof.RepairSteps;
import brightlantern.core.suspect.RepairStep;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;

/**
 * How a repair is done, and what must be learned or coded afterwards.
 *
 * @param name of the repair
 * @param sits where its part is reached, and in how many minutes; empty where no sheet tells
 */
record RepairHow(String name, String sits, List<RepairStep> steps, List<Then> afterwards) {
    /**
     * @param procedure that does it; empty where the vehicle has none of that kind
     */
    record Then(String what, String procedure) {}

    static RepairHow of(Suspect suspect, VehicleDescription d, List<Procedure> procedures) {
        return new RepairHow(
                suspect.repair().name(),
                RepairSteps.reached(suspect, d.circuits())
                        .map(p -> p.place() + ", " + Math.round(p.minutes()) + " minutes to reach")
                        .orElse(""),
                RepairSteps.of(suspect, d.circuits()),
                suspect.repair().afterwards().stream()
                        .map(
                                a ->
                                        new Then(
                                                a.what(),
                                                procedures.stream()
                                                        .map(Procedure::id)
                                                        .filter(a.procedure()::equals)
                                                        .findFirst()
                                                        .orElse("")))
                        .toList());
    }

    /** Of those suspects of whose repair something is known. */
    static List<RepairHow> of(
            List<String> suspects, VehicleDescription d, List<Procedure> procedures) {
        return suspects.stream()
                .flatMap(s -> d.suspect(s).stream())
                .map(s -> of(s, d, procedures))
                .filter(RepairHow::isTold)
                .toList();
    }

    /** Whether there is anything to tell. */
    boolean isTold() {
        return !steps.isEmpty() || !afterwards.isEmpty();
    }
}
