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

    private static final double LOG_2 = Math.log(2);

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
        UnaryOperator<Outcomes> seen =
                beside.filter(t -> !t.isMended())
                        .<UnaryOperator<Outcomes>>map(
                                t -> o -> o.beside(t.first(), hypotheses.healthy()))
                        .orElse(UnaryOperator.identity());
        Unlisted.Among among = unlisted.among(weights, told.unlike());
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
        Map<String, Supplier<Outcomes>> outcomes = new HashMap<>();
        for (Mechanism mechanism : mechanisms) {
            for (Check check : mechanism.checks(known)) {
                if (!done.contains(check.key()) || mechanism.mayRepeat(check)) {
                    Supplier<Optional<Mechanism.Forecast>> forecast =
                            () -> mechanism.forecast(check, hypotheses, weights, supplyVolts);
                    Function<Mechanism.Forecast, Outcomes> of =
                            f -> seen.apply(unlisted.in(f, among));
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
            Outcomes outcomes,
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

    /** Probability of each outcome with two faults, whatever stands beside the first. */
    private double[] chances(Outcomes outcomes, Pairs.Two two) {
        Outcomes seen =
                two.isMended() ? outcomes : outcomes.beside(two.first(), hypotheses.healthy());
        double[] by = seen.byColumn(two.second());
        double all = Arrays.stream(by).sum();
        double[] chances = new double[seen.size()];
        for (int o = 0; o < chances.length; o++) {
            double[] chance = seen.of(o);
            for (int c = 0; c < by.length; c++) {
                chances[o] += all > 0 ? by[c] * chance[c] / all : 0;
            }
        }
        return chances;
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
     */
    private record Now(double[] weights, int[] at) {}

    private Now now(double[] weights) {
        return new Now(
                weights,
                IntStream.range(0, weights.length).filter(i -> weights[i] > NEVER).toArray());
    }

    /**
     * @param perhaps two faults, which are less likely than one: whether it is them is to be told
     *     too
     */
    private Telling telling(Outcomes outcomes, Now now, Optional<Pairs.Two> perhaps) {
        double two = perhaps.map(Pairs.Two::share).orElse(0.0);
        double[] ofTwo = perhaps.map(t -> chances(outcomes, t)).orElse(new double[0]);
        Grouped grouped = Grouped.of(outcomes, now, hypotheses);
        double bits = 0;
        double naming = 0;
        for (int o = 0; o < outcomes.size(); o++) {
            double[] chance = outcomes.of(o);
            double[] several = grouped.several(chance);
            double one = grouped.all(chance) + Arrays.stream(several).sum();
            double both = two > 0 ? two * ofTwo[o] : 0;
            double p = (1 - two) * one + both;
            if (p < NEVER) {
                continue;
            }
            if (both > 0) {
                bits += both * Math.log(ofTwo[o] / p) / LOG_2;
            }
            double surest = 0;
            for (int c = 0; c < chance.length; c++) {
                surest = Math.max(surest, (1 - two) * grouped.most[c] * chance[c] / p);
                double its = (1 - two) * grouped.single[c] * chance[c];
                if (its > NEVER * p) {
                    bits += its * Math.log(chance[c] / p) / LOG_2;
                }
            }
            for (int s = 0; s < several.length; s++) {
                double its = (1 - two) * several[s];
                double given = its / p;
                surest = Math.max(surest, given);
                if (given > NEVER) {
                    bits += its * Math.log(given / ((1 - two) * grouped.prior[s])) / LOG_2;
                }
            }
            naming += surest >= Ranking.ACCUSED ? p : 0;
        }
        return new Telling(Math.max(0, bits), naming);
    }

    /**
     * Suspects by what they foretell. Of those all of whose sizes stand in one column an outcome
     * says the same: they are taken together.
     *
     * @param single weight of those by column
     * @param most the heaviest of them, by column
     * @param prior of the suspects that stand in several
     * @param parts of these: place in {@code prior}, column and weight, in three arrays
     */
    private record Grouped(
            double[] single,
            double[] most,
            double[] prior,
            int[] suspect,
            int[] column,
            double[] weight) {
        static Grouped of(Outcomes outcomes, Now now, Hypotheses hypotheses) {
            int[] at = now.at();
            int[] suspect = new int[at.length];
            int[] column = new int[at.length];
            double[] weight = new double[at.length];
            double[] single = new double[outcomes.columns()];
            double[] most = new double[outcomes.columns()];
            double[] prior = new double[at.length];
            int parts = 0;
            int several = 0;
            for (int from = 0, to; from < at.length; from = to) {
                int k = hypotheses.suspectOf(at[from]);
                int first = outcomes.column(at[from]);
                boolean alike = true;
                double sum = 0;
                for (to = from; to < at.length && hypotheses.suspectOf(at[to]) == k; to++) {
                    alike &= outcomes.column(at[to]) == first;
                    sum += now.weights()[at[to]];
                }
                if (alike) {
                    single[first] += sum;
                    most[first] = Math.max(most[first], sum);
                    continue;
                }
                for (int i = from; i < to; i++) {
                    suspect[parts] = several;
                    column[parts] = outcomes.column(at[i]);
                    weight[parts++] = now.weights()[at[i]];
                }
                prior[several++] = sum;
            }
            return new Grouped(
                    single,
                    most,
                    Arrays.copyOf(prior, several),
                    Arrays.copyOf(suspect, parts),
                    column,
                    weight);
        }

        /** Probability of an outcome together with one of those that stand in one column. */
        double all(double[] chance) {
            double sum = 0;
            for (int c = 0; c < chance.length; c++) {
                sum += single[c] * chance[c];
            }
            return sum;
        }

        /** The same of each of the others. */
        double[] several(double[] chance) {
            double[] sums = new double[prior.length];
            for (int i = 0; i < suspect.length; i++) {
                sums[suspect[i]] += weight[i] * chance[column[i]];
            }
            return sums;
        }
    }
}
