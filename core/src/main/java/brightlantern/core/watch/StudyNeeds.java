package brightlantern.core.watch;

import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.signal.Value;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Which values have to be read for what is to be judged. */
public final class StudyNeeds {
    private StudyNeeds() {}

    /** What all studies of a vehicle need to be recorded, whether somebody looks at it or not. */
    public static Set<String> all(VehicleDescription d) {
        Set<String> ids = looked(d);
        d.cylinders().ifPresent(c -> ids.addAll(CylinderStudy.needed(c)));
        return ids;
    }

    /** The same without those of many values, which nobody needs to look at. */
    public static Set<String> looked(VehicleDescription d) {
        Set<String> ids = new LinkedHashSet<>();
        d.follows().forEach(f -> ids.addAll(of(f)));
        d.trims().forEach(t -> ids.addAll(TrimStudy.needed(t)));
        if (ids.isEmpty()) {
            d.cylinders().ifPresent(c -> ids.addAll(CylinderStudy.needed(c)));
        }
        return ids;
    }

    /** What the study of a target needs. */
    public static Set<String> of(Follow follow) {
        Set<String> ids =
                new LinkedHashSet<>(
                        List.of(
                                follow.target(),
                                follow.actual(),
                                follow.command(),
                                follow.feedback()));
        follow.when().forEach(c -> ids.add(c.value()));
        ids.addAll(follow.conditions());
        return ids;
    }

    /** Values with those without which their ranges could not be judged. */
    public static Set<String> withRanges(VehicleDescription d, Collection<String> ids) {
        Set<String> all = new LinkedHashSet<>(ids);
        ids.stream()
                .flatMap(v -> d.value(v).stream())
                .flatMap(v -> v.ranges().stream())
                .flatMap(r -> r.when().stream())
                .forEach(c -> all.add(c.value()));
        return all;
    }

    /** How many values of each module these are, with those of their ranges. */
    public static Map<String, Integer> byModule(VehicleDescription d, Collection<String> ids) {
        Map<String, Integer> counts = new LinkedHashMap<>();
        withRanges(d, ids).stream()
                .flatMap(i -> d.value(i).stream())
                .map(Value::module)
                .forEach(m -> counts.merge(m, 1, Integer::sum));
        return counts;
    }
}
