package brightlantern.app.sweep;

import brightlantern.app.page.UnitChoices;
import brightlantern.core.odometer.MileageRecord;
import brightlantern.core.odometer.OdometerCheck;
import brightlantern.core.signal.Units;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * All records of distance on one line of time: dated entries where they stand, what is counted to
 * this day at its right end, hours and counts as the range that they stand for. Figures in SVG
 * units.
 *
 * @param years where a year begins
 * @param heights where a round distance stands
 */
record OdometerChart(
        List<Tick> years,
        List<Tick> heights,
        List<Dot> dots,
        List<Span> spans,
        double shownY,
        String unit) {
    static final int WIDTH = 860;
    static final int HEIGHT = 260;
    private static final int LEFT = 70;
    private static final int RIGHT = 150;
    private static final int TOP = 14;
    private static final int BOTTOM = 30;
    private static final double YEAR_SECONDS = 31_557_600;

    /** At most so many round distances beside the chart. */
    private static final int MOST_HEIGHTS = 6;

    record Tick(double at, String text) {}

    /**
     * @param tone holds, fails or soft
     */
    record Dot(double x, double y, String tone, String told) {}

    record Span(double x, double from, double to, String tone, String told) {}

    /**
     * @param now seconds since 1970
     * @param shown km on the odometer
     * @param units in which whoever asks reads
     */
    static OdometerChart of(
            OdometerCheck.Verdict verdict, double now, double shown, UnitChoices units) {
        String unit = units.unit("km");
        double first = now - YEAR_SECONDS;
        double most = Math.max(1, shown);
        for (OdometerCheck.Row row : verdict.rows()) {
            if (dated(row.record())) {
                first = Math.min(first, row.record().epochSeconds().getAsDouble());
            }
            most = Double.isFinite(row.mostKm()) ? Math.max(most, row.mostKm()) : most;
        }
        Scale scale = new Scale(first, now, most);
        List<Dot> dots = new ArrayList<>();
        List<Span> spans = new ArrayList<>();
        int column = 0;
        for (OdometerCheck.Row row : verdict.rows()) {
            if (!Double.isFinite(row.leastKm())) {
                continue;
            }
            String told =
                    units.read(row.record().name() + ": " + row.says().words() + ". " + row.why());
            String tone = tone(row.says());
            if (dated(row.record())) {
                dots.add(
                        new Dot(
                                scale.x(row.record().epochSeconds().getAsDouble()),
                                scale.y(row.leastKm()),
                                tone,
                                told));
            } else {
                double x = WIDTH - RIGHT + 20 + 18 * column++;
                if (row.mostKm() > row.leastKm()) {
                    spans.add(
                            new Span(
                                    x,
                                    scale.y(row.mostKm()),
                                    Math.max(3, scale.y(row.leastKm()) - scale.y(row.mostKm())),
                                    tone,
                                    told));
                } else {
                    dots.add(new Dot(x, scale.y(row.leastKm()), tone, told));
                }
            }
        }
        return new OdometerChart(
                years(scale, first, now),
                heights(scale, most, unit),
                dots,
                spans,
                scale.y(shown),
                unit);
    }

    private static boolean dated(MileageRecord record) {
        return record.epochSeconds().isPresent();
    }

    private static String tone(OdometerCheck.Says says) {
        return switch (says) {
            case CONTRADICTS -> "fails";
            case AGREES -> "holds";
            default -> "soft";
        };
    }

    private record Scale(double first, double now, double most) {
        double x(double seconds) {
            double share = (seconds - first) / (now - first);
            return LEFT + Math.max(0, Math.min(1, share)) * (WIDTH - LEFT - RIGHT);
        }

        double y(double km) {
            return HEIGHT - BOTTOM - Math.max(0, km) / most * (HEIGHT - TOP - BOTTOM);
        }
    }

    private static List<Tick> years(Scale scale, double first, double now) {
        List<Tick> ticks = new ArrayList<>();
        int from = year(first) + 1;
        int to = year(now);
        int step = Math.max(1, (to - from) / 8);
        for (int year = from; year <= to; year += step) {
            double start = Instant.parse(year + "-01-01T00:00:00Z").getEpochSecond();
            ticks.add(new Tick(scale.x(start), String.valueOf(year)));
        }
        return ticks;
    }

    private static int year(double seconds) {
        return Instant.ofEpochSecond((long) seconds).atZone(ZoneOffset.UTC).getYear();
    }

    private static List<Tick> heights(Scale scale, double mostKm, String unit) {
        double most = Units.convert(mostKm, "km", unit);
        double step = Math.pow(10, Math.floor(Math.log10(most)));
        while (most / step > MOST_HEIGHTS) {
            step *= 2;
        }
        while (most / step < MOST_HEIGHTS / 2.0) {
            step /= 2;
        }
        List<Tick> ticks = new ArrayList<>();
        for (double at = 0; at <= most; at += step) {
            double y = scale.y(Units.convert(at, unit, "km"));
            ticks.add(new Tick(y, String.format(Locale.ROOT, "%,.0f", at)));
        }
        return ticks;
    }
}
