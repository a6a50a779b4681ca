package brightlantern.core.code;

import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** The freeze frames of a code side by side, and what all its occasions had in common. */
public final class FrameComparison {
    /** Occasions count as alike within a tenth of the largest reading. */
    private static final double ALIKE = 0.10;

    /** Frames of one moment are stored within so long. */
    private static final double SAME_TIME_SECONDS = 60;

    private FrameComparison() {}

    /**
     * @param readings one a frame, in their order, rounded to the value's digits; empty where a
     *     frame lacks the value
     * @param alike empty with fewer than two readings
     */
    public record Row(String name, String unit, List<String> readings, Optional<Boolean> alike) {}

    /** One row a value that any frame holds. */
    public static List<Row> rows(StoredCode code, Signals signals) {
        Set<String> ids = new LinkedHashSet<>();
        code.frames().forEach(f -> ids.addAll(f.values().keySet()));
        return ids.stream()
                .flatMap(id -> signals.value(id).stream())
                .map(v -> row(code, v))
                .toList();
    }

    private static Row row(StoredCode code, Value value) {
        List<Double> known =
                code.frames().stream()
                        .map(f -> f.values().get(value.id()))
                        .filter(Objects::nonNull)
                        .toList();
        return new Row(
                value.name(),
                value.isState() ? "" : value.show(),
                code.frames().stream()
                        .map(f -> f.values().get(value.id()))
                        .map(reading -> reading == null ? "" : Scaling.show(value, reading))
                        .toList(),
                known.size() < 2 ? Optional.empty() : Optional.of(alike(value, known)));
    }

    /** Whether readings of a value lie close together; states must be the same. */
    static boolean alike(Value value, List<Double> readings) {
        double least = readings.stream().mapToDouble(x -> x).min().orElse(Double.NaN);
        double most = readings.stream().mapToDouble(x -> x).max().orElse(Double.NaN);
        if (value.isDate()) {
            return most - least <= SAME_TIME_SECONDS;
        }
        return value.isState()
                ? least == most
                : most - least <= ALIKE * Math.max(Math.abs(least), Math.abs(most));
    }
}
