package brightlantern.core.reason;

import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CurrentStudy;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.ConsumerKind;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.suspect.Check;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;

/** How what is wrong in circuits with gauges is looked for. */
final class DrawnChecks {
    private static final double READING_MINUTES = 1;
    private static final double SETTING_MINUTES = 0.5;
    private static final double UNPLUG_MINUTES = 1.5;
    private static final double SEE_MINUTES = 0.6;
    private static final double VALUE_MINUTES = 0.4;
    private static final double COMPARE_MINUTES = 5;
    private static final double OPEN_MINUTES = 2.5;

    /** To lead a fused wire from the battery to a pin, and to look. */
    private static final double FEED_MINUTES = 3;

    private static final double OHMS_MINUTES = 2.5;
    private static final double CLAMP_MINUTES = 1.5;

    /** Two clamps, and some seconds of idle. */
    private static final double RECORD_MINUTES = 8;

    private static final double ALONG_MINUTES = 9;
    private static final double BEHIND_MINUTES = 6;

    private final List<Circuit> circuits;
    private final Map<String, Shaken> shaken;

    DrawnChecks(List<Circuit> circuits, Map<String, Shaken> shaken) {
        this.circuits = circuits;
        this.shaken = shaken;
    }

    /** Tells of wires, and of fuses that they may blow, each with its circuit. */
    interface Rubs {
        void each(BiConsumer<Circuit, Segment> wires, BiConsumer<Circuit, Segment> fuses);
    }

    /** A look at every gauge, and a reading at every point that can be reached. */
    List<Check> all(Rubs rubs) {
        Set<Check> all = new LinkedHashSet<>();
        for (Circuit c : circuits) {
            c.gauges().stream().filter(DrawnCircuits::isLookedAt).forEach(g -> all.add(look(c, g)));
            for (Segment s : c.segments()) {
                s.pin().ifPresent(pin -> all.add(opened(pin.plug(), c.point(s.from()))));
            }
            for (ProbePoint p : c.points()) {
                if (CircuitSuspects.tells(p)) {
                    ProbeCondition.of(c, p.id()).forEach(k -> all.add(reading(c, p, k)));
                }
            }
        }
        shaken.values().forEach(s -> all.add(s.check()));
        rubs.each((c, wire) -> all.add(along(c, wire)), (c, fuse) -> all.add(behind(fuse)));
        return List.copyOf(all);
    }

    private static Check along(Circuit c, Segment wire) {
        String finding = DrawnCircuits.along(wire.id());
        return look(
                finding,
                "Look along " + DrawnSuspects.lower(wire.name()) + DrawnSuspects.between(c, wire),
                finding,
                ALONG_MINUTES,
                "No meter tells where a wire has rubbed through, or is broken inside and touches now and then; eyes and fingers do.");
    }

    private static Check behind(Segment fuse) {
        String finding = DrawnCircuits.behind(fuse.id());
        return look(
                finding,
                "Put a test lamp in the place of "
                        + DrawnSuspects.lower(fuse.name())
                        + ", all that it feeds unplugged",
                finding,
                BEHIND_MINUTES,
                "A lamp that is bright has found the body: a wire behind the fuse touches it, and a new fuse would blow.");
    }

    private static Check look(Circuit c, Gauge g) {
        double reach = c.point(g.from()).minutes();
        String it = DrawnCircuits.named(c, g);
        if (g.isOff()) {
            return look(
                    g,
                    "Look at: " + it,
                    SEE_MINUTES,
                    "What goes on without being switched on gets its current through something that should be open.");
        }
        if (g.isAcross()) {
            return look(
                    g,
                    g.name(),
                    reach + c.point(g.to()).minutes() + READING_MINUTES,
                    "What is lost between both ends is lost on the wire, whatever the sensor feels.");
        }
        if (g.isOhms()) {
            return look(
                    g,
                    "Measure: " + DrawnSuspects.lower(it),
                    reach + OHMS_MINUTES,
                    "By itself, with nothing beside it, a part tells whether it is whole.");
        }
        if (g.isClamped() && CurrentStudy.reads(g.part())) {
            return new Check.Look(
                    "look-" + g.id(),
                    "Record the currents of an idle: " + DrawnSuspects.lower(g.name()),
                    "probe",
                    List.of(g.findingId()),
                    RECORD_MINUTES,
                    "A ramp tells what is in its way, beside those of its fellows, and nothing is unplugged.",
                    "captures?plan=" + CapturePlan.CURRENTS,
                    true);
        }
        if (g.isClamped()) {
            return look(
                    g,
                    "Measure: " + DrawnSuspects.lower(it),
                    reach + CLAMP_MINUTES,
                    "It tells whether current flows, and enough of it, while everything stays plugged.");
        }
        if (g.isFed()) {
            return look(
                    g,
                    "Feed it: " + g.name() + ", by a lead with a fuse of its own",
                    c.point(g.fedAt(c)).minutes() + FEED_MINUTES,
                    "What lives then has a sound earth, and lacks what should come to its pin; what stays dead does not lack that.");
        }
        if (g.isCompared()) {
            return look(
                    g,
                    "Compare: " + g.name(),
                    reach + COMPARE_MINUTES,
                    "A sensor that tells a wrong figure shows nothing on a meter; another instrument at the same place does.");
        }
        if (g.feedsModule()) {
            return look(
                    g,
                    "Ask what the "
                            + DrawnSuspects.lower(g.name())
                            + " tells of its own supply, if it answers",
                    VALUE_MINUTES,
                    "A module measures what arrives at its pins, and tells it before anything is opened.");
        }
        return look(
                g,
                (g.told()
                                ? "Look at: "
                                : g.isSeen()
                                        ? "Listen to it, or put a hand on it: "
                                        : "Ask what its module tells of: ")
                        + it,
                g.told()
                        ? SEE_MINUTES
                        : VALUE_MINUTES + (isRelay(c, g) ? c.point(g.to()).minutes() / 2 : 0),
                "It shows without a meter whether anything arrives.");
    }

    /** A hand on a relay needs half the way to its pins. */
    private static boolean isRelay(Circuit c, Gauge g) {
        return c.component(g.part()).orElse(null) instanceof Consumer k
                && k.kind() == ConsumerKind.RELAY;
    }

    private static Check look(Gauge g, String name, double minutes, String why) {
        return look("look-" + g.id(), name, g.findingId(), minutes, why);
    }

    private static Check look(String id, String name, String finding, double minutes, String why) {
        return new Check.Look(id, name, "trace", List.of(finding), minutes, why, "");
    }

    private static Check opened(String plug, ProbePoint at) {
        return look(
                "open-" + plug,
                "Unplug " + plug + ", look at its pins and pull at each (" + at.place() + ")",
                DrawnCircuits.lookedAt(plug),
                at.minutes() + OPEN_MINUTES,
                "No meter reaches between a pin and what it leads to; eyes and fingers do.");
    }

    private static Check reading(Circuit c, ProbePoint p, ProbeCondition k) {
        return new Check.Reading(
                CircuitSuspects.PREFIX + c.id() + "-" + p.id() + "-" + k.id(),
                "Meter at " + p.name() + ", " + k.name(c),
                "probe",
                c.id(),
                List.of(p.id()),
                k.motors(),
                "nothing",
                p.minutes()
                        + READING_MINUTES
                        + (k.unplugs()
                                ? UNPLUG_MINUTES
                                : k.moving().isPresent() ? SETTING_MINUTES : 0),
                k.unplugs()
                        ? "Without what hangs on it a wire shows what it brings by itself."
                        : "It tells the part of the path before this point from the part behind it.");
    }
}
