package brightlantern.app.capture;

import brightlantern.app.page.Format;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureAlignment;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.bus.BusReading;
import brightlantern.core.capture.bus.CanFrame;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * The page of one capture, ready to be shown.
 *
 * @param answer what was read in it, in a sentence
 * @param reasons of the answer
 * @param tables what was read, a row for each cylinder, module, current, spark or train of pulses
 * @param frames the first ones that were read of a bus
 * @param others captures that can be laid under it
 * @param going whether it is being recorded, so that nothing can be read in it yet
 */
record CaptureView(
        Captures.Head head,
        String told,
        String answer,
        List<String> reasons,
        List<CaptureTable> tables,
        List<Frame> frames,
        List<LaneRow> lanes,
        List<Choice> others,
        boolean going) {
    private static final int MOST_FRAMES = 60;

    /** A frame as it was read. */
    record Frame(String at, String words, String from, String state) {}

    /**
     * @param late milliseconds by which its instrument began later than the first one
     */
    record LaneRow(
            int index, String name, String unit, String place, String late, List<Choice> roles) {}

    record Choice(String id, String name, boolean here) {}

    /** Ways to lay another one under it. */
    public CaptureAlignment.By[] ways() {
        return CaptureAlignment.By.values();
    }

    /** One that is being recorded: it is looked at, and read when it has ended. */
    static CaptureView growing(Captures.Head head) {
        return new CaptureView(
                head,
                String.format(
                        Locale.ROOT,
                        "%s, by %s: %s.",
                        Format.time(head.began()),
                        head.who(),
                        Words.count(head.lanes().size(), "lane")),
                "It is being recorded, and shown as it comes in.",
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                true);
    }

    static CaptureView of(
            Captures.Opened opened,
            CaptureStudy.Read read,
            List<Captures.Head> others,
            long beside) {
        Capture capture = opened.capture();
        return new CaptureView(
                opened.head(),
                String.format(
                        Locale.ROOT,
                        "%s, by %s: %s, %s.",
                        Format.time(opened.head().began()),
                        opened.head().who(),
                        Words.count(capture.lanes().size(), "lane"),
                        capture.pace()),
                answer(read),
                read.reasons(),
                CaptureTable.of(read, capture),
                frames(read),
                lanes(opened.head(), capture),
                others.stream()
                        .map(
                                h ->
                                        new Choice(
                                                "" + h.id(),
                                                h.name() + ", " + Format.time(h.began()),
                                                h.id() == beside))
                        .toList(),
                false);
    }

    private static String answer(CaptureStudy.Read read) {
        String sentence =
                read.sentence().isEmpty() ? "What happened between two readings?" : read.sentence();
        return read.as(CrankingStudy.Judgement.class)
                .map(
                        j ->
                                String.format(
                                        Locale.ROOT,
                                        "%s Read from %s at %.0f rpm.",
                                        sentence,
                                        Words.count(j.cycles(), "cycle"),
                                        j.rpm()))
                .orElse(sentence);
    }

    private static List<Frame> frames(CaptureStudy.Read read) {
        Optional<BusReading> of = read.as(BusReading.class);
        if (of.isEmpty()) {
            return List.of();
        }
        BusReading wires = of.get();
        Map<Integer, String> senders = new HashMap<>();
        wires.stations().forEach(s -> senders.put(s.frame(), s.name()));
        return wires.judgement().frames().stream()
                .limit(MOST_FRAMES)
                .map(
                        f ->
                                new Frame(
                                        String.format(Locale.ROOT, "%.3f ms", 1000 * f.seconds()),
                                        f.words(),
                                        senders.getOrDefault(f.id(), "not known"),
                                        state(f)))
                .toList();
    }

    private static String state(CanFrame frame) {
        if (!frame.sound()) {
            return "checksum wrong";
        }
        return frame.acknowledged() ? "taken" : "nobody took it";
    }

    private static List<LaneRow> lanes(Captures.Head head, Capture capture) {
        List<LaneRow> rows = new ArrayList<>();
        for (int i = 0; i < capture.lanes().size(); i++) {
            Lane lane = capture.lanes().get(i);
            List<Choice> roles = new ArrayList<>();
            for (LaneRole role : LaneRole.values()) {
                roles.add(new Choice(role.name(), role.words(), role == lane.role()));
            }
            rows.add(
                    new LaneRow(
                            i,
                            lane.name(),
                            lane.unit(),
                            lane.place(),
                            head.lanes().get(i).apart()
                                    ? "?"
                                    : String.format(
                                            Locale.ROOT, "%.3f", 1000 * head.lanes().get(i).late()),
                            roles));
        }
        return rows;
    }
}
