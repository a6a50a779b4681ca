package brightlantern.core.take.csv;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;

/** A column that grows. */
final class Growing {
    private double[] seconds = new double[1024];
    private double[] values = new double[1024];
    private final Map<String, Integer> states = new LinkedHashMap<>();
    private int size;

    void add(double t, double v) {
        if (Double.isNaN(t)) {
            return;
        }
        if (size == seconds.length) {
            seconds = Arrays.copyOf(seconds, 2 * size);
            values = Arrays.copyOf(values, 2 * size);
        }
        seconds[size] = t;
        values[size++] = v;
    }

    /** Words of a column of states, in the order in which they came. */
    Map<String, Integer> states() {
        return states;
    }

    int size() {
        return size;
    }

    /** Time of the newest sample, s; NaN without one. */
    double newest() {
        return size > 0 ? seconds[size - 1] : Double.NaN;
    }

    void dropNewest() {
        size--;
    }

    double[] seconds() {
        return Arrays.copyOf(seconds, size);
    }

    double[] values() {
        return Arrays.copyOf(values, size);
    }
}
