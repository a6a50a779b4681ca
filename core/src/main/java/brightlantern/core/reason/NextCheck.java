package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import java.util.List;
import java.util.function.Supplier;

/**
 * A check that may be done next.
 *
 * @param bits information about the suspects that it would bring, in bits
 * @param naming how likely one cause, or none, stands at {@link Ranking#ACCUSED} after it
 * @param bitsPerMinute by all the minutes that it takes, the way to it among them
 * @param telling what it should read under the leading suspects; asked for the few that are shown
 */
public record NextCheck(
        Check check,
        double bits,
        double naming,
        double bitsPerMinute,
        Supplier<List<String>> telling) {
    /** What it should read under the leading suspects. */
    public List<String> expectations() {
        return List.copyOf(telling.get());
    }
}
