package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.Shorts;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;

/**
 * What follows from circuits with gauges: how a fault in them is noticed, which codes are set,
 * which parts can break and how it is looked for. Nothing of it is written for a single part.
 */
final class DrawnCircuits {
    /** A healthy gauge is misread, or misread by its module, so often. */
    static final double MISREAD = 0.01;

    private static final double READING_MINUTES = 1;
    private static final double SETTING_MINUTES = 0.5;
    private static final double UNPLUG_MINUTES = 1.5;
    private static final double SEE_MINUTES = 0.6;
    private static final double VALUE_MINUTES = 0.4;
    private static final double COMPARE_MINUTES = 5;
    private static final double OPEN_MINUTES = 2.5;
    static final String CLEAN = "clean";
    private static final String PINS = "pins-";
    private static final String ALONG = "along-";
    private static final String BEHIND = "behind-";
    static final String RUBBED = "rubbed";
    static final String GIVES = "gives";
    private static final double ALONG_MINUTES = 9;
    private static final double BEHIND_MINUTES = 6;

    private final List<Circuit> circuits;

    /** Parts that stand in circuits of which is written what follows while they are bad. */
    private final Set<String> followed;

    /** Connector → its pins. */
    private final Map<String, Set<String>> pins;

    /** What can be moved by hand, by its finding. */
    private final Map<String, Shaken> shaken;

    /** Circuit → its wires that blow a fuse. */
    private final Map<String, Map<String, Shorts.Short>> shorts = new HashMap<>();

    /**
     * @param all circuits of a vehicle; those without gauges are left out
     */
    DrawnCircuits(List<Circuit> all) {
        circuits = all.stream().filter(c -> !c.gauges().isEmpty()).toList();
        followed =
                all.stream()
                        .filter(c -> c.gauges().isEmpty())
                        .flatMap(c -> c.components().stream())
                        .map(Component::id)
                        .collect(Collectors.toSet());
        pins = pins(circuits);
        shaken = Shaken.of(circuits);
        circuits.forEach(c -> shorts.put(c.id(), Shorts.of(c)));
    }

    /** The complaint that a gauge is noticed by. */
    static String symptomId(Gauge gauge) {
        return CircuitSuspects.PREFIX + gauge.id();
    }

    /** A complaint for each thing that is seen at the vehicle. */
    List<Symptom> symptoms() {
        List<Symptom> all = new ArrayList<>();
        for (Circuit c : circuits) {
            for (Gauge g : c.gauges()) {
                if (g.told()) {
                    all.add(
                            new Symptom(
                                    symptomId(g),
                                    c.system(),
                                    g.name()
                                            + " "
                                            + g.bands().get(0).name()
                                            + " or "
                                            + g.bands().get(1).name(),
                                    under(c, g),
                                    List.of(),
                                    List.of()));
                }
            }
        }
        return all;
    }

    private static String under(Circuit c, Gauge g) {
        return c.setting(g.under()).map(Setting::name).orElse("with the key on");
    }

    /** Every part of which a break shows somewhere; one that several circuits share once. */
    List<Suspect> suspects() {
        return new DrawnSuspects(circuits, followed, pins, shorts).all();
    }

    List<Finding> findings() {
        List<Finding> all = new ArrayList<>();
        for (Circuit c : circuits) {
            for (Gauge g : c.gauges()) {
                if (!isLookedAt(g)) {
                    continue;
                }
                List<FindingOutcome> outcomes =
                        g.bands().stream()
                                .map(
                                        b ->
                                                new FindingOutcome(
                                                        b.id(),
                                                        b.name(),
                                                        b.well()
                                                                ? rightly(g.bands().size())
                                                                : MISREAD))
                                .toList();
                all.add(new Finding(g.findingId(), g.name() + ", " + under(c, g), outcomes, ""));
            }
        }
        pins.forEach(
                (plug, its) -> {
                    List<FindingOutcome> outcomes = new ArrayList<>();
                    outcomes.add(
                            new FindingOutcome(CLEAN, "clean and tight", rightly(its.size() + 1)));
                    its.forEach(
                            pin ->
                                    outcomes.add(
                                            new FindingOutcome(
                                                    pin,
                                                    "pin " + pin + " corroded or loose",
                                                    MISREAD)));
                    all.add(new Finding(lookedAt(plug), "Pins of " + plug, outcomes, ""));
                });
        shaken.values().forEach(s -> all.add(s.finding()));
        eachRub((c, wire) -> all.add(rubbed(c, wire)), (c, fuse) -> all.add(lamp(fuse)));
        return all;
    }

    /** Probability of the one of several outcomes that a healthy circuit shows. */
    private static double rightly(int outcomes) {
        return 1 - MISREAD * (outcomes - 1);
    }

    /** The finding that tells how the pins of a connector look. */
    static String lookedAt(String plug) {
        return PINS + plug;
    }

    /** The finding that tells whether a wire is whole. */
    static String along(String wire) {
        return ALONG + wire;
    }

    /** The finding that tells what a lamp in the place of a fuse shows. */
    static String behind(String fuse) {
        return BEHIND + fuse;
    }

    /** Whether a finding is a look at what circuits are made of. */
    static boolean isLook(String findingId) {
        return findingId.startsWith(PINS)
                || Shaken.isFinding(findingId)
                || findingId.startsWith(ALONG)
                || findingId.startsWith(BEHIND);
    }

