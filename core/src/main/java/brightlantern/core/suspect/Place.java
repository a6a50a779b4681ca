package brightlantern.core.suspect;

import java.util.Map;

/**
 * Where in a job something is done, with its condition set.
 *
 * @param path a stage, or a page below it
 * @param with what the page is told, by name
 * @param part of the page, for what stands further down; empty for the whole
 */
public record Place(String path, Map<String, String> with, String part) {
    public Place {
        with = Map.copyOf(with);
    }

    /** A page as it opens by itself. */
    public static Place of(String path) {
        return new Place(path, Map.of(), "");
    }

    /** Where an actuator is driven. */
    public static Place driving(String actuatorId) {
        return of("exercise/procedures/drive-" + actuatorId);
    }

    /** Where a capture is recorded. */
    public static Place capturing(String planId) {
        return new Place("probe/captures", Map.of("plan", planId), "");
    }

    /** Where a reading is taken. */
    public static Place probing(String circuitId, String pointId, String condition) {
        return new Place(
                "probe",
                Map.of("circuit", circuitId, "point", pointId, "condition", condition),
                "point");
    }
}
