package brightlantern.app.page;

import brightlantern.core.battery.PackStudy;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;

/**
 * All cells of a pack in one picture: how high each lies at rest, and how steep it is under
 * current. Figures in SVG units, y downwards.
 */
public record CellsPicture(String sentence, int width, int height, List<Panel> panels) {
    private static final int LEFT = 64;
    private static final int STEP = 9;
    private static final int BAR = 7;
    private static final int TALL = 110;
    private static final int GAP = 46;
    private static final int TOP = 24;

    /** Every so many cells the number stands below. */
    private static final int NUMBERED = 8;

    /**
     * One row of bars.
     *
     * @param least and most: ends of its scale, in words
     */
    public record Panel(
            String title, int top, int bottom, String least, String most, List<Bar> bars) {}

    /**
     * @param out whether the cell stands out
     * @param label its number; empty where it does not stand below
     */
    public record Bar(int x, double y, double height, boolean out, String label, String told) {}

    public static CellsPicture of(PackStudy.Verdict verdict) {
        List<PackStudy.Cell> cells = verdict.cells();
        return new CellsPicture(
                verdict.sentence(),
                LEFT + cells.size() * STEP + 20,
                TOP + 2 * TALL + 2 * GAP,
                List.of(
                        panel(
                                "Volts at rest",
                                TOP,
                                cells,
                                PackStudy.Cell::restVolts,
                                PackStudy.Cell::apart,
                                "V",
                                0.05),
                        panel(
                                "Drop for each ampere, mΩ",
                                TOP + TALL + GAP,
                                cells,
                                PackStudy.Cell::milliohms,
                                PackStudy.Cell::steep,
                                "mΩ",
                                0.5)));
    }

    private interface Test {
        boolean of(PackStudy.Cell cell);
    }

    private static Panel panel(
            String title,
            int top,
            List<PackStudy.Cell> cells,
            ToDoubleFunction<PackStudy.Cell> figure,
            Test out,
            String unit,
            double leastSpan) {
        double least = cells.stream().mapToDouble(figure).min().orElse(0);
        double most = cells.stream().mapToDouble(figure).max().orElse(1);
        double room = Math.max(leastSpan, most - least);
        double from = least - 0.15 * room;
        double span = 1.3 * room;
        List<Bar> bars = new ArrayList<>();
        for (int i = 0; i < cells.size(); i++) {
            PackStudy.Cell cell = cells.get(i);
            double height = Math.max(1, (figure.applyAsDouble(cell) - from) / span * TALL);
            bars.add(
                    new Bar(
                            LEFT + i * STEP,
                            top + TALL - height,
                            height,
                            out.of(cell),
                            out.of(cell) || cell.number() % NUMBERED == 0
                                    ? String.valueOf(cell.number())
                                    : "",
                            String.format(
                                    Locale.ROOT,
                                    "Cell %d: %.3f V at rest, %.2f mΩ",
                                    cell.number(),
                                    cell.restVolts(),
                                    cell.milliohms())));
        }
        return new Panel(
                title,
                top,
                top + TALL,
                String.format(Locale.ROOT, "%.3g %s", from, unit),
                String.format(Locale.ROOT, "%.3g %s", from + span, unit),
                bars);
    }

    /** How wide a bar is. */
    public int bar() {
        return BAR;
    }
}
