package brightlantern.core.study.trim;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * The fuel trims of one bank of cylinders.
 *
 * @param shortTerm and longTerm: values that hold them, percent
 * @param finding what the pattern over the regimes is told as
 * @param refuelled what filling up changed is told as; empty when it is not looked at
 * @param lean and rich: totals beyond which a mixture is off, percent
 * @param leastSeconds for how long a regime must be recorded
 * @param regimes idle first
 */
public record TrimSet(
        String id,
        String name,
        String shortTerm,
        String longTerm,
        String finding,
        String refuelled,
        double lean,
        double rich,
        double leastSeconds,
        List<Regime> regimes) {
    public TrimSet {
        refuelled = OrEmpty.text(refuelled);
        regimes = OrEmpty.list(regimes);
    }
}
