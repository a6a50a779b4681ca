package brightlantern.app.prove;

import brightlantern.core.proof.BeforeAfter;
import java.util.Locale;
import java.util.stream.DoubleStream;

/**
 * A figure before and after a repair on a line with what is right, ready to be drawn. Places in SVG
 * units from the left.
 *
 * @param bandFrom and bandWidth of what is right
 * @param after where it is now; below 0 when it was not measured again
 */
record Strip(
        String what,
        String right,
        String wasTold,
        String isTold,
        boolean holds,
        double bandFrom,
        double bandWidth,
        double before,
        double after) {
    static final int WIDTH = 240;
    private static final double EDGE = 12;

    static Strip of(BeforeAfter f) {
        double[] ends =
                DoubleStream.of(f.low(), f.high(), f.before(), f.after())
                        .filter(Double::isFinite)
                        .sorted()
                        .toArray();
        double least = ends[0];
        double room = Math.max(1e-6, ends[ends.length - 1] - least);
        Line line = new Line(Double.isNaN(f.low()) ? Math.min(0, least) : least, least + room);
        double from = Double.isNaN(f.low()) ? 0 : line.at(f.low());
        return new Strip(
                f.what(),
                Double.isNaN(f.low())
                        ? "up to " + f.told(f.high())
                        : String.format(Locale.ROOT, "%.2f to %s", f.low(), f.told(f.high())),
                f.told(f.before()),
                f.told(f.after()),
                f.holds(),
                from,
                Math.max(2, line.at(f.high()) - from),
                line.at(f.before()),
                Double.isNaN(f.after()) ? -1 : line.at(f.after()));
    }

    /** Where figures stand; what never ends stands at the right edge. */
    private record Line(double least, double most) {
        double at(double figure) {
            return Double.isInfinite(figure)
                    ? WIDTH - EDGE / 2
                    : EDGE + (figure - least) / (most - least) * (WIDTH - 2 * EDGE);
        }
    }
}
