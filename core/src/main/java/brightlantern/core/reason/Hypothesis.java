package brightlantern.core.reason;

import brightlantern.core.suspect.Suspect;
import java.util.Optional;

/**
 * A suspect at one size of its fault.
 *
 * @param size index among the sizes into which its mechanism spreads it; 0 for what has none
 * @param prior probability before anything was found
 * @param described the suspect; empty for the two that nobody described
 */
public record Hypothesis(String suspectId, int size, double prior, Optional<Suspect> described) {
    /** Id of the cause that nobody described. */
    public static final String SOMETHING_ELSE = "something-else";

    /** Id of a vehicle that is well. */
    public static final String NOTHING = "nothing-broken";

    /** Whether it is the cause that nobody described. */
    public boolean isUnknown() {
        return suspectId.equals(SOMETHING_ELSE);
    }

    /** Whether it is a vehicle that is well. */
    public boolean isNothing() {
        return suspectId.equals(NOTHING);
    }
}
