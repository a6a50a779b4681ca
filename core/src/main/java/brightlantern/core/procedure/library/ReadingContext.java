package brightlantern.core.procedure.library;

import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.signal.Signals;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;

/**
 * What a step is read against.
 *
 * @param scene the values of which conditions may speak: the vehicle's, and what steps make known
 * @param mistakes to which those found are added
 */
record ReadingContext(
        VehicleDescription vehicle, Equipment equipment, Signals scene, List<String> mistakes) {
    void wrong(RawStep step, String sentence) {
        mistakes.add(step.place() + ": " + sentence);
    }

    /** What is named must be there. */
    void known(RawStep step, String what, Stream<String> ids, String id) {
        if (ids.noneMatch(id::equals)) {
            wrong(step, "expected " + what + ", found '" + id + "', which is not described");
        }
    }

    void configuration(RawStep step, String id) {
        known(step, "a configuration", equipment.configurations().stream().map(c -> c.id()), id);
    }

    /** A condition; one that holds always where it cannot be read, which is told. */
    Filter condition(String place, String text) {
        try {
            return FilterParser.parse(text, scene);
        } catch (FilterException wrong) {
            mistakes.add(place + ": '" + text + "': " + wrong.getMessage());
            return new Filter.And(List.of());
        }
    }

    /** Findings that a step tells, with their outcomes. */
    Map<String, String> tells(RawStep step, JsonNode node) {
        Map<String, String> tells = new LinkedHashMap<>();
        node.path("tells")
                .properties()
                .forEach(
                        e -> {
                            String outcome = e.getValue().asString();
                            finding(step, e.getKey(), outcome);
                            tells.put(e.getKey(), outcome);
                        });
        return tells;
    }

    private void finding(RawStep step, String finding, String outcome) {
        boolean there =
                vehicle.finding(finding).stream()
                        .flatMap(f -> f.outcomes().stream())
                        .anyMatch(o -> o.id().equals(outcome));
        if (!there) {
            wrong(
                    step,
                    "expected a finding with this outcome, found '"
                            + finding
                            + ": "
                            + outcome
                            + "', which is not described");
        }
    }

    static Optional<Boolean> passes(JsonNode node) {
        return node.has("passes") ? Optional.of(node.path("passes").asBoolean()) : Optional.empty();
    }
}
