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
 * One suspect for a cable that stands both in circuits of which is written what follows and in
 * those that are drawn with gauges: what it leads to in either is told of it.
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
            Optional<Effect.Series> its = series(s);
            Suspect twin = its.map(e -> byPart.get(e.of())).orElse(null);
            if (twin != null) {
                all.set(all.indexOf(twin), joined(s, twin));
            } else if (its.filter(e -> own.contains(e.of())).isEmpty()) {
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
        Effect.Series one = series(drawn).orElseThrow();
        Effect.Series other = series(followed).orElseThrow();
        Map<String, Map<String, Double>> tells = new LinkedHashMap<>(drawn.tells());
        followed.tells().forEach(tells::putIfAbsent);
        List<String> chain = new ArrayList<>(drawn.chain());
        followed.chain().stream().skip(1).forEach(chain::add);
        return new Suspect(
                drawn.id(),
                drawn.name(),
                Math.max(drawn.common(), followed.common()),
                Optional.of(
                        new Effect.Series(
                                one.circuit(),
                                one.of(),
                                Math.min(one.from(), other.from()),
                                Math.max(one.to(), other.to()),
                                one.breaks() || other.breaks())),
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
