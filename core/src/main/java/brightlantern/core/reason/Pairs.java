package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * Two faults at once, and one that is left beside one that was mended. Of two faults the one that
 * moves a piece of evidence further away from what a healthy vehicle shows decides it, whatever the
 * mechanism; what was found after a repair is the other's alone.
 */
final class Pairs {
    /** Of so many jobs two parts are broken. */
    static final double TWO = 0.03;

    /** So much the second must add to what the first explains, as a logarithm. */
    static final double NEEDED = 1;

    /** Of a repair that has mended all there was it is said so often that it did not help. */
    private static final double HELPED_ALL_THE_SAME = 0.05;

    /** So much less likely than under a healthy vehicle, as a logarithm. */
    private static final double CONTRADICTS = 2;

    /** So many hypotheses are tried as the first of two, and of one suspect so many sizes. */
    private static final int FIRSTS = 60;

    private static final int SIZES = 4;

    /** So many of the likeliest two are computed with both at once. */
    private static final int SOLVED = 240;

    /** Two that are so much less likely than the likeliest, as a logarithm, decide nothing. */
    private static final double FAINT = 6;

    /** What differs by less than one part of so many is alike. */
    private static final double ALIKE = 1e6;

    /** So many are tried as the second. */
    private static final int SECONDS = 300;

    /**
     * What is known of two faults.
     *
     * @param share probability that it is two
     * @param both probability that it is two of which neither was mended yet
     * @param broken by suspect, probability that it is one of the two; the mended does not count
     * @param first place of the likelier hypothesis of the likeliest two
     * @param isMended whether the first was mended already
     * @param second probability of each hypothesis beside the first; that nothing is, where the
     *     first was mended
     */
    record Two(
            double share,
            double both,
            double[] broken,
            int first,
            boolean isMended,
            double[] second) {
        /** Place of the likeliest hypothesis beside the first. */
        int likeliestSecond() {
            int best = 0;
            for (int i = 1; i < second.length; i++) {
                best = second[i] > second[best] ? i : best;
            }
            return best;
        }
    }

    private final Hypotheses hypotheses;
    private final List<Learned> learned;
    private final int nothing;
    private final double[] priors;
    private final double described;

    /** Place of the repair of each hypothesis' suspect among what was learned; −1 without one. */
    private final int[] mendedAt;

    /** By hypothesis and piece. */
    private final double[][] logs;

    /** By piece, what a fault makes of it that has nothing to do with it. */
    private final double[] aside;

    /** By piece, what two hypotheses make of it together; null where that is not known. */
    private final Mechanism.Together[] together;

    /** By piece, whether two hypotheses may add up in it. */
    private final boolean[] addsUp;

    private Pairs(
            Hypotheses hypotheses,
            List<Learned> learned,
            Function<Evidence, Optional<Mechanism.Together>> together) {
        this.together =
                learned.stream()
                        .map(l -> together.apply(l.piece()).orElse(null))
                        .toArray(Mechanism.Together[]::new);
        this.addsUp = new boolean[this.together.length];
        for (int e = 0; e < addsUp.length; e++) {
            addsUp[e] = this.together[e] != null && this.together[e].addsUp();
        }
        this.hypotheses = hypotheses;
        this.learned = learned;
        this.priors = hypotheses.priors();
        this.nothing = hypotheses.healthy();
        this.described = sum(priors, this::isDescribed);
        this.mendedAt = new int[priors.length];
        Arrays.fill(mendedAt, -1);
        for (int e = learned.size() - 1; e >= 0; e--) {
            if (learned.get(e).piece() instanceof Evidence.RepairFailed failed) {
                int at = e;
                hypotheses.of(failed.suspectId()).forEach(i -> mendedAt[i] = at);
            }
        }
        this.logs = new double[priors.length][learned.size()];
        for (int e = 0; e < learned.size(); e++) {
            for (int i = 0; i < priors.length; i++) {
                logs[i][e] = learned.get(e).logs()[i];
            }
        }
        this.aside = learned.stream().mapToDouble(l -> l.aside(nothing)).toArray();
    }

    /** What is known of two faults; nothing before there is something that they could share. */
    static Optional<Two> of(
            Hypotheses hypotheses,
            List<Learned> learned,
            Function<Evidence, Optional<Mechanism.Together>> together) {
        Pairs pairs = new Pairs(hypotheses, learned, together);
        return learned.size() < 2 || pairs.described <= 0 ? Optional.empty() : pairs.two();
    }