    /** Wires, and fuses that they may blow, each with its circuit. */
    private void eachRub(BiConsumer<Circuit, Segment> wires, BiConsumer<Circuit, Segment> fuses) {
        Set<String> seen = new HashSet<>();
        for (Circuit c : circuits) {
            Map<String, Shorts.Short> its = shorts.get(c.id());
            for (Segment s : c.segments()) {
                if (s.kind().isLine() && seen.add(s.id())) {
                    wires.accept(c, s);
                }
                boolean blows = its.values().stream().anyMatch(x -> x.fuse().equals(s.id()));
                if (blows && seen.add(s.id())) {
                    fuses.accept(c, s);
                }
            }
        }
    }

    private static Finding rubbed(Circuit c, Segment wire) {
        return new Finding(
                along(wire.id()),
                "Along " + lower(wire.name()) + DrawnSuspects.between(c, wire),
                List.of(
                        new FindingOutcome(CLEAN, "whole, all of it", rightly(3)),
                        new FindingOutcome(RUBBED, "rubbed through", MISREAD),
                        new FindingOutcome(
                                GIVES, "gives when it is pulled, broken inside", MISREAD)),
                "");
    }

    private static Finding lamp(Segment fuse) {
        List<FindingOutcome> outcomes = new ArrayList<>();
        for (Shorts.Glow g : Shorts.Glow.values()) {
            outcomes.add(
                    new FindingOutcome(
                            g.id(), g.words(), g == Shorts.Glow.DARK ? rightly(3) : MISREAD));
        }
        return new Finding(
                behind(fuse.id()),
                "Lamp in the place of " + lower(fuse.name()) + ", all that it feeds unplugged",
                outcomes,
                "");
    }

    private static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    private static Map<String, Set<String>> pins(List<Circuit> circuits) {
        Map<String, Set<String>> all = new LinkedHashMap<>();
        for (Circuit c : circuits) {
            for (Segment s : c.segments()) {
                s.pin()
                        .ifPresent(
                                p ->
                                        all.computeIfAbsent(p.plug(), x -> new LinkedHashSet<>())
                                                .add(p.number()));
            }
        }
        return all;
    }

    /** A look at every gauge, and a reading at every point that can be reached. */
    List<Check> checks() {
        Set<Check> all = new LinkedHashSet<>();
        for (Circuit c : circuits) {
            c.gauges().stream().filter(DrawnCircuits::isLookedAt).forEach(g -> all.add(look(c, g)));
            for (Segment s : c.segments()) {
                s.pin()
                        .ifPresent(
                                pin -> {
                                    all.add(opened(pin.plug(), c.point(s.from())));
                                });
            }
            for (ProbePoint p : c.points()) {
                if (CircuitSuspects.tells(p)) {
                    ProbeCondition.of(c, p.id()).forEach(k -> all.add(reading(c, p, k)));
                }
            }
        }
        shaken.values().forEach(s -> all.add(s.check()));
        eachRub(
                (c, wire) ->
                        all.add(
                                new Check.Look(
                                        along(wire.id()),
                                        "Look along "
                                                + lower(wire.name())
                                                + DrawnSuspects.between(c, wire),
                                        "trace",
                                        List.of(along(wire.id())),
                                        ALONG_MINUTES,
                                        "No meter tells where a wire has rubbed through, or is broken inside and touches now and then; eyes and fingers do.",
                                        "")),
                (c, fuse) ->
                        all.add(
                                new Check.Look(
                                        behind(fuse.id()),
                                        "Put a test lamp in the place of "
                                                + lower(fuse.name())
                                                + ", all that it feeds unplugged",
                                        "trace",
                                        List.of(behind(fuse.id())),
                                        BEHIND_MINUTES,
                                        "A lamp that is bright has found the body: a wire behind the fuse touches it, and a new fuse would blow.",
                                        "")));
        return List.copyOf(all);
    }

    private static boolean isLookedAt(Gauge g) {
        return g.by() != Gauge.By.MODULE || g.isToldByValue();
    }

    private static Check look(Circuit c, Gauge g) {
        if (g.isAcross()) {
            return new Check.Look(
                    "look-" + g.id(),
                    g.name(),
                    "trace",
                    List.of(g.findingId()),
                    c.point(g.from()).minutes() + c.point(g.to()).minutes() + READING_MINUTES,
                    "What is lost between both ends is lost on the wire, whatever the sensor feels.",
                    "");
        }
        if (g.isCompared()) {
            return new Check.Look(
                    "look-" + g.id(),
                    "Compare: " + g.name(),
                    "trace",
                    List.of(g.findingId()),
                    c.point(g.from()).minutes() + COMPARE_MINUTES,
                    "A sensor that tells a wrong figure shows nothing on a meter; another instrument at the same place does.",
                    "");
        }
        return new Check.Look(
                "look-" + g.id(),
                (g.told()
                                ? "Look at: "
                                : g.isSeen()
                                        ? "Listen to it, or put a hand on it: "
                                        : "Ask what its module tells of: ")
                        + g.name()
                        + ", "
                        + under(c, g),
                "trace",
                List.of(g.findingId()),
                g.told() ? SEE_MINUTES : VALUE_MINUTES,
                "It shows without a meter whether anything arrives.",
                "");
    }

    private static Check opened(String plug, ProbePoint at) {
        return new Check.Look(
                "open-" + plug,
                "Unplug " + plug + " and look at its pins (" + at.place() + ")",
                "trace",
                List.of(lookedAt(plug)),
                at.minutes() + OPEN_MINUTES,
                "No meter reaches between a pin and what it leads to; eyes do.",
                "");
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
