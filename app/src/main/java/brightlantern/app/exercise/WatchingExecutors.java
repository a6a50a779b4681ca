package brightlantern.app.exercise;

import brightlantern.core.filter.Filter;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.wire.WireException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Acts that only watch: waiting for a condition, and measuring. */
final class WatchingExecutors {
    private final RunDesk desk;

    WatchingExecutors(RunDesk desk) {
        this.desk = desk;
    }

    void waitFor(Step step, Act.Wait wait) throws WireException {
        Map<String, List<double[]>> window = new LinkedHashMap<>();
        List<Procedure.GateRule> wanted =
                List.of(new Procedure.GateRule(wait.when(), wait.until(), wait.when(), ""));
        while (desk.its.inStep() < wait.seconds()) {
            Map<String, Double> now = desk.read(wait.until().values(), window, false);
            desk.its.awaits(GateState.at(wanted, desk.vehicle(), now).get(0).present());
            if (holds(wait.until(), window)) {
                desk.tell(new Event.Held(step.id()));
                return;
            }
            desk.watch();
            RunDesk.pause();
        }
        desk.tell(new Event.Late(step.id()));
    }

    private static boolean holds(Filter filter, Map<String, List<double[]>> window) {
        double[] times =
                window.values().stream()
                        .flatMapToDouble(s -> s.stream().mapToDouble(p -> p[0]))
                        .distinct()
                        .sorted()
                        .toArray();
        return times.length > 0
                && filter.over(Take.of(window), times)[times.length - 1] == Filter.State.HOLDS;
    }

    void measure(Step step, Act.Measure measure) throws WireException {
        Map<String, List<double[]>> window = new LinkedHashMap<>();
        Set<String> ids =
                measure.until()
                        .map(
                                f ->
                                        Stream.concat(
                                                        measure.values().stream(),
                                                        f.values().stream())
                                                .collect(Collectors.toSet()))
                        .orElse(Set.copyOf(measure.values()));
        desk.its.followed = Set.copyOf(measure.values());
        do {
            desk.read(ids, window, true);
            if (measure.until().isPresent() && holds(measure.until().get(), window)) {
                break;
            }
            desk.watch();
            RunDesk.pause();
        } while (desk.its.inStep() < measure.seconds());
        Map<String, Double> readings = new LinkedHashMap<>();
        for (String id : measure.values()) {
            List<double[]> s = window.getOrDefault(id, List.of());
            if (s.isEmpty()) {
                throw new RunBroken(
                        "%s: no module answered with %s."
                                .formatted(
                                        step.says().isEmpty() ? step.id() : step.says(),
                                        desk.its
                                                .context
                                                .description()
                                                .value(id)
                                                .map(Value::name)
                                                .orElse(id)));
            }
            String as = Scene.reading(measure.as(), id);
            var stats = s.stream().mapToDouble(p -> p[1]).summaryStatistics();
            double mean = stats.getAverage();
            readings.put(as, mean);
            readings.put(as + ".least", stats.getMin());
            readings.put(as + ".most", stats.getMax());
            readings.put(
                    as + ".spread",
                    Math.sqrt(
                            s.stream()
                                    .mapToDouble(p -> (p[1] - mean) * (p[1] - mean))
                                    .average()
                                    .orElse(0)));
        }
        desk.tell(new Event.Did(step.id(), readings));
    }
}
