package brightlantern.app.sweep;

import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.SweepComparison;
import brightlantern.core.sweep.SweepComparison.Change;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** What changed between two sweeps, on the bus map: where codes are new, gone, or out of sight. */
final class ChangeMap {
    private ChangeMap() {}

    static BusMap of(
            VehicleDescription description, Sweep newest, SweepComparison.Result comparison) {
        Map<String, List<SweepComparison.CodeChange>> codes =
                comparison.codes().stream()
                        .collect(Collectors.groupingBy(c -> c.code().moduleId()));
        Map<String, List<SweepComparison.ModuleChange>> parts =
                comparison.modules().stream()
                        .collect(Collectors.groupingBy(SweepComparison.ModuleChange::module));
        return BusMap.of(
                description,
                m ->
                        mark(
                                newest.module(m.id()).map(Sweep.ModuleResult::answer),
                                codes.getOrDefault(m.id(), List.of()),
                                parts.getOrDefault(m.name(), List.of())),
                Optional.empty());
    }

    private static BusMap.Mark mark(
            Optional<Answer> answer,
            List<SweepComparison.CodeChange> codes,
            List<SweepComparison.ModuleChange> parts) {
        int came = count(codes, Change.NEW) + count(codes, Change.CAME_BACK);
        List<String> told = new ArrayList<>();
        for (Change change : Change.values()) {
            int count = count(codes, change);
            if (count > 0 && change != Change.UNCHANGED) {
                told.add(count + " " + change.words());
            }
        }
        parts.forEach(p -> told.add(p.what() + " was " + p.before() + ", is " + p.after()));
        String words = told.isEmpty() ? "nothing changed" : String.join("; ", told);
        if (answer.isPresent() && answer.get() == Answer.SILENT) {
            return new BusMap.Mark("silent", 0, "silent now; " + words);
        }
        if (answer.isPresent() && answer.get() == Answer.NOT_FITTED) {
            return new BusMap.Mark("absent", 0, "not fitted");
        }
        return came > 0
                ? new BusMap.Mark("codes", came, words)
                : new BusMap.Mark(told.isEmpty() ? "waiting" : "answered", 0, words);
    }

    private static int count(List<SweepComparison.CodeChange> codes, Change change) {
        return (int) codes.stream().filter(c -> c.change() == change).count();
    }
}
