package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** Which check tells most about the suspects for each minute. */
final class CheckPlanner {
    private static final double NEVER = 1e-12;

    private final Hypotheses hypotheses;
    private final List<Mechanism> mechanisms;

    CheckPlanner(Hypotheses hypotheses, List<Mechanism> mechanisms) {
        this.hypotheses = hypotheses;
        this.mechanisms = mechanisms;
    }

    /**
     * Checks not yet done, the most telling for each minute first.
     *
     * @param known the newest evidence of each kind
     * @param weights of the hypotheses by it
     */
    List<NextCheck> next(List<Evidence> known, double[] weights, double supplyVolts) {
        Set<String> done = known.stream().map(Evidence::key).collect(Collectors.toSet());
        List<NextCheck> next = new ArrayList<>();
        for (Mechanism mechanism : mechanisms) {
            for (Check check : mechanism.checks(known)) {
                if (!done.contains(check.key()) || mechanism.mayRepeat(check)) {
                    mechanism
                            .forecast(check, hypotheses, weights, supplyVolts)
                            .map(f -> weighed(check, f, weights))
                            .ifPresent(next::add);
                }
            }
        }
        next.sort(Comparator.comparingDouble(NextCheck::bitsPerMinute).reversed());
        return next;
    }

    private NextCheck weighed(Check check, Mechanism.Forecast forecast, double[] weights) {
        double bits = information(forecast.outcomes(), weights);
        return new NextCheck(check, bits, bits / check.minutes(), forecast.expectations());
    }

    /** Mutual information between suspect and outcome of a check, in bits (Shannon 1948). */
    private double information(List<double[]> outcomes, double[] weights) {
        double[] prior = hypotheses.bySuspect(weights);
        double[] joint = new double[weights.length];
        double bits = 0;
        for (double[] chance : outcomes) {
            for (int i = 0; i < joint.length; i++) {
                joint[i] = weights[i] * chance[i];
            }
            double[] each = hypotheses.bySuspect(joint);
            double p = Arrays.stream(each).sum();
            if (p < NEVER) {
                continue;
            }
            for (int k = 0; k < each.length; k++) {
                double given = each[k] / p;
                if (given > NEVER) {
                    bits += each[k] * Math.log(given / prior[k]) / Math.log(2);
                }
            }
        }
        return Math.max(0, bits);
    }
}
