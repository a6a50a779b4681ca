package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.List;
import java.util.Optional;

/**
 * What somebody saw against what is about to be named. However well the readings fit: where it was
 * looked at and looked sound, or where something else was seen to be wrong, it is not named.
 */
final class Contradiction {
    /** A look speaks flatly against a suspect that makes it so much less likely; a logarithm. */
    private static final double FLATLY = 2;

    /** What is seen less often than this with it is not explained by it; a logarithm. */
    private static final double UNEXPLAINED = Math.log(0.1);

    private Contradiction() {}

    /**
     * The look that speaks against all of these, if one does.
     *
     * @param named ids of the suspects that would be named
     * @param learned the newest of each kind
     */
    static Optional<Evidence> of(List<String> named, List<Learned> learned, Hypotheses hypotheses) {
        return learned.stream()
                .filter(l -> l.piece() instanceof Evidence.Outcome)
                .filter(
                        l ->
                                named.stream()
                                        .flatMap(id -> hypotheses.of(id).boxed())
                                        .allMatch(i -> speaksAgainst(l.logs(), i, hypotheses)))
                .map(Learned::piece)
                .findFirst();
    }

    private static boolean speaksAgainst(double[] logs, int i, Hypotheses hypotheses) {
        double healthy = logs[hypotheses.healthy()];
        return logs[i] < healthy - FLATLY || logs[i] < UNEXPLAINED && healthy < UNEXPLAINED;
    }
}
