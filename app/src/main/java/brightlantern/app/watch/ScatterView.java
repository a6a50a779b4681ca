package brightlantern.app.watch;

import brightlantern.app.page.Chart;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.study.scatter.Scatter;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A cloud of points laid out for the page, in SVG units; points of one fifth of the third value
 * share a class, a shape and a line in the legend.
 */
record ScatterView(
        String sentence,
        String x,
        String y,
        Chart axes,
        List<Dot> dots,
        List<String> legend,
        String line) {
    private static final int FIFTHS = 5;
    private static final double LEFT = Chart.LEFT;
    private static final double RIGHT = Chart.RIGHT;
    private static final double TOP = Chart.TOP;
    private static final double BOTTOM = Chart.BOTTOM;

    record Dot(double x, double y, int fifth) {}

    static ScatterView of(
            Scatter scatter, int takes, String x, String y, String z, VehicleDescription d) {
        List<Scatter.Point> points = scatter.points();
        String xName = named(d, x);
        String yName = named(d, y);
        if (points.isEmpty()) {
            return new ScatterView(
                    "No moment holds both values under this condition.",
                    xName,
                    yName,
                    Chart.of("", "", 0, 1, List.of()),
                    List.of(),
                    List.of(),
                    "");
        }
        double xMin = points.stream().mapToDouble(Scatter.Point::x).min().orElse(0);
        double xMax = points.stream().mapToDouble(Scatter.Point::x).max().orElse(1);
        double yMin = points.stream().mapToDouble(Scatter.Point::y).min().orElse(0);
        double yMax = points.stream().mapToDouble(Scatter.Point::y).max().orElse(1);
        double xSpan = Math.max(1e-9, xMax - xMin);
        double room = Math.max(1e-6, 0.06 * (yMax - yMin));
        double low = yMin - room;
        double high = yMax + room;
        double[] thirds =
                points.stream()
                        .mapToDouble(Scatter.Point::colour)
                        .filter(Double::isFinite)
                        .sorted()
                        .toArray();
        double[] cuts = new double[FIFTHS + 1];
        for (int i = 0; i <= FIFTHS && thirds.length > 0; i++) {
            cuts[i] = thirds[Math.min(thirds.length - 1, i * thirds.length / FIFTHS)];
        }
        List<Dot> dots = new ArrayList<>();
        for (Scatter.Point p : points) {
            int fifth = 0;
            while (fifth < FIFTHS - 1 && p.colour() >= cuts[fifth + 1]) {
                fifth++;
            }
            dots.add(
                    new Dot(
                            tenth(LEFT + (p.x() - xMin) / xSpan * (RIGHT - LEFT)),
                            tenth(BOTTOM - (p.y() - low) / (high - low) * (BOTTOM - TOP)),
                            thirds.length == 0 ? 0 : fifth));
        }
        List<String> legend = new ArrayList<>();
        for (int i = 0; i < FIFTHS && thirds.length > 0; i++) {
            legend.add(Units.told(cuts[i]) + " to " + Units.told(cuts[i + 1]) + " " + unit(d, z));
        }
        Chart axes =
                Chart.of(
                        unit(d, x),
                        unit(d, y),
                        low,
                        high,
                        List.of(
                                new Chart.Series(
                                        "",
                                        new double[] {xMin, xMax},
                                        new double[] {Double.NaN, Double.NaN})));
        String line =
                scatter.line()
                        .map(
                                l ->
                                        String.format(
                                                Locale.ROOT,
                                                "M%.1f %.1fL%.1f %.1f",
                                                LEFT,
                                                at(l.intercept() + l.slope() * xMin, low, high),
                                                RIGHT,
                                                at(l.intercept() + l.slope() * xMax, low, high)))
                        .orElse("");
        return new ScatterView(
                sentence(scatter, takes, x, y, d), xName, yName, axes, dots, legend, line);
    }

    private static double at(double v, double low, double high) {
        return BOTTOM - (v - low) / (high - low) * (BOTTOM - TOP);
    }

    private static double tenth(double v) {
        return Math.round(v * 10) / 10.0;
    }

    private static String named(VehicleDescription d, String id) {
        return d.value(id).map(Value::name).orElse(id);
    }

    private static String unit(VehicleDescription d, String id) {
        return d.value(id).map(Value::show).orElse("");
    }

    private static String sentence(
            Scatter scatter, int takes, String x, String y, VehicleDescription d) {
        return scatter.line()
                .map(
                        l ->
                                String.format(
                                        Locale.ROOT,
                                        "%s changes by %s %s for each %s of %s, give or take %s; the line explains %.0f %% of the scatter (%d moments%s).",
                                        named(d, y),
                                        Units.told(l.slope()),
                                        unit(d, y),
                                        unit(d, x).isEmpty() ? "unit" : unit(d, x),
                                        named(d, x),
                                        Units.told(l.slopeWithin()),
                                        100 * l.share(),
                                        scatter.all(),
                                        takes > 1 ? " of " + takes + " takes" : ""))
                .orElse(Words.count(scatter.all(), "moment") + "; too few for a line.");
    }
}
