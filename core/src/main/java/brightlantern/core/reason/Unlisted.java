package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
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
        THE_LIKE(0.3),
        /** Where it touches what is looked at, anything. */
        ANYTHING(1),
        /** What its mechanism says, wherever that is. */
        ITS_OWN(1);

        private final double own;

        Shows(double own) {
            this.own = own;
        }
    }

    /** A place that listed causes of so much weight touch, it touches half of the time. */
    private static final double HALF = 0.05;

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
    List<Learned> in(
            List<Learned> learned,
            Function<Evidence, Shows> shows,
            Function<Evidence, Optional<boolean[]>> near) {
        Posterior listed = new Posterior(hypotheses);
        List<Learned> changed = new ArrayList<>(learned);
        // what is foretold depends on what is known before; the order of finding must not matter
        Comparator<Learned> alone =
                Comparator.comparing(l -> shows.apply(l.piece()) == Shows.THE_LIKE);
        learned.stream()
                .sorted(alone.thenComparing(l -> l.piece().key()))
                .forEach(
                        l -> {
                            Shows its = shows.apply(l.piece());
                            if (its != Shows.ITS_OWN) {
                                double[] logs = l.logs().clone();
                                logs[unlisted] =
                                        Math.log(
                                                most(
                                                        logs,
                                                        listed.weights(),
                                                        its,
                                                        near.apply(l.piece())));
                                changed.set(learned.indexOf(l), new Learned(l.piece(), logs));
                            }
                            listed.learn(l.logs());
                        });
        return changed;
    }

    /**
     * It is one of many that stand near: where a piece shows what listed ones foretell, one that
     * does not touch it, and where it does not, one that does (profile likelihood).
     */
    private double most(double[] logs, double[] weights, Shows shows, Optional<boolean[]> near) {
        double[] chances = exp(logs);
        double touching = its(chances, weights, own(shows, touched(logs, weights)));
        return near.map(n -> its(chances, weights, own(shows, sum(weights, n))))
                .map(standing -> Math.max(touching, standing))
                .orElse(touching);
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

    private static double own(Shows shows, double touched) {
        return shows.own * (touched + HALF * ANYWHERE) / (touched + HALF);
    }

    private static double[] exp(double[] logs) {
        double[] chances = new double[logs.length];
        for (int i = 0; i < chances.length; i++) {
            chances[i] = Math.exp(logs[i]);
        }
        return chances;
    }

    /** What it makes of the outcomes of a check: an array over hypotheses for each outcome. */
    List<double[]> in(Mechanism.Forecast forecast, double[] weights) {
        List<double[]> outcomes = forecast.outcomes();
        if (forecast.unlisted() == Shows.ITS_OWN) {
            return outcomes;
        }
        double own = own(forecast.unlisted(), moved(outcomes, weights));
        List<double[]> changed = new ArrayList<>();
        for (double[] chances : outcomes) {
            double[] all = chances.clone();
            all[unlisted] = its(chances, weights, own);
            changed.add(all);
        }
        return changed;
    }

    /** The same weight, by how far they move what a check may come to (total variation). */
    private double moved(List<double[]> outcomes, double[] weights) {
        int healthy = hypotheses.healthy();
        double sum = 0;
        for (double[] chances : outcomes) {
            for (int i = 0; i < chances.length; i++) {
                if (i != unlisted) {
                    sum += weights[i] * Math.abs(chances[i] - chances[healthy]) / 2;
                }
            }
        }
        return sum;
    }

    private double its(double[] chances, double[] weights, double own) {
        double sum = 0;
        double all = 0;
        for (int i = 0; i < chances.length; i++) {
            if (i != unlisted) {
                sum += weights[i] * chances[i];
                all += weights[i];
            }
        }
        return all > 0 ? (1 - own) * sum / all + own * chances[unlisted] : chances[unlisted];
    }
}
