package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * What is left after a repair. What was found before it is of the fault as it was; what was shown
 * since is of what is left: nothing, when the right part was repaired and repaired well; the same
 * fault, when it was not repaired well; another one, when the wrong part was repaired, or when two
 * were broken.
 */
final class AfterRepair {
    /** So many repairs that are entered leave the part as it was: not done, or not done well. */
    private static final double IN_VAIN = 0.2;

    /** What a cause has shown it shows again, when it is tried alike, so often at least. */
    private static final double AGAIN = 0.9;

    /** A complaint that was tried under its conditions, and is still there, is none so often. */
    private static final double IMAGINED = 0.01;

    /** A piece is more like a healthy vehicle's than an earlier one when so much likelier; log. */
    private static final double HEALTHIER = 1;

    private final Hypotheses hypotheses;
    private final List<Learned> before;
    private final List<double[]> after;
    private final List<Learned> shown;
    private final boolean[] repaired;
    private final int nothing;
    private final double described;

    /** Of each piece that was found before, what it is beside a fault that it does not concern. */
    private final double[] aside;

    /** Log-likelihood of all that was found before, under each hypothesis. */
    private final double[] explained;

    /**
     * @param before what was learned until the repair
     * @param shown what was learned since
     */
    AfterRepair(
            Hypotheses hypotheses, List<Learned> before, String repairedId, List<Learned> shown) {
        this.hypotheses = hypotheses;
        this.before = before;
        this.shown = shown;
        this.nothing = hypotheses.healthy();
        this.after = shown.stream().map(this::again).toList();
        this.repaired = new boolean[hypotheses.size()];
        double sum = 0;
        for (int i = 0; i < repaired.length; i++) {
            repaired[i] = hypotheses.get(i).suspectId().equals(repairedId);
            sum += i < hypotheses.unlisted() ? hypotheses.get(i).prior() : 0;
        }
        this.described = sum;
        this.aside = before.stream().mapToDouble(l -> l.aside(nothing)).toArray();
        this.explained = IntStream.range(0, repaired.length).mapToDouble(this::explained).toArray();
    }

    /**
     * Likelihoods of what was shown when its cause has shown itself in the same check before: it
     * would again, whatever such causes do on the mean.
     */
    private double[] again(Learned piece) {
        double[] logs = piece.logs().clone();
        if (piece.piece() instanceof Evidence.SymptomTold) {
            // whoever tries it under its conditions sees no complaint of a vehicle that is well
            double most = Arrays.stream(logs).max().orElseThrow();
            logs[nothing] = Math.min(logs[nothing], most + Math.log(IMAGINED));
        }
        Optional<Learned> earlier =
                before.stream()
                        .filter(l -> l.piece().key().equals(piece.piece().key()))
                        .reduce((older, newer) -> newer);
        if (earlier.isPresent() && logs[nothing] - earlier.get().logs()[nothing] > HEALTHIER) {
            double passes = Math.log(1 - AGAIN) + logs[nothing];
            for (int i = 0; i < logs.length; i++) {
                logs[i] = i == nothing ? logs[i] : Math.min(logs[i], passes);
            }
        }
        return logs;
    }

    /** Probability of each hypothesis as what is left; healthy is that nothing is. */
    double[] weights() {
        return weighed(true);
    }

    private double[] weighed(boolean withShown) {
        int n = hypotheses.size();
        double[] logs = new double[n];
        double[] mended = new double[n];
        Arrays.fill(mended, Double.NEGATIVE_INFINITY);
        for (int i = 0; i < n; i++) {
            double found = Math.log(Math.max(hypotheses.get(i).prior(), Double.MIN_NORMAL));
            found += explained[i];
            logs[i] = found + (withShown ? shownUnder(i, true) : 0);
            if (repaired[i]) {
                logs[i] += Math.log(IN_VAIN);
                mended[i] =
                        found + Math.log(1 - IN_VAIN) + (withShown ? shownUnder(nothing, true) : 0);
            }
        }
        double[] second = secondOfTwo(withShown);
        double top =
                IntStream.range(0, n)
                        .mapToDouble(i -> Math.max(logs[i], Math.max(mended[i], second[i])))
                        .max()
                        .orElseThrow();
        double[] weights = new double[n];
        for (int i = 0; i < n; i++) {
            weights[i] += Math.exp(logs[i] - top) + Math.exp(second[i] - top);
            weights[nothing] += Math.exp(mended[i] - top);
        }
        double sum = Arrays.stream(weights).sum();
        return Arrays.stream(weights).map(w -> w / sum).toArray();
    }

