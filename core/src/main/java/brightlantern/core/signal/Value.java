package brightlantern.core.signal;

import brightlantern.core.description.OrEmpty;
import java.util.List;
import java.util.Map;

/**
 * A live value: physical = raw × scale + offset.
 *
 * @param did identifier for service 0x22
 * @param bytes 1, 2 or 4, big-endian
 * @param show unit in which values that belong together are shown
 * @param states raw number → word, for switches and enumerations; empty for numbers
 * @param words further words under which it is found
 */
public record Value(
        String id,
        String module,
        int did,
        int bytes,
        boolean signed,
        double scale,
        double offset,
        String name,
        String unit,
        String show,
        int digits,
        Map<Integer, String> states,
        List<String> words,
        List<ValueRange> ranges) {
    public Value {
        scale = OrEmpty.factor(scale);
        unit = OrEmpty.text(unit);
        show = show == null ? unit : show;
        states = OrEmpty.map(states);
        words = OrEmpty.list(words);
        ranges = OrEmpty.list(ranges);
    }

    /** Whether it counts seconds since 1970, and is told as a date. */
    public boolean isDate() {
        return unit.equals("UTC");
    }

    /** Whether it is a state with words rather than a number. */
    public boolean isState() {
        return !states.isEmpty();
    }

    /** The same under another id. */
    public Value as(String otherId) {
        return new Value(
                otherId, module, did, bytes, signed, scale, offset, name, unit, show, digits,
                states, words, ranges);
    }

    /** The same, shown in another unit, with as many digits as tell as much. */
    public Value shownIn(String other) {
        if (isState() || other == null || other.equals(show)) {
            return this;
        }
        double step = Math.abs(Units.convertDifference(Math.pow(10, -digits), show, other));
        int enough = (int) Math.max(0, Math.min(4, Math.round(-Math.log10(step))));
        return new Value(
                id, module, did, bytes, signed, scale, offset, name, unit, other, enough, states,
                words, ranges);
    }
}
