package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.Predicate;

/**
 * What a cause would show that nobody listed. In a circuit it stands among others that are listed
 * and makes the same consumers fail, so most of the time it shows what those foretell together
 * (their posterior predictive), and else anything. Evidence that fits the listed ones does not
 * exclude it, then, and evidence that fits none of them speaks for it.
 */
final class Unlisted {
    /** So often it shows what the listed ones foretell together. */
    private static final double ALIKE = 0.7;

    private final Hypotheses hypotheses;
    private final int unlisted;

    Unlisted(Hypotheses hypotheses) {
        this.hypotheses = hypotheses;
        this.unlisted = hypotheses.unlisted();
    }

    /**
     * The same pieces, with what the unlisted cause makes of them.
     *
     * @param shared whether a piece tells of what listed causes would show as well
     */
    List<Learned> in(List<Learned> learned, Predicate<Evidence> shared) {
        Posterior listed = new Posterior(hypotheses);
        List<Learned> changed = new ArrayList<>(learned);
        // what is foretold depends on what is known before; the order of finding must not matter
        Comparator<Learned> alone = Comparator.comparing(l -> shared.test(l.piece()));
        learned.stream()
                .sorted(alone.thenComparing(l -> l.piece().key()))
                .forEach(
                        l -> {
                            if (shared.test(l.piece())) {
                                double[] logs = l.logs().clone();
                                logs[unlisted] = Math.log(its(exp(logs), listed.weights()));
                                changed.set(learned.indexOf(l), new Learned(l.piece(), logs));
                            }
                            listed.learn(l.logs());
                        });
        return changed;
    }

    private static double[] exp(double[] logs) {
        double[] chances = new double[logs.length];
        for (int i = 0; i < chances.length; i++) {
            chances[i] = Math.exp(logs[i]);
        }
        return chances;
    }

    /** What it makes of the outcomes of a check: an array over hypotheses for each outcome. */
    List<double[]> in(List<double[]> outcomes, double[] weights) {
        List<double[]> changed = new ArrayList<>();
        for (double[] chances : outcomes) {
            double[] all = chances.clone();
            all[unlisted] = its(chances, weights);
            changed.add(all);
        }
        return changed;
    }

    private double its(double[] chances, double[] weights) {
        double sum = 0;
        double all = 0;
        for (int i = 0; i < chances.length; i++) {
            if (i != unlisted) {
                sum += weights[i] * chances[i];
                all += weights[i];
            }
        }
        return all > 0 ? ALIKE * sum / all + (1 - ALIKE) * chances[unlisted] : chances[unlisted];
    }
}
