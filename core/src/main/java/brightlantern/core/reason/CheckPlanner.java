package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Which check tells most about the suspects for each minute. */
final class CheckPlanner {
    private static final double NEVER = 1e-12;

    /** Every check takes so long beside itself: to read of it, to get there, to enter it. */
    static final double MINUTES_ASIDE = 2;

    /** A cause under which a piece is so much likelier, or less likely, had a hand in it; log. */
    private static final double TOUCHED = 0.7;

    private final Hypotheses hypotheses;
    private final List<Mechanism> mechanisms;
    private final Unlisted unlisted;

    CheckPlanner(Hypotheses hypotheses, List<Mechanism> mechanisms) {
        this.hypotheses = hypotheses;
        this.mechanisms = mechanisms;
        this.unlisted = new Unlisted(hypotheses);
    }

    /**
     * Checks not yet done, the most telling for each minute first.
     *
     * @param told the newest evidence of each kind
     * @param single weights of the hypotheses by it, as causes of their own
     * @param two what is known of two faults; while they are the likelier the second is looked for
     */
    List<NextCheck> next(
            Unlisted.Told told, double[] single, Optional<Pairs.Two> two, double supplyVolts) {
        List<Learned> learned = told.pieces();
        Optional<Pairs.Two> beside = two.filter(t -> t.share() >= Ranking.POINTED_AT);
        double[] weights = beside.map(Pairs.Two::second).orElse(single);
        UnaryOperator<List<double[]>> seen =
                beside.filter(t -> !t.isMended())
                        .<UnaryOperator<List<double[]>>>map(t -> o -> beside(o, t.first()))
                        .orElse(UnaryOperator.identity());
        List<Evidence> known = learned.stream().map(Learned::piece).toList();
        Set<String> done =
                IntStream.range(0, learned.size())
                        .filter(e -> !isMendedSince(learned, e))
                        .mapToObj(e -> known.get(e).key())
                        .collect(Collectors.toSet());
        Now now = now(weights);
        List<NextCheck> next = new ArrayList<>();
        for (Mechanism mechanism : mechanisms) {
            for (Check check : mechanism.checks(known)) {
                if (!done.contains(check.key()) || mechanism.mayRepeat(check)) {
                    Supplier<Optional<Mechanism.Forecast>> forecast =
                            () -> mechanism.forecast(check, hypotheses, weights, supplyVolts);
                    forecast.get()
                            .map(f -> seen.apply(unlisted.in(f, weights, told.unlike())))
                            .map(outcomes -> weighed(check, outcomes, now, forecast))
                            .ifPresent(next::add);
                }
            }
        }
        next.sort(Comparator.comparingDouble(NextCheck::bitsPerMinute).reversed());
        return next;
    }

    /** Whether a repair came later of something that may have made a piece what it was. */
    private boolean isMendedSince(List<Learned> learned, int e) {
        double[] logs = learned.get(e).logs();
        double healthy = logs[hypotheses.healthy()];
        return learned.stream()
                .skip(e + 1L)
                .map(Learned::piece)
                .filter(Evidence.RepairFailed.class::isInstance)
                .map(p -> ((Evidence.RepairFailed) p).suspectId())
                .anyMatch(
                        id ->
                                hypotheses
                                        .of(id)
                                        .anyMatch(i -> Math.abs(logs[i] - healthy) > TOUCHED));
    }

    private NextCheck weighed(
            Check check,
            List<double[]> outcomes,
            Now now,
            Supplier<Optional<Mechanism.Forecast>> forecast) {
        Telling telling = telling(outcomes, now);
        double bits = telling.bits();
        return new NextCheck(
                check,
                bits,
                telling.naming(),
                bits / (check.minutes() + MINUTES_ASIDE),
                () -> forecast.get().map(Mechanism.Forecast::expectations).orElse(List.of()));
    }

    /**
     * What is seen beside a fault that is there already: of the two the one decides that takes the
     * outcomes further away from those of a healthy vehicle.
     */
    private List<double[]> beside(List<double[]> outcomes, int first) {
        int healthy = hypotheses.healthy();
        double far = distance(outcomes, first, healthy);
        List<double[]> both = outcomes.stream().map(double[]::clone).toList();
        for (int i = 0; i < hypotheses.size(); i++) {
            if (distance(outcomes, i, healthy) < far) {
                for (double[] chance : both) {
                    chance[i] = chance[first];
                }
            }
        }
        return both;
    }

    /** Total variation between two hypotheses' outcomes, twice. */
    private static double distance(List<double[]> outcomes, int a, int b) {
        return outcomes.stream().mapToDouble(chance -> Math.abs(chance[a] - chance[b])).sum();
    }

    /**
     * What a check tells.
     *
     * @param bits mutual information between suspect and outcome (Shannon 1948)
     * @param naming how likely an outcome is that leaves one of them at {@link Ranking#ACCUSED}
     */
    private record Telling(double bits, double naming) {}

    /**
     * How it stands before a check.
     *
     * @param at hypotheses that are not as good as excluded
     * @param suspects probability of each
     */
    private record Now(double[] weights, int[] at, double[] suspects) {}

    private Now now(double[] weights) {
        return new Now(
                weights,
                IntStream.range(0, weights.length).filter(i -> weights[i] > NEVER).toArray(),
                hypotheses.bySuspect(weights));
    }

    private Telling telling(List<double[]> outcomes, Now now) {
        double[] prior = now.suspects();
        double bits = 0;
        double naming = 0;
        for (double[] chance : outcomes) {
            double[] each = hypotheses.bySuspect(now.weights(), chance, now.at());
            double p = Arrays.stream(each).sum();
            if (p < NEVER) {
                continue;
            }
            double surest = 0;
            for (int k = 0; k < each.length; k++) {
                double given = each[k] / p;
                surest = Math.max(surest, given);
                if (given > NEVER) {
                    bits += each[k] * Math.log(given / prior[k]) / Math.log(2);
                }
            }
            naming += surest >= Ranking.ACCUSED ? p : 0;
        }
        return new Telling(Math.max(0, bits), naming);
    }
}
