package brightlantern.app.capture;

import brightlantern.app.page.Format;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.CurrentStudy;
import brightlantern.core.capture.CylinderSigns;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.Pulses;
import brightlantern.core.capture.bus.BusReading;
import brightlantern.core.capture.bus.BusStudy;
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
 * @param signs a row for each cylinder; empty when none could be told apart
 * @param stations a row for each module of a bus; empty for another capture
 * @param frames the first ones that were read of a bus
 * @param currents a row for each coil and injector; empty for another capture
 * @param pulses a row for each lane with a train of pulses
 * @param others captures that can be laid under it
 */
record CaptureView(
        Captures.Head head,
        String told,
        String answer,
        List<String> reasons,
        List<Signs> signs,
        List<Station> stations,
        List<Frame> frames,
        List<Current> currents,
        List<LaneRow> lanes,
        List<Train> pulses,
        List<Choice> others) {
    private static final int MOST_FRAMES = 60;

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

    /**
     * How a module's frames move the wires at both ends.
     *
     * @param odd whether one of them does not come as it should
     */
    record Station(
            String name,
            int frames,
            String highNear,
            String lowNear,
            String highFar,
            String lowFar,
            boolean odd) {}

    /** A frame as it was read. */
    record Frame(String at, String words, String from, String state) {}

    /**
     * What one coil or injector draws.
     *
     * @param odd whether it does not draw what it should
     */
    record Current(
            String name,
            String amps,
            String ends,
            String rises,
            String lasts,
            String moves,
            boolean odd) {}

    record LaneRow(int index, String name, String unit, String place, List<Choice> roles) {}

    /** What a lane's pulses are like. */
    record Train(String lane, String rate, String width, String duty, String odd) {}

    record Choice(String id, String name, boolean here) {}

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
                signs(read),
                stations(read),
                frames(read),
                currents(read),
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

    private static List<Signs> signs(CaptureStudy.Read read) {
        return read.as(CrankingStudy.Judgement.class).stream()
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

    private static List<Station> stations(CaptureStudy.Read read) {
        return read.as(BusReading.class).stream()
                .flatMap(w -> w.judgement().levels().stream())
                .map(CaptureView::station)
                .toList();
    }

    private static List<Current> currents(CaptureStudy.Read read) {
        return read.as(CurrentStudy.Judgement.class).stream()
                .flatMap(j -> j.drawn().stream())
                .map(CaptureView::current)
                .toList();
    }

    private static Current current(CurrentStudy.Drawn d) {
        return new Current(
                d.name(),
                d.ramp().map(r -> figure(r.amps(), "%.2f A")).orElse("none"),
                d.ramp().map(r -> figure(r.ends(), "%.2f A")).orElse("–"),
                d.ramp().map(r -> figure(1000 * r.rises(), "%.2f ms")).orElse("–"),
                d.ramp().map(r -> figure(1000 * r.lasts(), "%.2f ms")).orElse("–"),
                d.ramp().map(r -> figure(1000 * r.moves(), "%.2f ms")).orElse("–"),
                !d.isRight());
    }

    private static String figure(double of, String format) {
        return Double.isNaN(of) ? "–" : String.format(Locale.ROOT, format, of);
    }

    private static Station station(BusStudy.Levels l) {
        return new Station(
                l.station(),
                l.frames(),
                volts(l.highNear()),
                volts(l.lowNear()),
                volts(l.highFar()),
                volts(l.lowFar()),
                l.frames() > 0 && !(l.near() && l.far()));
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

    private static String volts(double volts) {
        return figure(volts, "%.2f V");
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
        return figure(100 * share, format);
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
