package brightlantern.core.reason;

import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.Function;
import java.util.stream.IntStream;

/**
 * Which check leads to a named cause at the least expected cost, seen two checks ahead: minutes,
 * with the money of a repair in vain told in minutes of work. What is still open after the second
 * check is taken to cost as much a bit as the best check does now (one-step lookahead twice, with
 * the entropy as an estimate of the cost to go).
 */
final class TwoSteps {
    /** So many of those that tell most for their minutes may come first, so many second. */
    private static final int FIRST = 8;

    private static final int SECOND = 12;

    /** A scale that is cut finer than this is put together again. */
    private static final int MOST_OUTCOMES = 8;

    /** A hypothesis fainter than this moves no plan. */
    private static final double FAINT = 1e-4;

    /**
     * Costs within this factor are the same: of two checks that are done one after the other the
     * one comes first that tells more for its minutes.
     */
    static final double ALIKE = 1.1;

    private static final double LOG_2 = Math.log(2);

    private final Hypotheses hypotheses;

    /**
     * By the places of suspects: what it costs to be wrong about it, in minutes; 0 for the one that
     * cannot be named.
     */
    private final double[] inVain;

    TwoSteps(Hypotheses hypotheses) {
        this.hypotheses = hypotheses;
        inVain = new double[hypotheses.suspects().size()];
        for (int i = 0; i < hypotheses.size(); i++) {
            inVain[hypotheses.suspectOf(i)] =
                    hypotheses
                            .get(i)
                            .described()
                            .map(Suspect::repair)
                            .map(TwoSteps::inVain)
                            .orElse(i == hypotheses.healthy() ? NextStep.MINUTES_IN_VAIN : 0);
        }
    }

    /** Minutes that a repair costs that mends nothing, with its money and its proof. */
    static double inVain(Repair repair) {
        return inMinutes(repair) + NextStep.MINUTES_IN_VAIN;
    }

    /** Minutes of a repair, with its money. */
    static double inMinutes(Repair repair) {
        return repair.minutes() + repair.price() / NextStep.PRICE_OF_A_MINUTE;
    }

    /** A check that may be done, over the hypotheses that are in question. */
    private record Step(NextCheck check, double minutes, double[][] outcomes) {}

    /**
     * What is in question.
     *
     * @param at places of the hypotheses
     * @param suspect place of the suspect of each, among those that are in question
     * @param weights of them, which sum to 1
     * @param inVain by suspect: what it costs to be wrong about it, in minutes; 0 for the one that
     *     cannot be named
     */
    private record Open(int[] at, int[] suspect, double[] weights, double[] inVain) {}

    /**
     * The same checks, those first that two steps ahead cost least.
     *
     * @param byRate the most telling for each minute first
     * @param outcomes of a check, as the planner weighs them
     */
    List<NextCheck> ordered(
            List<NextCheck> byRate, double[] weights, Function<NextCheck, Outcomes> outcomes) {
        List<NextCheck> worth =
                byRate.stream().filter(c -> c.bits() >= NextStep.LEAST_BITS).limit(SECOND).toList();
        if (worth.size() < 2) {
            return byRate;
        }
        Open open = open(weights);
        List<Step> steps =
                worth.stream()
                        .map(
                                c ->
                                        new Step(
                                                c,
                                                c.check().minutes() + CheckPlanner.MINUTES_ASIDE,
                                                pooled(outcomes.apply(c), open)))
                        .toList();
        Left left = new Left(open, 1 / worth.get(0).bitsPerMinute());
        List<NextCheck> first =
                steps.stream()
                        .limit(FIRST)
                        .map(s -> s.check().costing(cost(s, steps, left)))
                        .toList();
        double least = first.stream().mapToDouble(NextCheck::cost).min().orElseThrow();
        first =
                first.stream()
                        .sorted(
                                Comparator.comparing((NextCheck c) -> c.cost() > ALIKE * least)
                                        .thenComparing(
                                                Comparator.comparingDouble(NextCheck::bitsPerMinute)
                                                        .reversed()))
                        .toList();
        List<NextCheck> all = new ArrayList<>(first);
        all.addAll(byRate.subList(first.size(), byRate.size()));
        return all;
    }

