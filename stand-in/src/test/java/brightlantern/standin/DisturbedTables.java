package brightlantern.standin;

import brightlantern.core.reason.Reasoners;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;

/**
 * Descriptions whose writers were less sure than they seemed: each figure of their suspects' tables
 * is moved by a logit of its own, N(0, 0.7).
 */
final class DisturbedTables {
    private static final double LOGIT = 0.7;

    private final Random random;

    DisturbedTables(Random random) {
        this.random = random;
    }

    Reasoners reasoners(VehicleDescription d) {
        return new Reasoners(
                d.withOnly(d.suspects().stream().map(this::disturbed).toList(), d.checks()));
    }

    private Suspect disturbed(Suspect s) {
        return s.showing(
                each(s.codes(), this::moved),
                each(s.symptoms(), this::moved),
                each(s.tells(), t -> toOne(each(t, this::moved))));
    }

    private double moved(double p) {
        return p <= 0 || p >= 1
                ? p
                : 1 / (1 + (1 - p) / p * Math.exp(-LOGIT * random.nextGaussian()));
    }

    private static Map<String, Double> toOne(Map<String, Double> outcomes) {
        double all = outcomes.values().stream().mapToDouble(p -> p).sum();
        return all > 0 ? each(outcomes, p -> p / all) : outcomes;
    }

    private static <T> Map<String, T> each(Map<String, T> of, Function<T, T> change) {
        Map<String, T> all = new HashMap<>();
        of.forEach((k, v) -> all.put(k, change.apply(v)));
        return all;
    }
}
