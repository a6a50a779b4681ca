package brightlantern.core.battery;

import brightlantern.core.signal.Words;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.hipparchus.stat.descriptive.rank.Median;
import org.hipparchus.stat.regression.SimpleRegression;

/**
 * Cells in series, each held against its fellows: a line of least squares through its voltage over
 * the pack's current gives its voltage at rest (where the line meets no current) and its resistance
 * (how steep it is, Ohm's law). A weak cell lies lower at rest; what is right at rest and drops
 * only with current has resistance in its way, which is mostly its sense lead.
 */
public final class PackStudy {
    public static final String TOGETHER = "together";
    public static final String WITH_CURRENT = "with-current";
    public static final String AT_REST = "at-rest";
    public static final String TOO_LITTLE = "too-little";

    /** With less difference in current than this, in ampere, slopes are noise. */
    public static final double LEAST_AMPERES = 3;

    /** Fewer samples than this of a cell are no line. */
    private static final int LEAST_SAMPLES = 4;

    /** Median absolute deviations (times 1.4826, so that they are standard deviations). */
    private static final double STANDS_OUT = 6;

    private static final double TO_DEVIATION = 1.4826;

    /** More cells than this are not named one by one. */
    private static final int NAMED = 4;

    private PackStudy() {}

    /**
     * @param restVolts at no current, V
     * @param milliohms of the cell with all that carries its voltage to the monitor, mΩ
     * @param apart whether it lies away from its fellows at rest
     * @param steep whether it drops more than its fellows
     */
    public record Cell(
            int number, double restVolts, double milliohms, boolean apart, boolean steep) {}

    /**
     * @param outcome together, with-current, at-rest, or too-little current to tell
     * @param amperes span of the current over which it was judged, A
     */
    public record Verdict(
            String outcome,
            String sentence,
            List<String> reasons,
            List<Cell> cells,
            double amperes) {}

    /**
     * @param prefix of the cells' ids; a number follows
     * @param current id of the pack's current, A, positive out of the pack
     * @param leastApart nearer to the middle one at rest than this is healthy, V
     * @param leastSteep a slope nearer to the middle one than this is healthy, mΩ
     */
    public static Verdict judge(
            Take take, String prefix, String current, double leastApart, double leastSteep) {
        Take.Column amps = take.columns().get(current);
        if (amps == null || amps.size() == 0) {
            return cannot("The pack's current was not read.", 0);
        }
        double span = span(amps);
        if (span < LEAST_AMPERES) {
            return cannot(
                    String.format(
                            Locale.ROOT,
                            "The current changed by %.1f A only; %.0f A at least are needed to tell a lead from a cell.",
                            span,
                            LEAST_AMPERES),
                    span);
        }
        List<Cell> lines = lines(take, prefix, current);
        if (lines.size() < LEAST_SAMPLES) {
            return cannot("Too few cells were read.", span);
        }
        double middleVolts = median(lines.stream().mapToDouble(Cell::restVolts).toArray());
        double middleOhms = median(lines.stream().mapToDouble(Cell::milliohms).toArray());
        double apart =
                Math.max(
                        leastApart,
                        STANDS_OUT
                                * deviation(
                                        lines.stream().mapToDouble(Cell::restVolts).toArray(),
                                        middleVolts));
        double steep =
                Math.max(
                        leastSteep,
                        STANDS_OUT
                                * deviation(
                                        lines.stream().mapToDouble(Cell::milliohms).toArray(),
                                        middleOhms));
        List<Cell> cells =
                lines.stream()
                        .map(
                                c ->
                                        new Cell(
                                                c.number(),
                                                c.restVolts(),
                                                c.milliohms(),
                                                Math.abs(c.restVolts() - middleVolts) > apart,
                                                Math.abs(c.milliohms() - middleOhms) > steep))
                        .toList();
        return verdict(cells, middleVolts, middleOhms, span);
    }

    private static Verdict cannot(String why, double span) {
        return new Verdict(TOO_LITTLE, why, List.of(), List.of(), span);
    }

