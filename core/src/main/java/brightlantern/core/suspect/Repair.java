package brightlantern.core.suspect;

/**
 * An offered repair; price in the workshop's currency.
 *
 * @param told whether nothing is mended by it: what was found is told to the customer, and there is
 *     nothing to prove
 */
public record Repair(
        String id,
        String name,
        double minutes,
        double price,
        String parts,
        String risk,
        boolean told) {}
