package brightlantern.app.capture;

import brightlantern.app.page.Format;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CylinderSigns;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.Pulses;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * The page of one capture, ready to be shown.
 *
 * @param answer what was read in it, in a sentence
 * @param reasons of the answer
 * @param signs a row for each cylinder; empty when none could be told apart
 * @param pulses a row for each lane with a train of pulses
 * @param others captures that can be laid under it
 */
record CaptureView(
        Captures.Head head,
        String told,
        String answer,
        List<String> reasons,
        List<Signs> signs,
        List<LaneRow> lanes,
        List<Train> pulses,
        List<Choice> others) {
    /**
     * @param named whether the answer names this cylinder
     */
    record Signs(
            int cylinder,
            String compression,
            String intake,
            String exhaust,
            String crankcase,
            String left,
            boolean named) {}

    record LaneRow(int index, String name, String unit, String place, List<Choice> roles) {}

    /** What a lane's pulses are like. */
    record Train(String lane, String rate, String width, String duty, String odd) {}

    record Choice(String id, String name, boolean here) {}

    static CaptureView of(
            Captures.Opened opened,
            Optional<CaptureJudge.Cranking> cranking,
            List<Captures.Head> others,
            long beside) {
        Capture capture = opened.capture();
        return new CaptureView(
                opened.head(),
                String.format(
                        Locale.ROOT,
                        "%s, by %s: %s, %.1f s, %s a second.",
                        Format.time(opened.head().began()),
                        opened.head().who(),
                        Words.count(capture.lanes().size(), "lane"),
                        capture.seconds(),
                        Words.count(Math.round(capture.rate()), "sample")),
                cranking.map(CaptureView::answer).orElse("What happened between two readings?"),
                cranking.flatMap(CaptureJudge.Cranking::judgement)
                        .map(j -> j.reasons())
                        .orElse(List.of()),
                signs(cranking),
                lanes(capture),
                pulses(capture),
                others.stream()
                        .map(
                                h ->
                                        new Choice(
                                                "" + h.id(),
                                                h.name() + ", " + Format.time(h.began()),
                                                h.id() == beside))
                        .toList());
    }

    private static String answer(CaptureJudge.Cranking cranking) {
        return cranking.judgement()
                .map(
                        j ->
                                String.format(
                                        Locale.ROOT,
                                        "%s Read from %s at %.0f rpm.",
                                        j.sentence(),
                                        Words.count(j.cycles(), "cycle"),
                                        j.rpm()))
                .orElse("Cylinders cannot be compared in it. " + cranking.whyNot());
    }

    private static List<Signs> signs(Optional<CaptureJudge.Cranking> cranking) {
        return cranking.flatMap(CaptureJudge.Cranking::judgement).stream()
                .flatMap(
                        j ->
                                j.cylinders().stream()
                                        .map(
                                                c ->
                                                        signs(
                                                                c,
                                                                j.outcome()
                                                                        .endsWith(
                                                                                "-"
                                                                                        + c
                                                                                                .cylinder()))))
                .toList();
    }

    private static Signs signs(CylinderSigns c, boolean named) {
        return new Signs(
                c.cylinder(),
                share(c.compression(), "%.0f %%"),
                share(c.intake(), "%+.0f %%"),
                share(c.exhaust(), "%+.0f %%"),
                share(c.crankcase(), "%+.0f %%"),
                share(c.left(), "%+.0f %%"),
                named);
    }

    private static String share(double share, String format) {
        return Double.isNaN(share) ? "–" : String.format(Locale.ROOT, format, 100 * share);
    }

    private static List<LaneRow> lanes(Capture capture) {
        List<LaneRow> rows = new ArrayList<>();
        for (int i = 0; i < capture.lanes().size(); i++) {
            Lane lane = capture.lanes().get(i);
            List<Choice> roles = new ArrayList<>();
            for (LaneRole role : LaneRole.values()) {
                roles.add(new Choice(role.name(), role.words(), role == lane.role()));
            }
            rows.add(new LaneRow(i, lane.name(), lane.unit(), lane.place(), roles));
        }
        return rows;
    }

    private static List<Train> pulses(Capture capture) {
        return capture.lanes().stream()
                .filter(l -> l.role().isSwitched())
                .flatMap(
                        l ->
                                Pulses.of(l, capture.interval())
                                        .filter(Pulses::isTrain)
                                        .map(p -> train(l.name(), p))
                                        .stream())
                .toList();
    }

    private static Train train(String lane, Pulses p) {
        int missing = p.missing().size();
        int extra = p.extra().size();
        String odd =
                missing + extra == 0
                        ? "none"
                        : missing
                                + " missing, "
                                + extra
                                + " too many, the first at "
                                + String.format(
                                        Locale.ROOT,
                                        "%.3f s",
                                        missing > 0 ? p.missing().get(0) : p.extra().get(0));
        return new Train(
                lane,
                String.format(Locale.ROOT, "%.2f Hz", 1 / p.period()),
                String.format(Locale.ROOT, "%.2f ms", 1000 * p.width()),
                String.format(Locale.ROOT, "%.1f %%", 100 * p.duty()),
                odd);
    }
}
