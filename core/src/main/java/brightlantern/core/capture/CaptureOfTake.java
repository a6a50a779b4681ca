package brightlantern.core.capture;

import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;

/** Lanes out of columns that a file brought in, where all of them were sampled evenly together. */
public final class CaptureOfTake {
    /** Times of an even recording differ from its mean interval by less than this share of it. */
    private static final double UNEVEN = 0.05;

    private CaptureOfTake() {}

    /**
     * @param named what is known of a column
     * @throws IllegalArgumentException says which column is not even, has a gap, or which are too
     *     many
     */
    public static Capture of(Take take, Function<String, Value> named) {
        List<Lane> lanes = new ArrayList<>();
        Take.Column clock = null;
        double interval = 0;
        for (Map.Entry<String, Take.Column> e : take.columns().entrySet()) {
            Take.Column column = e.getValue();
            Value value = named.apply(e.getKey());
            if (clock == null) {
                clock = column;
                interval = interval(value.name(), column);
            } else if (column.size() != clock.size()
                    || Math.abs(column.seconds(0) - clock.seconds(0)) > interval) {
                throw new IllegalArgumentException(
                        "Column '"
                                + value.name()
                                + "' has other times than the first one; lanes of a capture share their times");
            }
            double[] samples = new double[column.size()];
            for (int i = 0; i < samples.length; i++) {
                samples[i] = column.value(i);
            }
            lanes.add(Lane.of(value.name(), LaneRole.OTHER, value.unit(), "", samples));
        }
        return new Capture(interval, lanes);
    }

    private static double interval(String name, Take.Column column) {
        int n = column.size();
        if (n < 2) {
            throw new IllegalArgumentException(
                    "Column '" + name + "' has " + n + " samples; expected at least two");
        }
        double interval = (column.seconds(n - 1) - column.seconds(0)) / (n - 1);
        for (int i = 1; i < n; i++) {
            double step = column.seconds(i) - column.seconds(i - 1);
            if (Math.abs(step - interval) > UNEVEN * interval) {
                throw new IllegalArgumentException(
                        String.format(
                                Locale.ROOT,
                                "Column '%s' was not sampled evenly: %.6f s after sample %d, %.6f s on the mean. Bring it in as a take instead",
                                name,
                                step,
                                i,
                                interval));
            }
        }
        return interval;
    }
}
