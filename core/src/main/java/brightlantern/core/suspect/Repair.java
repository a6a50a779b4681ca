package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * An offered repair; price in the workshop's currency.
 *
 * @param told whether nothing is mended by it: what was found is told to the customer, and there is
 *     nothing to prove
 * @param instead other ways to the same end, such as cleaning in the place of a new part
 */
public record Repair(
        String id,
        String name,
        double minutes,
        double price,
        String parts,
        String risk,
        boolean told,
        List<RepairWay> instead) {
    public Repair {
        instead = OrEmpty.list(instead);
    }

    /** The only way that is described. */
    public Repair(String id, String name, double minutes, double price, String parts, String risk) {
        this(id, name, minutes, price, parts, risk, false, List.of());
    }
}
