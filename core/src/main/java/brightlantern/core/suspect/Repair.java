package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * An offered repair; price in the workshop's currency.
 *
 * @param told whether nothing is mended by it: what was found is told to the customer, and there is
 *     nothing to prove
 * @param steps how it is done; empty where the description does not say
 * @param afterwards what must be learned or coded then
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
        List<RepairStep> steps,
        List<Afterwards> afterwards,
        List<RepairWay> instead) {
    public Repair {
        steps = OrEmpty.list(steps);
        afterwards = OrEmpty.list(afterwards);
        instead = OrEmpty.list(instead);
    }

    /** The only way that is described. */
    public Repair(String id, String name, double minutes, double price, String parts, String risk) {
        this(id, name, minutes, price, parts, risk, false, List.of(), List.of(), List.of());
    }

    /** The same, after which something must be learned or coded. */
    public Repair afterwards(Afterwards more) {
        return new Repair(
                id, name, minutes, price, parts, risk, told, steps, List.of(more), instead);
    }
}
