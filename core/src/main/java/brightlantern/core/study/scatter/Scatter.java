package brightlantern.core.study.scatter;

import brightlantern.core.filter.Filter;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.hipparchus.stat.regression.SimpleRegression;

/**
 * Two values against each other, a third as colour, at the samples of the first where a condition
 * held; with the line of least squares through them.
 */
public record Scatter(List<Point> points, int all, Optional<Line> line) {
    /** A value older than this is not taken for present, s. */
    private static final double HOLD_SECONDS = 1;

    /** More points than this are thinned evenly; a picture shows no more. */
    private static final int MOST_POINTS = 4000;

    public Scatter {
        points = List.copyOf(points);
    }

    /**
     * @param colour NaN without a third value
     */
    public record Point(double x, double y, double colour, double seconds) {}

    /**
     * y = slope·x + intercept.
     *
     * @param slopeWithin half width of the 95 % interval of the slope, as if samples were
     *     independent
     * @param share of the variance that it explains, R²
     */
    public record Line(double slope, double intercept, double slopeWithin, double share) {}

    /**
     * @param colour value id, or empty
     * @param when a condition, or none
     * @throws IllegalArgumentException names the value that the take does not hold
     */
    public static Scatter of(Take take, String x, String y, String colour, Optional<Filter> when) {
        for (String id : List.of(x, y)) {
            need(take, id);
        }
        Take.Column clock = take.columns().get(x);
        double[] times = new double[clock.size()];
        for (int i = 0; i < times.length; i++) {
            times[i] = clock.seconds(i);
        }
        double[] ys = take.columns().get(y).held(clock, HOLD_SECONDS);
        double[] cs = null;
        if (!colour.isEmpty()) {
            need(take, colour);
            cs = take.columns().get(colour).held(clock, HOLD_SECONDS);
        }
        Filter.State[] states = when.map(f -> f.over(take, times)).orElse(null);
        List<Point> points = new ArrayList<>();
        SimpleRegression regression = new SimpleRegression();
        for (int i = 0; i < times.length; i++) {
            double xv = clock.value(i);
            if (!Double.isFinite(xv)
                    || !Double.isFinite(ys[i])
                    || states != null && states[i] != Filter.State.HOLDS) {
                continue;
            }
            points.add(new Point(xv, ys[i], cs == null ? Double.NaN : cs[i], times[i]));
            regression.addData(xv, ys[i]);
        }
        Optional<Line> line =
                points.size() < 3 || Double.isNaN(regression.getSlope())
                        ? Optional.empty()
                        : Optional.of(
                                new Line(
                                        regression.getSlope(),
                                        regression.getIntercept(),
                                        regression.getSlopeConfidenceInterval(),
                                        regression.getRSquare()));
        int step = 1 + points.size() / MOST_POINTS;
        List<Point> shown = new ArrayList<>();
        for (int i = 0; i < points.size(); i += step) {
            shown.add(points.get(i));
        }
        return new Scatter(shown, points.size(), line);
    }

    private static void need(Take take, String id) {
        if (!take.columns().containsKey(id)) {
            throw new IllegalArgumentException(
                    "This take does not hold '"
                            + id
                            + "'; add it to the watch list and record again");
        }
    }
}
