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
 * @param cost minutes to a named cause if it comes first, on the mean, two checks ahead and with
 *     what a repair in vain costs; NaN where nobody looked that far
 * @param telling what it should read under the leading suspects; asked for the few that are shown
 */
public record NextCheck(
        Check check,
        double bits,
        double naming,
        double bitsPerMinute,
        double cost,
        Supplier<List<String>> telling) {
    /** One that is not looked at two steps ahead. */
    public NextCheck(
            Check check,
            double bits,
            double naming,
            double bitsPerMinute,
            Supplier<List<String>> telling) {
        this(check, bits, naming, bitsPerMinute, Double.NaN, telling);
    }

    NextCheck costing(double minutes) {
        return new NextCheck(check, bits, naming, bitsPerMinute, minutes, telling);
    }

    /** What it should read under the leading suspects. */
    public List<String> expectations() {
        return List.copyOf(telling.get());
    }
}
