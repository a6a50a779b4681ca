package brightlantern.app.page;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * A small line chart as SVG figures, for pages and reports alike. Coordinates in SVG units, y
 * downwards.
 */
public record Chart(
        String xUnit, String yUnit, List<Tick> xTicks, List<Tick> yTicks, List<Line> lines) {
    public static final int WIDTH = 640;
    public static final int HEIGHT = 200;
    public static final int LEFT = 44;
    public static final int BOTTOM = 170;
    public static final int TOP = 22;
    public static final int RIGHT = 614;
    private static final int MOST_POINTS = 600;

    public record Series(String name, double[] x, double[] y) {}

    public record Tick(double at, String text) {}

    /** A line; where a value is not known its path is broken. */
    public record Line(String name, String path, int index) {}

    /** Draws series over one x axis; the y axis runs from {@code yMin} to {@code yMax}. */
    public static Chart of(
            String xUnit, String yUnit, double yMin, double yMax, List<Series> series) {
        double xMin = series.stream().flatMapToDouble(s -> Arrays.stream(s.x())).min().orElse(0);
        double xMax = series.stream().flatMapToDouble(s -> Arrays.stream(s.x())).max().orElse(1);
        double span = Math.max(1e-9, xMax - xMin);
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < series.size(); i++) {
            Series s = series.get(i);
            StringBuilder path = new StringBuilder();
            int every = Math.max(1, s.x().length / MOST_POINTS);
            boolean drawing = false;
            for (int k = 0; k < s.x().length; k += every) {
                // what is not known is left open: no line is drawn across
                boolean known = Double.isFinite(s.y()[k]) && Double.isFinite(s.x()[k]);
                if (known) {
                    path.append(
                            String.format(
                                    Locale.ROOT,
                                    "%s%.1f,%.1f ",
                                    drawing ? "L" : "M",
                                    LEFT + (s.x()[k] - xMin) / span * (RIGHT - LEFT),
                                    BOTTOM - (s.y()[k] - yMin) / (yMax - yMin) * (BOTTOM - TOP)));
                }
                drawing = known;
            }
            lines.add(new Line(s.name(), path.toString().trim(), i));
        }
        List<Tick> xTicks = new ArrayList<>();
        double step = nice(span / 6);
        for (double x = Math.ceil(xMin / step) * step; x <= xMax + 1e-9; x += step) {
            xTicks.add(new Tick(LEFT + (x - xMin) / span * (RIGHT - LEFT), number(x, step)));
        }
        List<Tick> yTicks = new ArrayList<>();
        double yStep = nice((yMax - yMin) / 4);
        for (double y = Math.ceil(yMin / yStep) * yStep; y <= yMax + 1e-9; y += yStep) {
            yTicks.add(
                    new Tick(
                            BOTTOM - (y - yMin) / (yMax - yMin) * (BOTTOM - TOP),
                            number(y, yStep)));
        }
        return new Chart(xUnit, yUnit, xTicks, yTicks, lines);
    }

    private static double nice(double raw) {
        double power = Math.pow(10, Math.floor(Math.log10(Math.max(raw, 1e-9))));
        double share = raw / power;
        return power * (share <= 1 ? 1 : share <= 2 ? 2 : share <= 5 ? 5 : 10);
    }

    private static String number(double value, double step) {
        int digits = (int) Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));
        // a step that ends a hair below nothing is nothing, not "-0"
        double told = Math.abs(value) < step / 2 ? 0 : value;
        return String.format(Locale.ROOT, "%." + digits + "f", told);
    }
}
