package brightlantern.app.watch;

import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.signal.Condition;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.suspect.Check;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.StudyNeeds;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * A proposed check that is done in Watch, with what it needs.
 *
 * @param todo what to do, in a sentence
 * @param needs conditions under which it must be recorded, in words
 * @param values what is to be recorded
 */
record WatchCheck(String name, String why, String todo, List<String> needs, Set<String> values) {
    /** A check of the description by its id; empty when it has none of that name in Watch. */
    static Optional<WatchCheck> of(VehicleDescription d, String id) {
        return d.checks().stream()
                .filter(c -> c.id().equals(id) && c.stage().equals("watch"))
                .filter(Check.Look.class::isInstance)
                .findFirst()
                .map(c -> of(d, (Check.Look) c));
    }

    private static WatchCheck of(VehicleDescription d, Check.Look check) {
        Set<String> values = new LinkedHashSet<>();
        Set<String> needs = new LinkedHashSet<>();
        for (String finding : check.of()) {
            d.follows().stream()
                    .filter(f -> f.finding().equals(finding))
                    .forEach(
                            f -> {
                                values.addAll(StudyNeeds.of(f));
                                f.when().stream().map(Condition::says).forEach(needs::add);
                                needs.add("for %.0f s or more".formatted(f.atLeastSeconds()));
                            });
            d.trims().stream()
                    .filter(t -> t.finding().equals(finding) || t.refuelled().equals(finding))
                    .forEach(
                            t -> {
                                values.addAll(TrimStudy.needed(t));
                                t.regimes()
                                        .forEach(
                                                r ->
                                                        needs.add(
                                                                r.name().toLowerCase()
                                                                        + ": "
                                                                        + said(r.when().stream())));
                            });
            d.cylinders()
                    .filter(c -> c.finding().equals(finding))
                    .ifPresent(
                            c -> {
                                values.addAll(CylinderStudy.needed(c));
                                needs.add(said(c.when().stream()));
                            });
            d.agreements().stream()
                    .filter(a -> a.finding().equals(finding))
                    .forEach(
                            a -> {
                                values.addAll(List.of(a.a(), a.b()));
                                needs.add(said(a.when().stream()));
                            });
        }
        boolean compared = d.agreements().stream().anyMatch(a -> check.of().contains(a.finding()));
        return new WatchCheck(
                check.name(),
                check.why(),
                compared
                        ? "Press Compare at rest."
                        : "Start a take, bring this about, and stop the take.",
                needs.stream().filter(n -> !n.isBlank()).toList(),
                values);
    }

    private static String said(Stream<Condition> conditions) {
        return String.join(", ", conditions.map(Condition::says).toList());
    }
}
