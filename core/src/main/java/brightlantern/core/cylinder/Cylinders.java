package brightlantern.core.cylinder;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Condition;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The cylinders of the engine, and how much each contributes.
 *
 * @param order in which they fire
 * @param banks cylinder → bank; empty with one bank
 * @param deviation and misfires: beginnings of the ids of a cylinder's values, its number follows
 * @param roughness value that tells how much the crank shakes; empty for none
 * @param finding what is found is told as; empty when it is not
 * @param weak speed that the weak one lacks at least, rpm (below zero)
 * @param scatter of the cylinders of a healthy engine, rpm (one standard deviation)
 * @param turnedBy what turns it to start; empty for a starter with a cable that a clamp fits round
 * @param soundTo engine speed above which the deviation says nothing, rpm
 * @param ratio of compression, largest volume to smallest; 0 where that is not described
 * @param wheel by which its module knows where it stands; empty where that is not described
 */
public record Cylinders(
        List<Integer> order,
        Map<Integer, String> banks,
        String deviation,
        String misfires,
        String speed,
        String roughness,
        String finding,
        double weak,
        double scatter,
        String turnedBy,
        double soundTo,
        double leastSeconds,
        double ratio,
        Optional<SignalWheel> wheel,
        List<Condition> when) {
    public Cylinders {
        order = OrEmpty.list(order);
        when = OrEmpty.list(when);
        banks = OrEmpty.map(banks);
        roughness = OrEmpty.text(roughness);
        finding = OrEmpty.text(finding);
        turnedBy = OrEmpty.text(turnedBy);
    }

    /** Whether a clamp fits round the cable of its starter. */
    public boolean hasStarter() {
        return turnedBy.isEmpty();
    }

    /** Id of the value that holds a cylinder's speed deviation. */
    public String deviationOf(int cylinder) {
        return deviation + cylinder;
    }

    /** Id of the value that counts a cylinder's misfires. */
    public String misfiresOf(int cylinder) {
        return misfires + cylinder;
    }
}
