package brightlantern.app.capture;

import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Extents;
import brightlantern.core.capture.Lane;
import brightlantern.core.signal.Units;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Lanes drawn once, as on paper, one below the other.
 *
 * @param span how long what is drawn is, in words
 */
record LanePaper(int width, int height, List<Row> lanes, String span) {
    private static final int LEFT = 130;
    private static final int COLUMNS = 700;
    private static final int LANE = 70;
    private static final double USED = 0.8;

    LanePaper {
        lanes = List.copyOf(lanes);
    }

    /**
     * @param range least and most, in words
     * @param path least to most of each column
     */
    record Row(String name, String range, int y, String path) {}

    /**
     * @param length samples of it that are drawn, from the first one on
     */
    static LanePaper of(Capture capture, List<Extents> extents, int length, UnitChoices units) {
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < capture.lanes().size(); i++) {
            short[] drawn = extents.get(i).of(0, length, COLUMNS);
            rows.add(row(capture.lanes().get(i), drawn, LANE * (i + 1), units));
        }
        double seconds = length * capture.interval();
        return new LanePaper(
                LEFT + COLUMNS + 10,
                LANE * rows.size() + 34,
                rows,
                seconds < 0.1
                        ? String.format(Locale.ROOT, "%.3f ms", 1000 * seconds)
                        : String.format(Locale.ROOT, "%.2f s", seconds));
    }

    /** All of a capture. */
    static LanePaper of(Capture capture, UnitChoices units) {
        List<Extents> extents = capture.lanes().stream().map(l -> new Extents(l.steps())).toList();
        return of(capture, extents, capture.length(), units);
    }

    private static Row row(Lane lane, short[] extents, int bottom, UnitChoices units) {
        int least = Short.MAX_VALUE;
        int most = Short.MIN_VALUE;
        for (short step : extents) {
            least = Math.min(least, step);
            most = Math.max(most, step);
        }
        double span = Math.max(1, most - least);
        StringBuilder path = new StringBuilder();
        for (int c = 0; c < COLUMNS; c++) {
            path.append(
                    String.format(
                            Locale.ROOT,
                            "%s%d %.1fL%d %.1f",
                            c == 0 ? "M" : "L",
                            LEFT + c,
                            bottom - USED * LANE * (extents[2 * c] - least) / span,
                            LEFT + c,
                            bottom - USED * LANE * (extents[2 * c + 1] - least) / span));
        }
        String unit = units.unit(lane.unit());
        return new Row(
                lane.name(),
                told(lane, least, unit) + " to " + told(lane, most, unit) + " " + unit,
                bottom,
                path.toString());
    }

    private static String told(Lane lane, int step, String unit) {
        return Units.told(Units.convert(lane.worth(step), lane.unit(), unit));
    }
}
