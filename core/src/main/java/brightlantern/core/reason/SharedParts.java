package brightlantern.core.reason;

import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * A cable that stands both in circuits of which is written what follows while it is bad and in
 * those that are drawn with gauges: where it is open, it leads to what is told in either.
 */
final class SharedParts {
    private SharedParts() {}

    /**
     * @param written suspects of the description; for their parts none is derived
     * @param followed those of circuits of which is written what follows
     * @param drawn those of circuits with gauges
     */
    static List<Suspect> joined(
            List<Suspect> written, List<Suspect> followed, List<Suspect> drawn) {
        Set<String> own =
                written.stream()
                        .flatMap(s -> series(s).stream())
                        .map(Effect.Series::of)
                        .collect(Collectors.toSet());
        Map<String, Suspect> byPart = new HashMap<>();
        followed.forEach(s -> series(s).ifPresent(e -> byPart.put(e.of(), s)));
        List<Suspect> all = new ArrayList<>(followed);
        for (Suspect s : drawn) {
            Optional<String> its = series(s).map(Effect.Series::of);
            Optional<Suspect> twin = its.map(byPart::get);
            if (twin.isPresent()) {
                all.add(joined(s, twin.get()));
            } else if (its.filter(own::contains).isEmpty()) {
                all.add(s);
            }
        }
        return all;
    }

    private static Optional<Effect.Series> series(Suspect s) {
        return s.effect()
                .flatMap(e -> e instanceof Effect.Series r ? Optional.of(r) : Optional.empty());
    }

    private static Suspect joined(Suspect drawn, Suspect followed) {
        Map<String, Map<String, Double>> tells = new LinkedHashMap<>(drawn.tells());
        followed.tells().forEach(tells::putIfAbsent);
        List<String> chain = new ArrayList<>(drawn.chain());
        followed.chain().stream().skip(1).forEach(chain::add);
        return new Suspect(
                drawn.id(),
                drawn.name(),
                drawn.common(),
                drawn.wears(),
                drawn.ages(),
                drawn.effect(),
                either(drawn.codes(), followed.codes()),
                either(drawn.symptoms(), followed.symptoms()),
                tells,
                chain,
                drawn.repair());
    }

    private static Map<String, Double> either(Map<String, Double> a, Map<String, Double> b) {
        Map<String, Double> all = new LinkedHashMap<>(a);
        b.forEach((key, p) -> all.merge(key, p, CircuitSuspects::either));
        return all;
    }
}
