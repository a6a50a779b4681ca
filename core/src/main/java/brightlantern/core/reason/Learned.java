package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.Arrays;

/**
 * A piece of evidence that was learned.
 *
 * @param logs natural logarithm of its likelihood under each hypothesis
 * @param likelihoods the same, not as logarithms: they are asked for again and again
 */
record Learned(Evidence piece, double[] logs, double[] likelihoods) {
    Learned(Evidence piece, double[] logs) {
        this(piece, logs, Arrays.stream(logs).map(Math::exp).toArray());
    }

    /** The same with another likelihood under one hypothesis. */
    Learned with(int hypothesis, double likelihood) {
        double[] others = likelihoods.clone();
        others[hypothesis] = likelihood;
        double[] theirs = logs.clone();
        theirs[hypothesis] = Math.log(likelihood);
        return new Learned(piece, theirs, others);
    }

    /**
     * Its log-likelihood under a fault that has nothing to do with it: as with a vehicle that is
     * well, but for complaints. People tell of vehicles that are well, too; beside a fault they
     * hardly tell of anything else.
     *
     * @param healthy place of the vehicle that is well
     */
    double aside(int healthy) {
        return piece instanceof Evidence.SymptomTold
                ? Arrays.stream(logs).min().orElseThrow()
                : logs[healthy];
    }
}
