package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import java.util.List;

/**
 * A check that may be done next.
 *
 * @param bits information about the suspects that it would bring, in bits
 * @param bitsPerMinute by all the minutes that it takes, the way to it among them
 * @param expectations what it should read under the leading suspects
 */
public record NextCheck(Check check, double bits, double bitsPerMinute, List<String> expectations) {
    public NextCheck {
        expectations = List.copyOf(expectations);
    }
}
