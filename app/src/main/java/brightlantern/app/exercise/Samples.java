package brightlantern.app.exercise;

import brightlantern.core.take.Take;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Samples as they come in, pairs of seconds and value, made into a take. */
final class Samples {
    private Samples() {}

    static Take take(Map<String, List<double[]>> samples) {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        samples.forEach(
                (id, s) ->
                        columns.put(
                                id,
                                new Take.Column(
                                        s.stream().mapToDouble(p -> p[0]).toArray(),
                                        s.stream().mapToDouble(p -> p[1]).toArray())));
        return new Take(columns, List.of());
    }
}