    private boolean isDescribed(int i) {
        return i != nothing && !isUnknown(i);
    }

    private boolean isUnknown(int i) {
        return hypotheses.get(i).isUnknown();
    }

    private boolean isMended(int i) {
        return mendedAt[i] >= 0;
    }

    private static double sum(double[] of, IntPredicate those) {
        return IntStream.range(0, of.length).filter(those).mapToDouble(i -> of[i]).sum();
    }

    private Optional<Two> two() {
        double[] gains = new double[hypotheses.size()];
        for (int i = 0; i < gains.length; i++) {
            gains[i] = isDescribed(i) ? gain(i) : Double.NEGATIVE_INFINITY;
        }
        List<Integer> best =
                IntStream.range(0, gains.length)
                        .filter(this::isDescribed)
                        .filter(i -> priors[i] > 0)
                        .boxed()
                        .sorted(Comparator.comparingDouble((Integer i) -> -gains[i]))
                        .toList();
        List<Integer> firsts = some(best, FIRSTS);
        List<Integer> seconds = new ArrayList<>(some(best, SECONDS));
        seconds.add(nothing);
        double[][] twos = new double[firsts.size()][seconds.size()];
        for (int a = 0; a < twos.length; a++) {
            for (int b = 0; b < seconds.size(); b++) {
                twos[a][b] = together(firsts.get(a), seconds.get(b), false);
            }
        }
        double top = solved(firsts, seconds, twos);
        return top == Double.NEGATIVE_INFINITY
                ? Optional.empty()
                : Optional.of(weighed(firsts, seconds, twos, top));
    }

    /**
     * What decides is computed with both at once: that one of them decides is a guess, by which two
     * may explain what they never show together.
     *
     * @param twos logarithms, which are replaced by better ones
     * @return the highest that is left
     */
    private double solved(List<Integer> firsts, List<Integer> seconds, double[][] twos) {
        boolean[][] done = new boolean[firsts.size()][seconds.size()];
        // the best of each row that was not computed yet; only the row that changes is looked at
        int[] best = new int[firsts.size()];
        for (int a = 0; a < best.length; a++) {
            best[a] = best(twos[a], done[a]);
        }
        double top = Double.NEGATIVE_INFINITY;
        for (int round = 0; round < SOLVED; round++) {
            int a = -1;
            double least = top - FAINT;
            for (int i = 0; i < best.length; i++) {
                if (best[i] >= 0 && twos[i][best[i]] > least) {
                    least = twos[i][best[i]];
                    a = i;
                }
            }
            if (a < 0) {
                return top;
            }
            int b = best[a];
            done[a][b] = true;
            twos[a][b] = together(firsts.get(a), seconds.get(b), true);
            top = Math.max(top, twos[a][b]);
            best[a] = best(twos[a], done[a]);
        }
        return Arrays.stream(twos).flatMapToDouble(Arrays::stream).max().orElse(top);
    }

    /** Place of the highest that is not done; -1 when none is. */
    private static int best(double[] row, boolean[] done) {
        int best = -1;
        for (int j = 0; j < row.length; j++) {
            if (!done[j] && (best < 0 || row[j] > row[best])) {
                best = j;
            }
        }
        return best;
    }

    /** How much of what was learned it explains better than a healthy vehicle does. */
    private double gain(int i) {
        double gain = Math.log(Math.max(priors[i], Double.MIN_NORMAL));
        int mended = mendedAt[i];
        for (int e = 0; e < learned.size(); e++) {
            if (mended < 0 || e < mended) {
                gain += Math.max(0, logs[i][e] - aside[e]);
            }
        }
        // alike ones come in the same order, in whichever order the pieces were added up
        return Math.rint(gain * ALIKE) / ALIKE;
    }

    /** The best of them, of one suspect not more than a few sizes. */
    private List<Integer> some(List<Integer> best, int most) {
        Map<String, Integer> sizes = new HashMap<>();
        return best.stream()
                .filter(i -> sizes.merge(hypotheses.get(i).suspectId(), 1, Integer::sum) <= SIZES)
                .limit(most)
                .toList();
    }

