package brightlantern.core.take;

import java.util.ArrayList;
import java.util.List;

/**
 * A column as a picture of a given width needs it: of each slice of time the least and the most, in
 * the order in which they came, so that no spike is lost. A pause in the samples is kept as a NaN.
 */
public record Thinned(double[] seconds, double[] values) {
    /** A pause so many times longer than the usual step is a gap. */
    private static final double GAP_STEPS = 6;

    /** Shorter pauses are never gaps, s. */
    private static final double LEAST_GAP = 1.5;

    /**
     * @param slices about as many as the picture has columns of dots
     */
    public static Thinned of(Take.Column column, double from, double to, int slices) {
        int first = Math.max(0, column.indexAt(from));
        int last = Math.min(column.size() - 1, column.indexAt(to) + 1);
        double rate = column.rate();
        double gap = Math.max(LEAST_GAP, rate > 0 ? GAP_STEPS / rate : LEAST_GAP);
        List<double[]> points = new ArrayList<>();
        if (last - first <= 2 * slices) {
            for (int i = first; i <= last; i++) {
                if (i > first && column.seconds(i) - column.seconds(i - 1) > gap) {
                    points.add(
                            new double[] {
                                (column.seconds(i) + column.seconds(i - 1)) / 2, Double.NaN
                            });
                }
                points.add(new double[] {column.seconds(i), column.value(i)});
            }
        } else {
            double width = (to - from) / slices;
            int i = first;
            while (i <= last) {
                long slice = (long) Math.floor((column.seconds(i) - from) / width);
                int least = i;
                int most = i;
                int end = i;
                while (end <= last
                        && (long) Math.floor((column.seconds(end) - from) / width) == slice) {
                    least = beats(column, least, column.value(end) < column.value(least), end);
                    most = beats(column, most, column.value(end) > column.value(most), end);
                    end++;
                }
                if (i > first && column.seconds(i) - column.seconds(i - 1) > gap) {
                    points.add(
                            new double[] {
                                (column.seconds(i) + column.seconds(i - 1)) / 2, Double.NaN
                            });
                }
                int a = Math.min(least, most);
                int b = Math.max(least, most);
                points.add(new double[] {column.seconds(a), column.value(a)});
                if (b != a) {
                    points.add(new double[] {column.seconds(b), column.value(b)});
                }
                i = end;
            }
        }
        return of(points);
    }

    /** Any number stands before none: a slice that begins with a NaN still shows its spikes. */
    private static int beats(Take.Column column, int held, boolean better, int next) {
        boolean none = Double.isNaN(column.value(held)) && !Double.isNaN(column.value(next));
        return better || none ? next : held;
    }

    private static Thinned of(List<double[]> points) {
        double[] t = new double[points.size()];
        double[] y = new double[points.size()];
        for (int i = 0; i < t.length; i++) {
            t[i] = points.get(i)[0];
            y[i] = points.get(i)[1];
        }
        return new Thinned(t, y);
    }
}
