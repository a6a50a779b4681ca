package brightlantern.core.reason;

import brightlantern.core.circuit.Need;
import brightlantern.core.circuit.Wiring;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Whether the engine can be run for a check.
 *
 * @param symptoms complaints of an engine that does not run
 */
record CanRun(Set<String> symptoms) {
    static CanRun of(Wiring wiring) {
        return new CanRun(
                wiring.needs().stream()
                        .filter(n -> n.what() != Need.What.BURNING)
                        .map(Need::symptom)
                        .collect(Collectors.toSet()));
    }

    /** Checks that can be done, as far as the engine is needed for them. */
    List<Check> allowed(List<Check> checks, List<Evidence> known) {
        boolean stands =
                known.stream()
                        .anyMatch(
                                e ->
                                        e instanceof Evidence.SymptomTold told
                                                && symptoms.contains(told.symptomId()));
        return checks.stream()
                .filter(c -> !(stands && c instanceof Check.Look look && look.running()))
                .toList();
    }
}
