package brightlantern.core.reason;

import java.util.Map;
import java.util.Optional;

/**
 * What may still be broken after a repair.
 *
 * @param chance probability that something of what the job is about is, 0 … 1
 * @param likeliest name of what it would be most likely
 * @param tells by the key of what was shown since: how often it would be seen so with something
 *     still broken, as a share of how often with nothing broken; 1 for what shows nothing
 * @param telling the check that would tell most about what is left, if any would
 */
public record Remaining(
        double chance, String likeliest, Map<String, Double> tells, Optional<NextCheck> telling) {
    /** A repair counts as proven when less than this is left. */
    public static final double PROVEN = 0.02;

    public Remaining {
        tells = Map.copyOf(tells);
    }

    /** Whether so little is left that the repair counts as proven. */
    public boolean isLittle() {
        return chance < PROVEN;
    }
}
