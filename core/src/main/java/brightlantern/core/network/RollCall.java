package brightlantern.core.network;

import java.util.Map;
import java.util.Set;

/**
 * What was heard of the network: answers to calls, and who complains of missing whom.
 *
 * @param calls module → how often it was asked and answered
 * @param read modules whose codes were read
 * @param misses complaints found among those codes
 */
public record RollCall(Map<String, Tally> calls, Set<String> read, Set<Miss> misses) {
    public RollCall {
        calls = Map.copyOf(calls);
        read = Set.copyOf(read);
        misses = Set.copyOf(misses);
    }

    /**
     * @throws IllegalArgumentException when there are more answers than questions
     */
    public record Tally(int asked, int answered) {
        public Tally {
            if (answered < 0 || answered > asked) {
                throw new IllegalArgumentException(
                        "Expected 0 to " + asked + " answers, found " + answered);
            }
        }

        /** Share of calls that were answered; NaN when none was made. */
        public double rate() {
            return asked == 0 ? Double.NaN : (double) answered / asked;
        }
    }

    /** The listener holds a code that says messages of the missing one stayed away. */
    public record Miss(String listener, String missing) {}
}
