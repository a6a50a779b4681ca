package brightlantern.core.study.overlay;

import brightlantern.core.filter.Stretch;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;

/**
 * The same stretch of two takes laid over each other, aligned on time since its start or on a value
 * that runs through it (as engine speed through a pull). Both are averaged in the same bins.
 */
public record Overlay(List<Bin> bins, double meanDifference, double mostDifference, double mostAt) {
    public Overlay {
        bins = List.copyOf(bins);
    }

    /**
     * @param at middle of the bin: seconds, or the aligning value
     * @param before and after: means, NaN where that take has nothing there
     */
    public record Bin(double at, double before, double after) {}

    /**
     * @param along value id to align on; empty for time
     * @param bin width of a bin, in seconds or in units of the value
     * @return empty when the two have no bin in common
     * @throws IllegalArgumentException when a take lacks a value
     */
    public static Optional<Overlay> of(
            Take before,
            Stretch beforePart,
            Take after,
            Stretch afterPart,
            String value,
            String along,
            double bin) {
        TreeMap<Long, double[]> sums = new TreeMap<>();
        add(before, beforePart, value, along, bin, sums, 0);
        add(after, afterPart, value, along, bin, sums, 2);
        List<Bin> bins = new ArrayList<>();
        double sum = 0;
        int both = 0;
        double most = 0;
        double at = Double.NaN;
        for (var entry : sums.entrySet()) {
            double[] s = entry.getValue();
            double middle = (entry.getKey() + 0.5) * bin;
            Bin b = new Bin(middle, s[0] / s[1], s[2] / s[3]);
            bins.add(b);
            double difference = b.after() - b.before();
            if (!Double.isNaN(difference)) {
                both++;
                sum += difference;
                if (Double.isNaN(at) || Math.abs(difference) > Math.abs(most)) {
                    most = difference;
                    at = middle;
                }
            }
        }
        return both == 0 ? Optional.empty() : Optional.of(new Overlay(bins, sum / both, most, at));
    }

    private static void add(
            Take take,
            Stretch part,
            String value,
            String along,
            double bin,
            TreeMap<Long, double[]> sums,
            int offset) {
        for (String id : along.isEmpty() ? List.of(value) : List.of(value, along)) {
            if (!take.columns().containsKey(id)) {
                throw new IllegalArgumentException(
                        "A take does not hold '"
                                + id
                                + "'; add it to the watch list and record again");
            }
        }
        Take.Column column = take.columns().get(value);
        for (int i = 0; i < column.size(); i++) {
            double t = column.seconds(i);
            double v = column.value(i);
            if (t < part.from() || t > part.to() || !Double.isFinite(v)) {
                continue;
            }
            double at = along.isEmpty() ? t - part.from() : take.at(along, t);
            if (Double.isFinite(at)) {
                double[] s = sums.computeIfAbsent((long) Math.floor(at / bin), k -> new double[4]);
                s[offset] += v;
                s[offset + 1]++;
            }
        }
    }
}
