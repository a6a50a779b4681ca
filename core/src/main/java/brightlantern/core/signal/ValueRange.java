package brightlantern.core.signal;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/** Where a value should lie while all conditions hold; limits in the value's own unit. */
public record ValueRange(String condition, List<Condition> when, double min, double max) {
    public ValueRange {
        when = OrEmpty.list(when);
    }
}
