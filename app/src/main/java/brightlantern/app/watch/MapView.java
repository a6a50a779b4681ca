package brightlantern.app.watch;

import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.study.map.Axis;
import brightlantern.core.study.map.OperatingMap;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** An operating map as a grid of texts; rows from the highest y down, as one reads a map. */
record MapView(
        String sentence,
        String x,
        String y,
        List<String> heads,
        List<Row> rows,
        boolean difference) {
    record Row(String head, List<Cell> cells) {}

    /**
     * @param tone 0..100, where between the least and the most it lies; -1 for an empty cell
     * @param thin rests on few visits
     * @param way the drive spent much of its time here
     */
    record Cell(String text, String told, int tone, boolean thin, boolean way) {}

    /** Cells with more than this share of all samples are where an engine spends its time. */
    private static final double MUCH = 0.03;

    static MapView of(
            OperatingMap map, Optional<OperatingMap> minus, boolean path, VehicleDescription d) {
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        Axis x = map.x();
        Axis y = map.y();
        for (int r = 0; r < y.cells(); r++) {
            for (int c = 0; c < x.cells(); c++) {
                double v = value(map, minus, c, r);
                if (Double.isFinite(v)) {
                    least = Math.min(least, v);
                    most = Math.max(most, v);
                }
            }
        }
        List<Row> rows = new ArrayList<>();
        for (int r = y.cells() - 1; r >= 0; r--) {
            List<Cell> cells = new ArrayList<>();
            for (int c = 0; c < x.cells(); c++) {
                cells.add(cell(map, minus, c, r, least, most, path));
            }
            rows.add(new Row(Units.told(y.from(r)) + " – " + Units.told(y.to(r)), cells));
        }
        List<String> heads = new ArrayList<>();
        for (int c = 0; c < x.cells(); c++) {
            heads.add(Units.told(x.from(c)) + " – " + Units.told(x.to(c)));
        }
        return new MapView(
                sentence(map, minus, d, least, most),
                named(d, x.value()),
                named(d, y.value()),
                heads,
                rows,
                minus.isPresent());
    }

    private static double value(OperatingMap map, Optional<OperatingMap> minus, int c, int r) {
        return minus.map(
                        m -> map.minus(m, c, r).map(OperatingMap.Difference::by).orElse(Double.NaN))
                .orElse(map.cell(c, r).mean());
    }

    private static Cell cell(
            OperatingMap map,
            Optional<OperatingMap> minus,
            int c,
            int r,
            double least,
            double most,
            boolean path) {
        OperatingMap.Cell cell = map.cell(c, r);
        double v = value(map, minus, c, r);
        if (!Double.isFinite(v)) {
            return new Cell("", "nothing here", -1, false, false);
        }
        int tone = most > least ? (int) Math.round(100 * (v - least) / (most - least)) : 50;
        boolean way = path && cell.samples() > MUCH * map.samples();
        if (minus.isPresent()) {
            OperatingMap.Difference by = map.minus(minus.get(), c, r).orElseThrow();
            return new Cell(
                    String.format(Locale.ROOT, "%+.2f", by.by()) + (by.significant() ? " *" : ""),
                    by.significant()
                            ? "more than both scatters explain"
                            : "within the scatter of both (" + Units.told(by.within()) + ")",
                    tone,
                    !by.significant(),
                    way);
        }
        return new Cell(
                Units.told(v),
                String.format(
                        Locale.ROOT,
                        "mean %s, spread %s, %s; %s in %s",
                        Units.told(v),
                        Units.told(cell.spread()),
                        Double.isNaN(cell.within())
                                ? "one visit tells no confidence"
                                : "sure to " + Units.told(cell.within()),
                        Words.count(cell.samples(), "sample"),
                        Words.count(cell.visits(), "visit")),
                tone,
                cell.thin(),
                way);
    }

    private static String named(VehicleDescription d, String id) {
        return d.value(id)
                .map(v -> v.name() + (v.show().isEmpty() ? "" : ", " + v.show()))
                .orElse(id);
    }

    private static String sentence(
            OperatingMap map,
            Optional<OperatingMap> minus,
            VehicleDescription d,
            double least,
            double most) {
        String value = d.value(map.value()).map(Value::name).orElse(map.value());
        if (!Double.isFinite(least)) {
            return value + ": no cell of the grid holds a sample.";
        }
        int filled = 0;
        int thin = 0;
        int significant = 0;
        for (int r = 0; r < map.y().cells(); r++) {
            for (int c = 0; c < map.x().cells(); c++) {
                filled += map.cell(c, r).samples() > 0 ? 1 : 0;
                thin += map.cell(c, r).samples() > 0 && map.cell(c, r).thin() ? 1 : 0;
                int column = c;
                int row = r;
                significant +=
                        minus.flatMap(m -> map.minus(m, column, row))
                                        .filter(OperatingMap.Difference::significant)
                                        .isPresent()
                                ? 1
                                : 0;
            }
        }
        return minus.isPresent()
                ? String.format(
                        Locale.ROOT,
                        "%s differs by %+.2f to %+.2f; in %s by more than the scatter of both.",
                        value,
                        least,
                        most,
                        Words.count(significant, "cell"))
                : String.format(
                        Locale.ROOT,
                        "%s runs from %s to %s over %d cells, %d of them thin; %d samples.",
                        value,
                        Units.told(least),
                        Units.told(most),
                        filled,
                        thin,
                        map.samples());
    }
}
