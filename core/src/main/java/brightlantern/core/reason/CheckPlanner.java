package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Which check tells most about the suspects for each minute. */
final class CheckPlanner {
    private static final double NEVER = 1e-12;

    /** Every check takes so long beside itself: to read of it, to get there, to enter it. */
    static final double MINUTES_ASIDE = 2;

    /** Two faults that are less likely than this are not asked after. */
    private static final double HARDLY = 0.05;

    /** A cause under which a piece is so much likelier, or less likely, had a hand in it; log. */
    private static final double TOUCHED = 0.7;

    private final Hypotheses hypotheses;
    private final List<Mechanism> mechanisms;
    private final Unlisted unlisted;
    private final TwoSteps twoSteps;

    CheckPlanner(Hypotheses hypotheses, List<Mechanism> mechanisms) {
        this.hypotheses = hypotheses;
        this.mechanisms = mechanisms;
        this.unlisted = new Unlisted(hypotheses);
        this.twoSteps = new TwoSteps(hypotheses);
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
        Optional<Pairs.Two> perhaps = two.filter(t -> beside.isEmpty() && t.share() > HARDLY);
        List<NextCheck> next = new ArrayList<>();
        // all of them at once would not fit into memory, and few are asked for again
        Map<String, Supplier<List<double[]>>> outcomes = new HashMap<>();
        for (Mechanism mechanism : mechanisms) {
            for (Check check : mechanism.checks(known)) {
                if (!done.contains(check.key()) || mechanism.mayRepeat(check)) {
                    Supplier<Optional<Mechanism.Forecast>> forecast =
                            () -> mechanism.forecast(check, hypotheses, weights, supplyVolts);
                    Function<Mechanism.Forecast, List<double[]>> of =
                            f -> seen.apply(unlisted.in(f, weights, told.unlike()));
                    forecast.get()
                            .map(of)
                            .map(o -> weighed(check, o, now, perhaps, forecast))
                            .ifPresent(next::add);
                    outcomes.put(check.key(), () -> forecast.get().map(of).orElseThrow());
                }
            }
        }
        next.sort(Comparator.comparingDouble(NextCheck::bitsPerMinute).reversed());
        return twoSteps.ordered(next, weights, c -> outcomes.get(c.check().key()).get());
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
            Optional<Pairs.Two> perhaps,
            Supplier<Optional<Mechanism.Forecast>> forecast) {
        Telling telling = telling(outcomes, now, perhaps);
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

    /** Probability of each outcome with two faults, whatever stands beside the first. */
    private double[] chances(List<double[]> outcomes, Pairs.Two two) {
        double[] second = two.second();
        double all = Arrays.stream(second).sum();
        List<double[]> seen = two.isMended() ? outcomes : beside(outcomes, two.first());
        return seen.stream()
                .mapToDouble(
                        chance ->
                                all > 0
                                        ? IntStream.range(0, second.length)
                                                        .mapToDouble(i -> second[i] * chance[i])
                                                        .sum()
                                                / all
                                        : 0)
                .toArray();
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

    /**
     * @param perhaps two faults, which are less likely than one: whether it is them is to be told
     *     too
     */
    private Telling telling(List<double[]> outcomes, Now now, Optional<Pairs.Two> perhaps) {
        double[] prior = now.suspects();
        double two = perhaps.map(Pairs.Two::share).orElse(0.0);
        double[] ofTwo = perhaps.map(t -> chances(outcomes, t)).orElse(new double[0]);
        double bits = 0;
        double naming = 0;
        for (int o = 0; o < outcomes.size(); o++) {
            double[] each = hypotheses.bySuspect(now.weights(), outcomes.get(o), now.at());
            double one = Arrays.stream(each).sum();
            double both = two > 0 ? two * ofTwo[o] : 0;
            double p = (1 - two) * one + both;
            if (p < NEVER) {
                continue;
            }
            double surest = 0;
            if (both > 0) {
                bits += both * Math.log(ofTwo[o] / p) / Math.log(2);
            }
            for (int k = 0; k < each.length; k++) {
                double its = (1 - two) * each[k];
                double given = its / p;
                surest = Math.max(surest, given);
                if (given > NEVER) {
                    bits += its * Math.log(given / ((1 - two) * prior[k])) / Math.log(2);
                }
            }
            naming += surest >= Ranking.ACCUSED ? p : 0;
        }
        return new Telling(Math.max(0, bits), naming);
    }
}
