package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * What was found against what is about to be named. However well all else fits: where it was looked
 * at and looked sound, where something else was seen to be wrong, or where a meter read what it
 * does not let be, it is not named.
 */
final class Contradiction {
    /** A look speaks flatly against a suspect that makes it so much less likely; a logarithm. */
    private static final double FLATLY = 2;

    /** What is seen less often than this with it is not explained by it; a logarithm. */
    private static final double UNEXPLAINED = Math.log(0.1);

    private Contradiction() {}

    /** A size that has less than this of its suspect's weight is none of those that fit. */
    private static final double FITS = 0.05;

    /** Whether only a slip of whoever read it brings a piece, under a hypothesis. */
    interface Slip {
        boolean is(Evidence piece, int hypothesis);
    }

    /**
     * The look or reading that speaks against the first of these, when one speaks against each of
     * them. What a meter read before a repair is of what was mended.
     *
     * @param named ids of the suspects that would be named
     * @param weights of the hypotheses: of each suspect the sizes count that fit what is known
     * @param learned the newest of each kind, oldest first
     */
    static Optional<Evidence> of(
            List<String> named,
            double[] weights,
            List<Learned> learned,
            Hypotheses hypotheses,
            Slip slip) {
        int repaired = repaired(learned);
        Optional<Evidence> first = Optional.empty();
        for (String id : named) {
            double sum = hypotheses.of(id).mapToDouble(i -> weights[i]).sum();
            int[] its = hypotheses.of(id).filter(i -> weights[i] >= FITS * sum).toArray();
            Optional<Evidence> against = Optional.empty();
            for (int e = 0; e < learned.size() && against.isEmpty(); e++) {
                Learned l = learned.get(e);
                boolean read = e >= repaired && l.piece() instanceof Evidence.Reading;
                boolean looked = l.piece() instanceof Evidence.Outcome;
                if (looked
                                && Arrays.stream(its)
                                        .allMatch(i -> speaksAgainst(l.logs(), i, hypotheses))
                        || read && Arrays.stream(its).allMatch(i -> slip.is(l.piece(), i))) {
                    against = Optional.of(l.piece());
                }
            }
            if (against.isEmpty()) {
                return Optional.empty();
            }
            first = first.isPresent() ? first : against;
        }
        return first;
    }

    /** The reading that two at once do not let be, if one does. */
    static Optional<Evidence> ofTwo(List<Learned> learned, Predicate<Evidence> slip) {
        return learned.stream()
                .skip(repaired(learned))
                .map(Learned::piece)
                .filter(Evidence.Reading.class::isInstance)
                .filter(slip)
                .findFirst();
    }

    /** Place of the last repair. */
    private static int repaired(List<Learned> learned) {
        int repaired = 0;
        for (int e = 0; e < learned.size(); e++) {
            repaired = learned.get(e).piece() instanceof Evidence.RepairFailed ? e : repaired;
        }
        return repaired;
    }

    private static boolean speaksAgainst(double[] logs, int i, Hypotheses hypotheses) {
        double healthy = logs[hypotheses.healthy()];
        return logs[i] < healthy - FLATLY || logs[i] < UNEXPLAINED && healthy < UNEXPLAINED;
    }
}
