package brightlantern.core.take;

/**
 * Least, mean and most of one value over a part of a take. The mean counts each reading for the
 * time until the next one, so that dense samples weigh no more than sparse ones.
 *
 * @param samples how many readings it rests on; without any, the figures are NaN
 */
public record Span(double least, double mean, double most, int samples) {
    /** A pause longer than this is a gap; the reading before it does not count for it, s. */
    private static final double GAP_SECONDS = 2;

    /** The samples of a column from one moment to another, both in seconds. */
    public static Span of(Take.Column column, double from, double to) {
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        double sum = 0;
        double plain = 0;
        double time = 0;
        int samples = 0;
        for (int i = Math.max(0, column.indexAt(from)); i < column.size(); i++) {
            double t = column.seconds(i);
            double v = column.value(i);
            if (t > to) {
                break;
            }
            if (t < from || !Double.isFinite(v)) {
                continue;
            }
            samples++;
            least = Math.min(least, v);
            most = Math.max(most, v);
            plain += v;
            double end = Math.min(to, i + 1 < column.size() ? column.seconds(i + 1) : t);
            double counts = end - t > GAP_SECONDS ? 0 : end - t;
            sum += v * counts;
            time += counts;
        }
        return samples == 0
                ? new Span(Double.NaN, Double.NaN, Double.NaN, 0)
                : new Span(least, time > 0 ? sum / time : plain / samples, most, samples);
    }
}
