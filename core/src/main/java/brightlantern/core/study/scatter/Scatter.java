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
     * @param takes one or many, told together; each has a clock of its own
     * @param colour value id, or empty
     * @param when a condition, or none
     * @throws IllegalArgumentException names the value that a take does not hold
     */
    public static Scatter of(
            List<Take> takes, String x, String y, String colour, Optional<Filter> when) {
        List<Point> points = new ArrayList<>();
        for (Take take : takes) {
            add(points, take, x, y, colour, when);
        }
        SimpleRegression regression = new SimpleRegression();
        points.forEach(p -> regression.addData(p.x(), p.y()));
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

    private static void add(
            List<Point> points,
            Take take,
            String x,
            String y,
            String colour,
            Optional<Filter> when) {
        for (String id : colour.isEmpty() ? List.of(x, y) : List.of(x, y, colour)) {
            need(take, id);
        }
        Take.Column clock = take.columns().get(x);
        double[] times = new double[clock.size()];
        for (int i = 0; i < times.length; i++) {
            times[i] = clock.seconds(i);
        }
        double[] ys = take.columns().get(y).held(clock, HOLD_SECONDS);
        double[] cs =
                colour.isEmpty() ? null : take.columns().get(colour).held(clock, HOLD_SECONDS);
        Filter.State[] states = when.map(f -> f.over(take, times)).orElse(null);
        for (int i = 0; i < times.length; i++) {
            double xv = clock.value(i);
            if (Double.isFinite(xv)
                    && Double.isFinite(ys[i])
                    && (states == null || states[i] == Filter.State.HOLDS)) {
                points.add(new Point(xv, ys[i], cs == null ? Double.NaN : cs[i], times[i]));
            }
        }
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
