package brightlantern.core.filter;

import brightlantern.core.signal.Condition;
import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * A part of a take in which conditions held.
 *
 * @param from and to: seconds of the take
 */
public record Stretch(double from, double to) {
    public Stretch {
        if (!(from <= to)) {
            throw new IllegalArgumentException("a stretch from " + from + " s to " + to + " s");
        }
    }

    /** How long it lasts, s. */
    public double seconds() {
        return to - from;
    }

    /**
     * All stretches of a take in which a filter held, in time order.
     *
     * @param clock the moments at which it is looked at: the samples of this column
     * @param bridge for how many seconds it may fail within one stretch
     */
    public static List<Stretch> find(Take take, Filter filter, Take.Column clock, double bridge) {
        double[] times = IntStream.range(0, clock.size()).mapToDouble(clock::seconds).toArray();
        Filter.State[] states = filter.over(take, times);
        return where(clock, bridge, i -> states[i] == Filter.State.HOLDS);
    }

    /**
     * All stretches of a take, in time order.
     *
     * @param clock the moments at which the conditions are looked at: the samples of this column
     * @param bridge for how many seconds conditions may fail within one stretch
     */
    public static List<Stretch> find(
            Take take, List<Condition> conditions, Take.Column clock, double bridge) {
        Map<String, Double> now = new HashMap<>();
        return where(
                clock,
                bridge,
                i -> {
                    conditions.forEach(
                            c -> now.put(c.value(), take.at(c.value(), clock.seconds(i))));
                    return RangeVerdict.holds(conditions, now);
                });
    }

    /**
     * All stretches in which something held, in time order.
     *
     * @param holds whether it holds at the clock's sample of this number
     */
    public static List<Stretch> where(Take.Column clock, double bridge, IntPredicate holds) {
        List<Stretch> found = new ArrayList<>();
        double start = Double.NaN;
        double good = Double.NaN;
        for (int i = 0; i < clock.size(); i++) {
            double t = clock.seconds(i);
            if (!holds.test(i)) {
                continue;
            }
            if (t - good > bridge) {
                found.add(new Stretch(start, good));
                start = t;
            } else if (Double.isNaN(start)) {
                start = t;
            }
            good = t;
        }
        if (!Double.isNaN(start)) {
            found.add(new Stretch(start, good));
        }
        return found;
    }
}