    private Open open(double[] weights) {
        int[] at = IntStream.range(0, weights.length).filter(i -> weights[i] > FAINT).toArray();
        double all = Arrays.stream(at).mapToDouble(i -> weights[i]).sum();
        int[] suspect = Arrays.stream(at).map(hypotheses::suspectOf).toArray();
        int[] those = Arrays.stream(suspect).distinct().sorted().toArray();
        return new Open(
                at,
                Arrays.stream(suspect).map(k -> Arrays.binarySearch(those, k)).toArray(),
                Arrays.stream(at).mapToDouble(i -> weights[i] / all).toArray(),
                Arrays.stream(those).mapToDouble(k -> inVain[k]).toArray());
    }

    /** Outcomes over those in question; of a finely cut scale neighbours are put together. */
    private static double[][] pooled(Outcomes outcomes, Open open) {
        int each = (outcomes.size() + MOST_OUTCOMES - 1) / MOST_OUTCOMES;
        double[][] pooled = new double[(outcomes.size() + each - 1) / each][open.at().length];
        for (int o = 0; o < outcomes.size(); o++) {
            for (int i = 0; i < open.at().length; i++) {
                pooled[o / each][i] += outcomes.at(o, open.at()[i]);
            }
        }
        return pooled;
    }

    private static double cost(Step first, List<Step> steps, Left left) {
        double cost = first.minutes();
        for (double[] chance : first.outcomes()) {
            double[] weights = product(left.open().weights(), chance);
            double p = Arrays.stream(weights).sum();
            double best = left.after(weights);
            if (p > FAINT && !left.isNamed(weights)) {
                best =
                        steps.stream()
                                .filter(second -> second != first)
                                .mapToDouble(second -> then(second, weights, p, left))
                                .min()
                                .orElse(best);
            }
            cost += best;
        }
        return cost;
    }

    private static double then(Step second, double[] weights, double p, Left left) {
        double cost = p * second.minutes();
        for (double[] chance : second.outcomes()) {
            cost += left.after(product(weights, chance));
        }
        return cost;
    }

    private static double[] product(double[] one, double[] other) {
        double[] product = new double[one.length];
        for (int i = 0; i < product.length; i++) {
            product[i] = one[i] * other[i];
        }
        return product;
    }

    /** What is left to pay where no further check is looked at. */
    private record Left(Open open, double minutesABit) {
        /** Whether one cause can be named after what led here. */
        boolean isNamed(double[] joint) {
            double[] sums = sums(joint);
            return isNamed(sums, lead(sums), Arrays.stream(sums).sum());
        }

        /**
         * Expected minutes, times the probability of what led here: of the checks that what is open
         * still takes, or of a repair in vain where one is named and that costs less.
         *
         * @param joint probability of each hypothesis together with what led here
         */
        double after(double[] joint) {
            double[] sums = sums(joint);
            double p = Arrays.stream(sums).sum();
            if (p <= FAINT) {
                return 0;
            }
            double bits = 0;
            for (double sum : sums) {
                bits -= sum > 0 ? sum * Math.log(sum / p) / LOG_2 : 0;
            }
            int lead = lead(sums);
            double going = minutesABit * bits;
            return isNamed(sums, lead, p)
                    ? Math.min(going, (p - sums[lead]) * open.inVain()[lead])
                    : going;
        }

        private boolean isNamed(double[] sums, int lead, double p) {
            return sums[lead] >= Ranking.ACCUSED * p && open.inVain()[lead] > 0;
        }

        private double[] sums(double[] joint) {
            double[] sums = new double[open.inVain().length];
            for (int i = 0; i < joint.length; i++) {
                sums[open.suspect()[i]] += joint[i];
            }
            return sums;
        }

        private static int lead(double[] sums) {
            int lead = 0;
            for (int k = 1; k < sums.length; k++) {
                lead = sums[k] > sums[lead] ? k : lead;
            }
            return lead;
        }
    }
}