    private static double span(Take.Column amps) {
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < amps.size(); i++) {
            least = Math.min(least, amps.value(i));
            most = Math.max(most, amps.value(i));
        }
        return most - least;
    }

    private static List<Cell> lines(Take take, String prefix, String current) {
        Pattern name = Pattern.compile(Pattern.quote(prefix) + "(\\d+)");
        List<Cell> lines = new ArrayList<>();
        take.columns()
                .forEach(
                        (id, column) -> {
                            Matcher m = name.matcher(id);
                            if (!m.matches()) {
                                return;
                            }
                            SimpleRegression line = new SimpleRegression();
                            for (int i = 0; i < column.size(); i++) {
                                double amps = take.at(current, column.seconds(i));
                                double volts = column.value(i);
                                if (Double.isFinite(amps) && Double.isFinite(volts)) {
                                    line.addData(amps, volts);
                                }
                            }
                            if (line.getN() >= LEAST_SAMPLES && Double.isFinite(line.getSlope())) {
                                lines.add(
                                        new Cell(
                                                Integer.parseInt(m.group(1)),
                                                line.getIntercept(),
                                                -1000 * line.getSlope(),
                                                false,
                                                false));
                            }
                        });
        lines.sort(Comparator.comparingInt(Cell::number));
        return lines;
    }

    private static Verdict verdict(
            List<Cell> cells, double middleVolts, double middleOhms, double span) {
        List<Cell> apart = cells.stream().filter(Cell::apart).toList();
        List<Cell> steep = cells.stream().filter(c -> c.steep() && !c.apart()).toList();
        double least = cells.stream().mapToDouble(Cell::restVolts).min().orElse(0);
        double most = cells.stream().mapToDouble(Cell::restVolts).max().orElse(0);
        double flattest = cells.stream().mapToDouble(Cell::milliohms).min().orElse(0);
        double steepest = cells.stream().mapToDouble(Cell::milliohms).max().orElse(0);
        List<String> reasons = new ArrayList<>();
        reasons.add(
                text(
                        "At rest the %d cells lie within %.0f mV of each other, the middle one at %.3f V.",
                        cells.size(), 1000 * (most - least), middleVolts));
        reasons.add(
                text(
                        "With each ampere they spread by %.2f mV; the middle one drops %.2f mV an ampere, the steepest %.2f.",
                        steepest - flattest, middleOhms, steepest));
        reasons.add(text("Judged over %.0f A of change in current.", span));
        if (!apart.isEmpty()) {
            return new Verdict(
                    AT_REST,
                    text(
                            "%s lies %s from its fellows at rest as well: the cell, not its lead.",
                            named(apart),
                            told(
                                    apart,
                                    c -> text("%+.0f mV", 1000 * (c.restVolts() - middleVolts)))),
                    reasons,
                    cells,
                    span);
        }
        if (!steep.isEmpty()) {
            return new Verdict(
                    WITH_CURRENT,
                    text(
                            "%s drops %s with each ampere where the middle one drops %.1f mV, and lies with its fellows at rest: resistance in its sense lead, not an empty cell.",
                            named(steep),
                            told(steep, c -> text("%.1f mV", c.milliohms())),
                            middleOhms),
                    reasons,
                    cells,
                    span);
        }
        return new Verdict(
                TOGETHER,
                "The cells stay together, at rest and under current.",
                reasons,
                cells,
                span);
    }

    private static String named(List<Cell> cells) {
        return cells.size() > NAMED
                ? Words.count(cells.size(), "cell") + ", " + numbers(cells.subList(0, NAMED)) + " …"
                : (cells.size() == 1 ? "Cell " : "Cells ") + numbers(cells);
    }

    private static String numbers(List<Cell> cells) {
        return String.join(", ", cells.stream().map(c -> String.valueOf(c.number())).toList());
    }

    private static String told(List<Cell> cells, Function<Cell, String> how) {
        return String.join(", ", cells.stream().limit(NAMED).map(how).toList());
    }

    private static double median(double[] of) {
        return new Median().evaluate(of);
    }

    private static double deviation(double[] of, double middle) {
        double[] away = new double[of.length];
        for (int i = 0; i < of.length; i++) {
            away[i] = Math.abs(of[i] - middle);
        }
        return TO_DEVIATION * median(away);
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
