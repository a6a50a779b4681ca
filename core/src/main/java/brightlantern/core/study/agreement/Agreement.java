package brightlantern.core.study.agreement;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.Units;
import java.util.List;

/**
 * Two values that must agree while the conditions hold.
 *
 * @param within largest difference, in the unit in which {@code a} is shown
 * @param agrees and differs: outcomes of the finding
 */
public record Agreement(
        String id,
        String name,
        String finding,
        String a,
        String b,
        double within,
        List<Condition> when,
        String agrees,
        String differs) {
    public Agreement {
        when = OrEmpty.list(when);
    }

    /** The same with its limit in another unit; as it is when there is none to turn it into. */
    public Agreement in(String from, String to) {
        return to == null
                ? this
                : new Agreement(
                        id,
                        name,
                        finding,
                        a,
                        b,
                        Units.convertDifference(within, from, to),
                        when,
                        agrees,
                        differs);
    }
}
