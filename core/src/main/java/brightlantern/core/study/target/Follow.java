package brightlantern.core.study.target;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.Units;
import java.util.List;

/**
 * A target that an actual value must follow while the conditions hold; limits in the unit in which
 * both are shown.
 *
 * @param behind how far the actual may stay behind
 * @param seconds for how long together
 * @param command the actuator's command and feedback its position, to tell a lazy actuator from a
 *     lack of effect
 * @param short how far feedback may stay below command, percent
 * @param end command at which the actuator has nothing left to give, percent; 0 when that is not
 *     judged
 */
public record Follow(
        String id,
        String finding,
        String target,
        String actual,
        String command,
        String feedback,
        List<Condition> when,
        double behind,
        double seconds,
        double shortBy,
        double atLeastSeconds,
        double end,
        List<String> conditions) {
    public Follow {
        when = OrEmpty.list(when);
        conditions = OrEmpty.list(conditions);
    }

    /** The same with its limit in another unit; as it is when there is none to turn it into. */
    public Follow in(String from, String to) {
        return to == null
                ? this
                : new Follow(
                        id,
                        finding,
                        target,
                        actual,
                        command,
                        feedback,
                        when,
                        Units.convertDifference(behind, from, to),
                        seconds,
                        shortBy,
                        atLeastSeconds,
                        end,
                        conditions);
    }
}
