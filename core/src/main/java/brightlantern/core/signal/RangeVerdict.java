package brightlantern.core.signal;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Whether a value lies where it should, told only while the condition of a range holds. */
public record RangeVerdict(boolean inside, String condition, double min, double max) {

    /** Empty when no range of the value applies now; all figures in the value's own unit. */
    public static Optional<RangeVerdict> of(Value value, Map<String, Double> now) {
        Double reading = now.get(value.id());
        if (reading == null || reading.isNaN()) {
            return Optional.empty();
        }
        return value.ranges().stream()
                .filter(range -> holds(range.when(), now))
                .findFirst()
                .map(
                        range ->
                                new RangeVerdict(
                                        reading >= range.min() && reading <= range.max(),
                                        range.condition(),
                                        range.min(),
                                        range.max()));
    }

    /** True when every condition is known and met. */
    public static boolean holds(List<Condition> conditions, Map<String, Double> now) {
        return conditions.stream().allMatch(c -> holds(c, now.get(c.value())));
    }

    /** Whether a reading in the value's own unit meets a condition; what is not known does not. */
    public static boolean holds(Condition condition, Double value) {
        return value != null
                && !value.isNaN()
                && value >= condition.min().orElse(Double.NEGATIVE_INFINITY)
                && value <= condition.max().orElse(Double.POSITIVE_INFINITY);
    }
}
