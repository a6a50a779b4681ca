package brightlantern.core.take;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A recording of live values.
 *
 * @param columns value id → its samples in time order; values in the value's own unit
 * @param damaged how many of the parts that it is kept in could not be read and are gaps now
 */
public record Take(Map<String, Column> columns, List<Mark> marks, int damaged) {
    public record Mark(double seconds, String text) {}

    /** A whole take, nothing of it damaged. */
    public Take(Map<String, Column> columns, List<Mark> marks) {
        this(columns, marks, 0);
    }

    /** Samples as they come in, value id → pairs of seconds and value. */
    public static Take of(Map<String, List<double[]>> samples) {
        Map<String, Column> columns = new LinkedHashMap<>();
        samples.forEach(
                (id, s) ->
                        columns.put(
                                id,
                                Column.owned(
                                        s.stream().mapToDouble(p -> p[0]).toArray(),
                                        s.stream().mapToDouble(p -> p[1]).toArray())));
        return new Take(columns, List.of());
    }

    /** Times in seconds since the start of the take, rising, and as many values. */
    public static final class Column {
        private final double[] seconds;
        private final double[] values;

        /**
         * @throws IllegalArgumentException when there are not as many times as values
         */
        public Column(double[] seconds, double[] values) {
            if (seconds.length != values.length) {
                throw new IllegalArgumentException(
                        seconds.length + " times but " + values.length + " values");
            }
            this.seconds = seconds.clone();
            this.values = values.clone();
        }

        private Column(double[] seconds, double[] values, boolean owned) {
            this.seconds = seconds;
            this.values = values;
        }

        /** Without copying: for arrays that nobody else changes any more. */
        static Column owned(double[] seconds, double[] values) {
            return new Column(seconds, values, true);
        }

        boolean sharesTimes(Column other) {
            return seconds == other.seconds;
        }

        /** Other values at the same times. */
        Column withValues(double[] others) {
            return new Column(seconds, others, true);
        }

        /**
         * @param intoSeconds null when the times are not wanted
         */
        void copyInto(double[] intoSeconds, double[] intoValues, int at) {
            if (intoSeconds != null) {
                System.arraycopy(seconds, 0, intoSeconds, at, seconds.length);
            }
            System.arraycopy(values, 0, intoValues, at, values.length);
        }

        /** How many samples. */
        public int size() {
            return seconds.length;
        }

        /** When sample i was taken, s since the take began. */
        public double seconds(int i) {
            return seconds[i];
        }

        /** Sample i in the value's own unit; NaN where there was none. */
        public double value(int i) {
            return values[i];
        }

        /** Samples a second, from first to last; 0 with fewer than two. */
        public double rate() {
            int n = seconds.length;
            return n < 2 || seconds[n - 1] <= seconds[0]
                    ? 0
                    : (n - 1) / (seconds[n - 1] - seconds[0]);
        }

        /**
         * This column at the samples of another: the newest value then, NaN where that is older
         * than {@code hold} seconds or there is none.
         */
        public double[] held(Column clock, double hold) {
            double[] held = new double[clock.size()];
            int at = -1;
            for (int i = 0; i < held.length; i++) {
                double t = clock.seconds[i];
                while (at + 1 < seconds.length && seconds[at + 1] <= t) {
                    at++;
                }
                held[i] = at < 0 || t - seconds[at] > hold ? Double.NaN : values[at];
            }
            return held;
        }

        /** Number of the newest sample at or before a moment; -1 before the first. */
        public int indexAt(double t) {
            int found = Arrays.binarySearch(seconds, t);
            return found >= 0 ? found : -found - 2;
        }
    }

    /**
     * The newest value at or before a moment; NaN before the first sample or without such a column.
     */
    public double at(String id, double seconds) {
        Column column = columns.get(id);
        if (column == null) {
            return Double.NaN;
        }
        int index = column.indexAt(seconds);
        return index < 0 ? Double.NaN : column.value(index);
    }

    /** From its beginning to its last sample, s. */
    public double lengthSeconds() {
        return columns.values().stream()
                .filter(c -> c.size() > 0)
                .mapToDouble(c -> c.seconds(c.size() - 1))
                .max()
                .orElse(0);
    }
}
