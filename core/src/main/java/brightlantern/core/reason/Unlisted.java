package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * What a cause would show that nobody listed. It stands among listed ones that fit what is known:
 * what has nothing to do with them has nothing to do with it, and shows what they foretell together
 * (their posterior predictive). What they do have to do with it touches as well: in a circuit it
 * makes the same consumers fail, so most of the time it shows what they foretell there too, and
 * else anything. Evidence that fits the listed ones does not exclude it, then, a look at something
 * that nobody suspects does neither, and evidence that fits none of them speaks for it.
 */
public final class Unlisted {
    /** How a piece of evidence, or a check, tells of it. */
    public enum Shows {
        /** What listed causes make fail or work, it does as well. */
        THE_LIKE,
        /** Where it touches what is looked at, anything. */
        ANYTHING,
        /** What its mechanism says, wherever that is. */
        ITS_OWN
    }

    /** Of what it touches in a circuit so much is not like what listed ones show, at first. */
    static final double UNLIKE = 0.4;

    /** That is worth so many pieces; what was seen since counts beside it. */
    private static final double WORTH = 4;

    /**
     * Pieces with what the unlisted cause makes of them.
     *
     * @param unlike share of what it touches that will not be like what listed ones show: one that
     *     has shown the like again and again goes on doing so (Beta-Bernoulli)
     */
    record Told(List<Learned> pieces, double unlike) {}

    /** A place that listed causes of so much weight touch, it touches half of the time. */
    private static final double HALF = 0.05;

    /** What is less likely does not move what a check tells. */
    private static final double EXCLUDED = 1e-12;

    /** A place that none of them touches, it touches so often. */
    private static final double ANYWHERE = 0.1;

    /** A cause under which a piece is so much likelier, or less likely, touches it; logarithm. */
    private static final double TOUCHED = 0.7;

    private final Hypotheses hypotheses;
    private final int unlisted;

    Unlisted(Hypotheses hypotheses) {
        this.hypotheses = hypotheses;
        this.unlisted = hypotheses.unlisted();
    }

    /**
     * The same pieces, with what the unlisted cause makes of them.
     *
     * @param shows how a piece tells of it
     * @param near the hypotheses that stand where a piece tells of, if anything says so
     */
    Told in(
            List<Learned> learned,
            Function<Evidence, Shows> shows,
            Function<Evidence, Optional<boolean[]>> near) {
        Posterior listed = new Posterior(hypotheses);
        List<Learned> changed = new ArrayList<>(learned);
        double alike = WORTH * (1 - UNLIKE);
        double unlike = WORTH * UNLIKE;
        // what is foretold depends on what is known before; the order of finding must not matter
        Comparator<Learned> alone =
                Comparator.comparing(l -> shows.apply(l.piece()) == Shows.THE_LIKE);
        List<Learned> sorted =
                learned.stream().sorted(alone.thenComparing(l -> l.piece().key())).toList();
        for (Learned l : sorted) {
            Shows its = shows.apply(l.piece());
            if (its != Shows.ITS_OWN) {
                double[] weights = listed.weights();
                // the faintest may decide where all others fail
                int[] at = possible(weights, 0);
                double[] chances = l.likelihoods();
                double like = its == Shows.ANYTHING ? 1 : unlike / (alike + unlike);
                double touched = touching(touched(l.logs(), weights));
                double fits = its(chances, weights, at, like * touched);
                double most =
                        near.apply(l.piece())
                                .map(
                                        n ->
                                                its(
                                                        chances,
                                                        weights,
                                                        at,
                                                        like * touching(sum(weights, n))))
                                .orElse(fits);
                // one of many that stand near: where a piece shows what listed ones foretell, one
                // that does not touch it, and where it does not, one that does (profile likelihood)
                changed.set(learned.indexOf(l), l.with(unlisted, Math.max(fits, most)));
                if (its == Shows.THE_LIKE) {
                    double odd = like * chances[unlisted];
                    double same = (1 - like) * its(chances, weights, at, 0);
                    double so = odd + same > 0 ? odd / (odd + same) : UNLIKE;
                    unlike += touched * so;
                    alike += touched * (1 - so);
                }
            }
            listed.learn(l.likelihoods());
        }
        return new Told(changed, unlike / (alike + unlike));
    }

    private static double sum(double[] weights, boolean[] those) {
        double sum = 0;
        for (int i = 0; i < weights.length; i++) {
            sum += those[i] ? weights[i] : 0;
        }
        return sum;
    }

    /** Weight of the listed causes that move a piece away from what a healthy vehicle shows. */
    private double touched(double[] logs, double[] weights) {
        double healthy = logs[hypotheses.healthy()];
        double sum = 0;
        for (int i = 0; i < logs.length; i++) {
            if (i != unlisted && Math.abs(logs[i] - healthy) > TOUCHED) {
                sum += weights[i];
            }
        }
        return sum;
    }

    /** How often it touches a place that listed causes of this weight touch. */
    private static double touching(double weight) {
        return (weight + HALF * ANYWHERE) / (weight + HALF);
    }

    /** What it makes of the outcomes of a check. */
    Outcomes in(Mechanism.Forecast forecast, Among among) {
        Outcomes outcomes = forecast.outcomes();
        if (forecast.unlisted() == Shows.ITS_OWN) {
            return outcomes;
        }
        double[] by = outcomes.byColumn(among.weights, among.at);
        double all = Arrays.stream(by).sum();
        double own =
                (forecast.unlisted() == Shows.ANYTHING ? 1 : among.unlike)
                        * touching(moved(outcomes, by));
        int column = outcomes.column(unlisted);
        double[] its = new double[outcomes.size()];
        for (int o = 0; o < its.length; o++) {
            double[] chance = outcomes.of(o);
            double sum = 0;
            for (int c = 0; c < by.length; c++) {
                sum += by[c] * chance[c];
            }
            its[o] = all > 0 ? (1 - own) * sum / all + own * chance[column] : chance[column];
        }
        return outcomes.with(unlisted, its);
    }

    /**
     * The listed ones among which it stands before a check.
     *
     * @param at those that are not as good as excluded
     * @param unlike see {@link Told}
     */
    record Among(double[] weights, int[] at, double unlike) {}

    Among among(double[] weights, double unlike) {
        return new Among(weights, possible(weights, EXCLUDED), unlike);
    }

    /** The listed ones that are likelier than this. */
    private int[] possible(double[] weights, double least) {
        int[] at = new int[weights.length];
        int many = 0;
        for (int i = 0; i < weights.length; i++) {
            if (i != unlisted && weights[i] > least) {
                at[many++] = i;
            }
        }
        return Arrays.copyOf(at, many);
    }

    /** The same weight, by how far they move what a check may come to (total variation). */
    private double moved(Outcomes outcomes, double[] by) {
        int healthy = outcomes.column(hypotheses.healthy());
        double sum = 0;
        for (int o = 0; o < outcomes.size(); o++) {
            double[] chance = outcomes.of(o);
            for (int c = 0; c < by.length; c++) {
                sum += by[c] * Math.abs(chance[c] - chance[healthy]) / 2;
            }
        }
        return sum;
    }

    private double its(double[] chances, double[] weights, int[] at, double own) {
        double sum = 0;
        double all = 0;
        for (int i : at) {
            sum += weights[i] * chances[i];
            all += weights[i];
        }
        return all > 0 ? (1 - own) * sum / all + own * chances[unlisted] : chances[unlisted];
    }
}
