package brightlantern.app.capture;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.CurrentRamp;
import brightlantern.core.capture.CurrentStudy;
import brightlantern.core.capture.CylinderSigns;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.Pulses;
import brightlantern.core.capture.Ringing;
import brightlantern.core.capture.SparkStudy;
import brightlantern.core.capture.ToothStudy;
import brightlantern.core.capture.bus.BusReading;
import brightlantern.core.capture.bus.BusStudy;
import brightlantern.core.capture.bus.SentFrames;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * What was read in a capture, one beside the other.
 *
 * @param heads of its columns, the first one that of the names
 * @param odd what is said of a row that is not as the others are
 * @param note beneath it; may be empty
 */
record CaptureTable(
        String id, String title, List<String> heads, List<Row> rows, String odd, String note) {
    private static final String NONE = "–";
    private static final String STANDS_OUT = "stands out";

    record Row(List<String> cells, boolean odd) {
        Row {
            cells = List.copyOf(cells);
        }
    }

    CaptureTable {
        heads = List.copyOf(heads);
        rows = List.copyOf(rows);
    }

    /** The head of a column where each row stands for itself, as on a phone. */
    public String label(int column) {
        String head = heads.get(column);
        return head.substring(0, 1).toUpperCase(Locale.ROOT) + head.substring(1);
    }

    /** All that have a row. */
    static List<CaptureTable> of(CaptureStudy.Read read, Capture capture) {
        return Stream.of(
                        read.as(CrankingStudy.Judgement.class).map(CaptureTable::signs),
                        read.as(CurrentStudy.Judgement.class).map(CaptureTable::currents),
                        read.as(ToothStudy.Judgement.class).map(CaptureTable::gains),
                        read.as(SparkStudy.Judgement.class).map(CaptureTable::sparks),
                        read.as(BusReading.class).map(CaptureTable::stations),
                        Optional.of(pulses(capture)))
                .flatMap(Optional::stream)
                .filter(t -> !t.rows().isEmpty())
                .toList();
    }

    private static CaptureTable signs(CrankingStudy.Judgement j) {
        return new CaptureTable(
                "signs",
                "Cylinder by cylinder",
                List.of(
                        "Cylinder",
                        "compression",
                        "gas into intake",
                        "into exhaust",
                        "into crankcase",
                        "left when exhaust opens"),
                j.cylinders().stream()
                        .map(c -> signs(c, j.outcome().endsWith("-" + c.cylinder())))
                        .toList(),
                STANDS_OUT,
                "Each against the middle cylinder. Compression: peak of the starting current. Gas: what comes near the compression dead centre, as a share of the lane's own swing.");
    }

    private static Row signs(CylinderSigns c, boolean named) {
        return new Row(
                List.of(
                        "" + c.cylinder(),
                        figure(100 * c.compression(), "%.0f %%"),
                        figure(100 * c.intake(), "%+.0f %%"),
                        figure(100 * c.exhaust(), "%+.0f %%"),
                        figure(100 * c.crankcase(), "%+.0f %%"),
                        figure(100 * c.left(), "%+.0f %%")),
                named);
    }

    private static CaptureTable currents(CurrentStudy.Judgement j) {
        return new CaptureTable(
                "currents",
                "Current by current",
                List.of(
                        "What draws it",
                        "in the end",
                        "when switched off",
                        "two thirds after",
                        "on for",
                        "armature moves at"),
                j.drawn().stream().map(CaptureTable::current).toList(),
                STANDS_OUT,
                "In the end: what the ramp would come to if it went on, which tells the ohms in its way. A coil that is switched off before that never gets there.");
    }

    private static Row current(CurrentStudy.Drawn d) {
        return new Row(
                List.of(
                        d.name(),
                        d.ramp().map(r -> figure(r.amps(), "%.2f A")).orElse("none"),
                        of(d, CurrentRamp::ends, "%.2f A"),
                        of(d, r -> 1000 * r.rises(), "%.2f ms"),
                        of(d, r -> 1000 * r.lasts(), "%.2f ms"),
                        of(d, r -> 1000 * r.moves(), "%.2f ms")),
                !d.isRight());
    }

    private static String of(
            CurrentStudy.Drawn d, ToDoubleFunction<CurrentRamp> what, String format) {
        return d.ramp().map(r -> figure(what.applyAsDouble(r), format)).orElse(NONE);
    }

    private static CaptureTable gains(ToothStudy.Judgement j) {
        List<Row> rows = new ArrayList<>();
        for (int k = 0; k < j.gains().size(); k++) {
            String own = j.own().isEmpty() ? "not asked" : figure(j.own().get(k), "%+.1f rpm");
            rows.add(
                    new Row(
                            List.of("" + (k + 1), figure(j.gains().get(k), "%+.1f rpm"), own),
                            j.isSeenOtherwise(k + 1)));
        }
        return new CaptureTable(
                "gains",
                "What each cylinder adds",
                List.of("Cylinder", "by the teeth", "as its module sees it"),
                rows,
                "far apart",
                "Speed that a cylinder adds to the crank against the others. The teeth tell it of these seconds alone, the module of many more turns: some rpm apart is usual.");
    }

    private static CaptureTable sparks(SparkStudy.Judgement j) {
        return new CaptureTable(
                "sparks",
                "Spark by spark",
                List.of("Cylinder", "breaks over at", "burns at", "for", "of its cycles"),
                j.sparks().stream()
                        .map(
                                s ->
                                        new Row(
                                                List.of(
                                                        "" + s.cylinder(),
                                                        figure(s.kilovolts(), "%.1f kV"),
                                                        figure(s.burnsAt(), "%.2f kV"),
                                                        figure(1000 * s.seconds(), "%.2f ms"),
                                                        figure(100 * s.burns(), "%.0f %%")),
                                                !s.isRight()))
                        .toList(),
                STANDS_OUT,
                "What breaks over at more and burns for less has a wider gap; what never burns leaks, or gets nothing.");
    }

    private static CaptureTable stations(BusReading wires) {
        BusStudy.Judgement judgement = wires.judgement();
        return new CaptureTable(
                "stations",
                "Module by module",
                List.of(
                        "Frames of",
                        "frames",
                        "one every",
                        "bytes",
                        "high wire, near",
                        "low wire, near",
                        "high wire, far",
                        "low wire, far"),
                IntStream.range(0, judgement.levels().size())
                        .mapToObj(i -> station(judgement.levels().get(i), judgement.sent().get(i)))
                        .toList(),
                "lost on the way",
                "How far each wire moves to its own side while that module holds the bus; about 1.1 V each is right.");
    }

    private static Row station(BusStudy.Levels l, SentFrames sent) {
        return new Row(
                List.of(
                        l.station(),
                        "" + l.frames(),
                        figure(sent.everyMs(), "%.1f ms"),
                        sent.bytes(),
                        figure(l.highNear(), "%.2f V"),
                        figure(l.lowNear(), "%.2f V"),
                        figure(l.highFar(), "%.2f V"),
                        figure(l.lowFar(), "%.2f V")),
                l.frames() > 0 && !(l.near() && l.far()));
    }

    private static CaptureTable pulses(Capture capture) {
        List<Row> rows =
                capture.lanes().parallelStream()
                        .filter(l -> l.role().isSwitched())
                        .flatMap(
                                l ->
                                        Pulses.of(l, capture.interval()).stream()
                                                .filter(p -> p.isTrain() && !p.isNoise())
                                                .map(p -> train(l, p, capture.interval())))
                        .toList();
        return new CaptureTable(
                "pulses",
                "Pulses",
                List.of(
                        "Lane",
                        "frequency",
                        "jitter",
                        "width",
                        "duty",
                        "from, to",
                        "rings",
                        "odd ones"),
                rows,
                "",
                "");
    }

    private static Row train(Lane lane, Pulses p, double interval) {
        int missing = p.missing().size();
        int extra = p.extra().size();
        String odd =
                missing + extra == 0
                        ? "none"
                        : String.format(
                                Locale.ROOT,
                                "%d missing, %d too many, the first at %.3f s",
                                missing,
                                extra,
                                missing > 0 ? p.missing().get(0) : p.extra().get(0));
        return new Row(
                List.of(
                        lane.name(),
                        figure(1 / p.period(), "%.2f Hz"),
                        figure(1000 * p.jitter(), "%.3f ms"),
                        figure(1000 * p.width(), "%.2f ms"),
                        figure(100 * p.duty(), "%.1f %%"),
                        String.format(Locale.ROOT, "%.2f, %.2f %s", p.low(), p.high(), lane.unit()),
                        Ringing.of(lane, interval, p)
                                .map(r -> figure(r.hertz() / 1000, "%.1f kHz"))
                                .orElse(NONE),
                        odd),
                false);
    }

    /** A dash where there is none; no sign before what is rounded to nothing. */
    private static String figure(double of, String format) {
        return Double.isNaN(of)
                ? NONE
                : String.format(Locale.ROOT, format, of).replaceFirst("^[+-](0(\\.0+)? )", "$1");
    }
}
