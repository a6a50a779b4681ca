package brightlantern.core.reason;

import java.util.List;

/**
 * Where a suspect stands.
 *
 * @param sureness 0..1
 * @param contributions of the findings that moved it
 * @param size best estimate of the size of its fault, with unit; empty when it has none
 */
public record Standing(
        String suspectId,
        String name,
        double sureness,
        List<Contribution> contributions,
        String size) {
    public Standing {
        contributions = List.copyOf(contributions);
    }

    /** Whether a description tells of it. */
    public boolean isDescribed() {
        return !suspectId.equals(Hypothesis.SOMETHING_ELSE)
                && !suspectId.equals(Hypothesis.NOTHING);
    }
}
