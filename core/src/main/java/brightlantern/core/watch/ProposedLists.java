package brightlantern.core.watch;

import brightlantern.core.code.Code;
import brightlantern.core.code.StoredCode;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.Value;
import brightlantern.core.study.target.Follow;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Watch lists that follow from what is known of a job: its lead code, symptoms and checks. */
public final class ProposedLists {
    private ProposedLists() {}

    /**
     * @param why what it was proposed by
     */
    public record Proposed(String id, String name, String why, List<String> values) {}

    /**
     * @param lead the code to chase, if there is one
     * @param symptoms ids of the symptoms that were told
     */
    public static List<Proposed> of(
            VehicleDescription d, Optional<StoredCode> lead, Collection<String> symptoms) {
        List<Proposed> all = new ArrayList<>();
        lead.ifPresent(code -> byCode(d, code).ifPresent(all::add));
        Set<String> bySymptom = new LinkedHashSet<>();
        d.symptoms().stream()
                .filter(s -> symptoms.contains(s.id()))
                .forEach(
                        s ->
                                d.codes().stream()
                                        .filter(c -> s.families().contains(c.family()))
                                        .forEach(c -> bySymptom.addAll(concerned(d, c))));
        if (!bySymptom.isEmpty()) {
            all.add(
                    new Proposed(
                            "symptom",
                            "What the complaint is about",
                            "symptom",
                            List.copyOf(bySymptom)));
        }
        for (Follow follow : d.follows()) {
            Set<String> ids =
                    new LinkedHashSet<>(
                            List.of(
                                    follow.target(),
                                    follow.actual(),
                                    follow.command(),
                                    follow.feedback()));
            follow.when().stream().map(Condition::value).forEach(ids::add);
            ids.addAll(follow.conditions());
            all.add(
                    new Proposed(
                            "follow-" + follow.id(),
                            d.value(follow.actual()).map(Value::name).orElse(follow.id())
                                    + ": target and actual",
                            "check plan",
                            List.copyOf(ids)));
        }
        d.trims()
                .forEach(
                        t -> {
                            Set<String> ids =
                                    new LinkedHashSet<>(List.of(t.shortTerm(), t.longTerm()));
                            t.regimes().forEach(r -> r.when().forEach(c -> ids.add(c.value())));
                            all.add(
                                    new Proposed(
                                            "trims-" + t.id(),
                                            t.name(),
                                            "check plan",
                                            List.copyOf(ids)));
                        });
        d.cylinders()
                .ifPresent(
                        c -> {
                            Set<String> ids = new LinkedHashSet<>(List.of(c.speed()));
                            c.order().stream().sorted().forEach(n -> ids.add(c.deviationOf(n)));
                            c.order().stream().sorted().forEach(n -> ids.add(c.misfiresOf(n)));
                            c.when().forEach(w -> ids.add(w.value()));
                            all.add(
                                    new Proposed(
                                            "cylinders",
                                            "Cylinders",
                                            "check plan",
                                            List.copyOf(ids)));
                        });
        d.drawings()
                .forEach(
                        g ->
                                all.add(
                                        new Proposed(
                                                "drawing-" + g.id(),
                                                g.name(),
                                                "system",
                                                g.parts().stream()
                                                        .flatMap(p -> p.values().stream())
                                                        .distinct()
                                                        .toList())));
        return List.copyOf(all);
    }

    private static Optional<Proposed> byCode(VehicleDescription d, StoredCode stored) {
        Set<String> ids = new LinkedHashSet<>();
        d.codes().stream()
                .filter(c -> c.code().equals(stored.code()))
                .forEach(c -> ids.addAll(concerned(d, c)));
        stored.frames().forEach(f -> ids.addAll(f.values().keySet()));
        ids.removeIf(id -> d.value(id).isEmpty());
        return ids.isEmpty()
                ? Optional.empty()
                : Optional.of(
                        new Proposed(
                                "code",
                                stored.code() + " and its freeze frame",
                                "code",
                                List.copyOf(ids)));
    }

    /**
     * Values that a code speaks of, relies on, or that share a word of any length with its name.
     */
    private static Set<String> concerned(VehicleDescription d, Code code) {
        Set<String> ids = new LinkedHashSet<>(code.uses());
        if (!code.about().isEmpty()) {
            ids.add(code.about());
        }
        Set<String> words = new LinkedHashSet<>();
        for (String word : code.name().toLowerCase(Locale.ROOT).split("[^a-z]+")) {
            if (word.length() > 4) {
                words.add(word.replaceAll("s$", ""));
            }
        }
        d.values().stream()
                .filter(v -> v.module().equals(code.module()) && !v.id().contains(".board."))
                .filter(
                        v -> {
                            String its =
                                    (v.name() + " " + String.join(" ", v.words()))
                                            .toLowerCase(Locale.ROOT);
                            return words.stream().anyMatch(its::contains);
                        })
                .limit(12)
                .forEach(v -> ids.add(v.id()));
        return ids;
    }
}
