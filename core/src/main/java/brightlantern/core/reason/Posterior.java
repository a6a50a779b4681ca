package brightlantern.core.reason;

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
     * @param likelihoods of the piece under each hypothesis, up to a factor
     */
    void learn(double[] likelihoods) {
        double[] product = joint(likelihoods);
        double sum = sum(product);
        if (!(sum > 0)) {
            return;
        }
        for (int i = 0; i < product.length; i++) {
            product[i] /= sum;
        }
        weights = product;
    }

    private static double sum(double[] of) {
        double sum = 0;
        for (double one : of) {
            sum += one;
        }
        return sum;
    }

    private double[] joint(double[] likelihoods) {
        double[] joint = new double[weights.length];
        for (int i = 0; i < joint.length; i++) {
            joint[i] = weights[i] * likelihoods[i];
        }
        return joint;
    }

    /**
     * log10 of how much likelier a piece is under each suspect than under the others together, with
     * what is known before it.
     */
    double[] log10Odds(double[] likelihoods) {
        double[] weight = hypotheses.bySuspect(weights);
        double[] explained = hypotheses.bySuspect(joint(likelihoods));
        double all = sum(weight);
        double evidence = sum(explained);
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