    private double shownUnder(int i, boolean itself) {
        double sum = 0;
        for (int e = 0; e < shown.size(); e++) {
            sum += itself ? after.get(e)[i] : shown.get(e).logs()[i];
        }
        return sum;
    }

    /**
     * Log-likelihood of all that was found before, with this fault alone or beside one that an
     * earlier repair has mended.
     */
    private double explained(int i) {
        double alone = 0;
        double besideMended = Double.NEGATIVE_INFINITY;
        for (int e = 0; e < before.size(); e++) {
            alone += before.get(e).logs()[i];
            if (before.get(e).piece() instanceof Evidence.RepairFailed failed) {
                besideMended = Math.max(besideMended, withMended(failed.suspectId(), e, i));
            }
        }
        return Math.max(alone, besideMended);
    }

    /** With the best of the hypotheses of a suspect that was mended at a place. */
    private double withMended(String mendedId, int mendedAt, int i) {
        double best = Double.NEGATIVE_INFINITY;
        for (int m : hypotheses.of(mendedId).filter(m -> m != i).toArray()) {
            double both = Math.log(Pairs.TWO * share(m));
            for (int e = 0; e < before.size(); e++) {
                double[] logs = before.get(e).logs();
                both +=
                        e < mendedAt
                                ? Pairs.decisive(logs[m], logs[i], aside[e])
                                : e == mendedAt ? 0 : logs[i];
            }
            best = Math.max(best, both);
        }
        return best;
    }

    private double share(int i) {
        return Math.max(hypotheses.get(i).prior() / described, Double.MIN_NORMAL);
    }

    /** Of two that were broken this one is left, where it explains what the other does not. */
    private double[] secondOfTwo(boolean withShown) {
        double[] left = new double[hypotheses.size()];
        Arrays.fill(left, Double.NEGATIVE_INFINITY);
        int first =
                IntStream.range(0, left.length)
                        .filter(i -> repaired[i])
                        .boxed()
                        .max((a, b) -> Double.compare(explained[a], explained[b]))
                        .orElse(-1);
        for (int i = 0; first >= 0 && i < hypotheses.unlisted(); i++) {
            if (repaired[i]) {
                continue;
            }
            double both = 0;
            double one = 0;
            double other = 0;
            for (int e = 0; e < aside.length; e++) {
                double[] logs = before.get(e).logs();
                one += logs[first];
                other += logs[i];
                both += Pairs.decisive(logs[first], logs[i], aside[e]);
            }
            if (both >= Math.max(one, other) + Pairs.NEEDED) {
                left[i] =
                        both
                                + Math.log(Pairs.TWO * share(first))
                                + Math.log(share(i))
                                + (withShown ? shownUnder(i, false) : 0);
            }
        }
        return left;
    }

    /** By key: how much less often it is seen with something left than with nothing left. */
    Map<String, Double> tells() {
        double[] left = weighed(false);
        left[nothing] = 0;
        double sum = Arrays.stream(left).sum();
        Map<String, Double> tells = new HashMap<>();
        for (int e = 0; e < shown.size(); e++) {
            double seen = 0;
            for (int i = 0; i < left.length; i++) {
                seen += left[i] * Math.exp(after.get(e)[i] - after.get(e)[nothing]);
            }
            tells.put(shown.get(e).piece().key(), sum > 0 ? seen / sum : 1);
        }
        return tells;
    }
}
