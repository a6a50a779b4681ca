package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

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

    /** Whether only a slip of whoever read it brings a piece, under a hypothesis. */
    interface Slip {
        boolean is(Evidence piece, int hypothesis);
    }

    /**
     * The look or reading that speaks against all of these, if one does. What a meter read before a
     * repair is of what was mended.
     *
     * @param named ids of the suspects that would be named
     * @param learned the newest of each kind, oldest first
     */
    static Optional<Evidence> of(
            List<String> named, List<Learned> learned, Hypotheses hypotheses, Slip slip) {
        int repaired = 0;
        for (int e = 0; e < learned.size(); e++) {
            repaired = learned.get(e).piece() instanceof Evidence.RepairFailed ? e : repaired;
        }
        int[] all = named.stream().flatMapToInt(hypotheses::of).toArray();
        for (int e = 0; e < learned.size(); e++) {
            Learned l = learned.get(e);
            boolean read = e >= repaired && l.piece() instanceof Evidence.Reading;
            if (l.piece() instanceof Evidence.Outcome
                            && Arrays.stream(all)
                                    .allMatch(i -> speaksAgainst(l.logs(), i, hypotheses))
                    || read && Arrays.stream(all).allMatch(i -> slip.is(l.piece(), i))) {
                return Optional.of(l.piece());
            }
        }
        return Optional.empty();
    }

    private static boolean speaksAgainst(double[] logs, int i, Hypotheses hypotheses) {
        double healthy = logs[hypotheses.healthy()];
        return logs[i] < healthy - FLATLY || logs[i] < UNEXPLAINED && healthy < UNEXPLAINED;
    }
}
