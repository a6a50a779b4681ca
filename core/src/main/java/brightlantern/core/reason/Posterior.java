package brightlantern.core.reason;

import java.util.Arrays;

/** Probabilities of hypotheses by Bayes' rule, one piece of evidence after the other. */
final class Posterior {
    /** What is less likely than this counts as this, so that a ratio stays a number. */
    private static final double NEVER = 1e-12;

    private final Hypotheses hypotheses;
    private double[] weights;

    Posterior(Hypotheses hypotheses) {
        this.hypotheses = hypotheses;
        this.weights = hypotheses.priors();
    }

    /** Probability of each hypothesis; sums to 1 once something was learned. */
    double[] weights() {
        return weights.clone();
    }

    /**
     * Learns a piece. Evidence that nothing explains leaves all as it was rather than undefined.
     *
     * @param logLikelihoods of the piece under each hypothesis, up to a constant
     */
    void learn(double[] logLikelihoods) {
        double[] product = joint(logLikelihoods);
        double sum = Arrays.stream(product).sum();
        if (!(sum > 0)) {
            return;
        }
        for (int i = 0; i < product.length; i++) {
            product[i] /= sum;
        }
        weights = product;
    }

    private double[] joint(double[] logLikelihoods) {
        double[] joint = new double[weights.length];
        for (int i = 0; i < joint.length; i++) {
            joint[i] = weights[i] * Math.exp(logLikelihoods[i]);
        }
        return joint;
    }

    /**
     * log10 of how much likelier a piece is under each suspect than under the others together, with
     * what is known before it.
     */
    double[] log10Odds(double[] logLikelihoods) {
        double[] weight = hypotheses.bySuspect(weights);
        double[] explained = hypotheses.bySuspect(joint(logLikelihoods));
        double all = Arrays.stream(weight).sum();
        double evidence = Arrays.stream(explained).sum();
        double[] odds = new double[weight.length];
        for (int k = 0; k < odds.length; k++) {
            double under = weight[k] > 0 ? explained[k] / weight[k] : 0;
            double rest = all - weight[k];
            double others = rest > 0 ? (evidence - explained[k]) / rest : 0;
            odds[k] = Math.log10(Math.max(under, NEVER) / Math.max(others, NEVER));
        }
        return odds;
    }
}
