package brightlantern.app.capture;

import brightlantern.app.page.Drawings;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureReading;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.bus.BusReading;
import brightlantern.core.signal.Units;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** Captures in which something was found, lane below lane. */
@Component
class CaptureDrawings implements Drawings {
    private static final int MOST = 2;

    /** To read a long capture takes its time; what decided is among the newest. */
    private static final int MOST_READ = 6;

    private static final int LEFT = 130;
    private static final int COLUMNS = 700;
    private static final int LANE = 70;
    private static final double USED = 0.8;

    /** Of a bus so much is drawn: edges that stand closer are a block of ink. */
    private static final double BUS_BITS = 150;

    private final Captures captures;
    private final CaptureJudge judge;
    private final UnitChoices units;

    CaptureDrawings(Captures captures, CaptureJudge judge, UnitChoices units) {
        this.captures = captures;
        this.judge = judge;
        this.units = units;
    }

    /**
     * @param span how long what is drawn is, in words
     */
    record Paper(int width, int height, List<Row> lanes, String span) {}

    /**
     * @param range least and most, in words
     * @param path least to most of each column
     */
    record Row(String name, String range, int y, String path) {}

    @Override
    public List<Drawing> of(JobPages.Context context, Instant repaired) {
        List<Drawing> drawings = new ArrayList<>();
        List<Captures.Head> heads =
                captures.of(context.job().id()).stream()
                        .filter(h -> h.began().isBefore(repaired))
                        .limit(MOST_READ)
                        .toList();
        for (Captures.Head head : heads) {
            if (drawings.size() >= MOST) {
                break;
            }
            captures.open(head)
                    .ifPresent(
                            opened -> {
                                CaptureStudy.Read read =
                                        judge.read(opened, context.job(), context.description());
                                read.as(CaptureReading.class)
                                        .filter(r -> !r.holds())
                                        .ifPresent(r -> drawings.add(drawn(opened, r)));
                            });
        }
        return drawings;
    }

    private Drawing drawn(Captures.Opened opened, CaptureReading read) {
        Capture capture = opened.capture();
        int length = capture.length();
        if (read instanceof BusReading wires) {
            double bits = BUS_BITS / (1000 * wires.bus().kbit());
            length = (int) Math.max(2, Math.min(length, Math.round(bits / capture.interval())));
        }
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < capture.lanes().size(); i++) {
            rows.add(
                    row(
                            capture.lanes().get(i),
                            opened.extents().get(i).of(0, length, COLUMNS),
                            LANE * (i + 1)));
        }
        double seconds = length * capture.interval();
        return new Drawing(
                opened.head().name() + ": " + read.sentence(),
                "capture/capture-paper",
                new Paper(
                        LEFT + COLUMNS + 10,
                        LANE * rows.size() + 34,
                        rows,
                        seconds < 0.1
                                ? String.format(Locale.ROOT, "%.3f ms", 1000 * seconds)
                                : String.format(Locale.ROOT, "%.2f s", seconds)));
    }

    private Row row(Lane lane, short[] extents, int bottom) {
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
        return new Row(
                lane.name(),
                told(lane, least) + " to " + told(lane, most) + " " + units.unit(lane.unit()),
                bottom,
                path.toString());
    }

    private String told(Lane lane, int step) {
        double value =
                Units.convert(
                        lane.offset() + lane.scale() * step, lane.unit(), units.unit(lane.unit()));
        return Units.told(value);
    }
}