    /**
     * Logarithm of prior and likelihood of two. Of one suspect twice there is none, nor of two of
     * which one alone explains as much.
     *
     * @param solved whether what is measured in a circuit that has both is computed with both
     */
    private double together(int first, int second, boolean solved) {
        if (second == nothing) {
            return alone(first);
        }
        if (hypotheses.get(first).suspectId().equals(hypotheses.get(second).suspectId())
                || isMended(second)) {
            return Double.NEGATIVE_INFINITY;
        }
        int mended = mendedAt[first];
        double[] its = logs[first];
        double[] beside = logs[second];
        double both = 0;
        double one = 0;
        double other = 0;
        for (int e = 0; e < its.length; e++) {
            one += its[e];
            other += beside[e];
            both += mended < 0 || e < mended ? both(first, second, e, solved) : beside[e];
        }
        return both < Math.max(one, other) + NEEDED
                ? Double.NEGATIVE_INFINITY
                : both
                        + Math.log(TWO)
                        + Math.log(priors[first] / described)
                        + Math.log(priors[second] / described);
    }

    /** Logarithm of prior and likelihood of one that was mended, and was all there was. */
    private double alone(int first) {
        int mended = mendedAt[first];
        if (mended < 0) {
            return Double.NEGATIVE_INFINITY;
        }
        double sum = Math.log(priors[first]) + Math.log(HELPED_ALL_THE_SAME);
        for (int e = 0; e < aside.length; e++) {
            sum += e < mended ? logs[first][e] : logs[nothing][e];
        }
        return sum;
    }

    private double both(int first, int second, int e, boolean solved) {
        double its = logs[first][e];
        double beside = logs[second][e];
        Mechanism.Together both = together[e];
        // asked of every two: nearly always the one decides
        if (both == null || !solved && !addsUp[e]) {
            return decisive(its, beside, aside[e]);
        }
        OptionalDouble exact = solved ? both.solved(first, second) : OptionalDouble.empty();
        OptionalDouble log = exact.isPresent() ? exact : both.log(first, second);
        return log.isPresent() ? log.getAsDouble() : decisive(its, beside, aside[e]);
    }

    /** What contradicts one of them is not mended by the other. */
    static double decisive(double a, double b, double healthy) {
        double less = Math.min(a, b);
        double more = Math.max(a, b);
        if (less < healthy - CONTRADICTS) {
            return less;
        }
        return more > healthy ? more : less;
    }

    private Two weighed(List<Integer> firsts, List<Integer> seconds, double[][] twos, double top) {
        double[] singles = new double[hypotheses.size()];
        for (int i = 0; i < singles.length; i++) {
            singles[i] = Math.log(Math.max(priors[i], Double.MIN_NORMAL));
            for (double log : logs[i]) {
                singles[i] += log;
            }
        }
        double highest = Math.max(top, Arrays.stream(singles).max().orElse(top));
        double single = Arrays.stream(singles).map(l -> Math.exp(l - highest)).sum();
        double[] broken = new double[hypotheses.size()];
        double[] byFirst = new double[firsts.size()];
        double pairs = 0;
        double mended = 0;
        for (int a = 0; a < firsts.size(); a++) {
            for (int b = 0; b < seconds.size(); b++) {
                double w = Math.exp(twos[a][b] - highest);
                byFirst[a] += w;
                broken[seconds.get(b)] += w;
                if (isMended(firsts.get(a))) {
                    mended += w;
                } else {
                    broken[firsts.get(a)] += w;
                }
                pairs += w;
            }
        }
        int likeliest =
                IntStream.range(0, byFirst.length)
                        .boxed()
                        .max(Comparator.comparingDouble(a -> byFirst[a]))
                        .orElseThrow();
        double share = pairs / (pairs + single);
        double[] sure = hypotheses.bySuspect(broken);
        double all = pairs;
        return new Two(
                share,
                (pairs - mended) / (pairs + single),
                Arrays.stream(sure).map(w -> all > 0 ? Math.min(1, w / all) : 0).toArray(),
                firsts.get(likeliest),
                isMended(firsts.get(likeliest)),
                beside(seconds, twos[likeliest]));
    }

    /** Probability of each hypothesis as the second beside a first. */
    private double[] beside(List<Integer> seconds, double[] logs) {
        double[] second = new double[hypotheses.size()];
        double top = Arrays.stream(logs).max().orElseThrow();
        double all = 0;
        for (int b = 0; b < logs.length; b++) {
            second[seconds.get(b)] = Math.exp(logs[b] - top);
            all += second[seconds.get(b)];
        }
        for (int i = 0; i < second.length; i++) {
            second[i] /= all;
        }
        return second;
    }
}
