package brightlantern.core.code;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * @param weight 0..1, how much this code can have to do with a complaint
 * @param family codes of one family belong together
 * @param sets supply when a low supply explains it, condition when it only means that a test's
 *     conditions were not met, network when it follows from missing messages; empty otherwise
 * @param misses the module whose messages stayed away; empty otherwise
 * @param brings codes that this one brings along
 * @param about the value whose sensor or reference it speaks of; empty for none
 * @param uses values on which its test relies
 */
public record Code(
        String code,
        String module,
        String name,
        double weight,
        String family,
        String why,
        String sets,
        String misses,
        List<String> brings,
        String about,
        List<String> uses) {
    public Code {
        family = OrEmpty.text(family);
        why = OrEmpty.text(why);
        sets = OrEmpty.text(sets);
        misses = OrEmpty.text(misses);
        about = OrEmpty.text(about);
        brings = OrEmpty.list(brings);
        uses = OrEmpty.list(uses);
    }

    /** The same, set when the messages of that module stay away. */
    Code missing(String otherModule) {
        return new Code(
                code, module, name, weight, family, why, sets, otherModule, brings, about, uses);
    }
}
