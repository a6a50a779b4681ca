package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Need;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.Shorts;
import brightlantern.core.circuit.Wiring;
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

    static final String CLEAN = "clean";
    private static final String PINS = "pins-";
    private static final String ALONG = "along-";
    private static final String BEHIND = "behind-";
    static final String RUBBED = "rubbed";
    static final String AGAINST = "against";
    static final String GIVES = "gives";

    private final List<Circuit> circuits;

    private final List<Need> needs;

    /** Parts that stand in circuits of which is written what follows while they are bad. */
    private final Set<String> followed;

    /** Connector → its pins. */
    private final Map<String, Set<String>> pins;

    /** What can be moved by hand, by its finding. */
    private final Map<String, Shaken> shaken;

    /** Circuit → its wires that blow a fuse. */
    private final Map<String, Map<String, Shorts.Short>> shorts = new HashMap<>();

    /**
     * @param wiring of a vehicle; circuits without gauges are left out
     */
    DrawnCircuits(Wiring wiring) {
        List<Circuit> all = wiring.circuits();
        needs = wiring.needs();
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
                                    g.name() + " " + wrong(g),
                                    under(c, g),
                                    List.of(),
                                    List.of()));
                }
            }
        }
        return all;
    }

    private static String wrong(Gauge g) {
        return g.bands().stream()
                .filter(b -> !b.well())
                .map(Band::name)
                .collect(Collectors.joining(" or "));
    }

    /** What is looked at, and in which state; of a part alone there is none. */
    static String named(Circuit c, Gauge g) {
        return g.isOhms() || g.isOff() || g.isFed() ? g.name() : g.name() + ", " + under(c, g);
    }

    private static String under(Circuit c, Gauge g) {
        if (g.isOff()) {
            return c.setting(g.under()).map(s -> "not " + s.name()).orElseThrow();
        }
        return c.setting(g.under()).map(Setting::name).orElse("with the key on");
    }

    /** Every part of which a break shows somewhere; one that several circuits share once. */
    List<Suspect> suspects() {
        return new DrawnSuspects(circuits, needs, followed, pins, shorts).all();
    }

    /** Whether somebody looks at it, beside its module. */
    static boolean isLookedAt(Gauge g) {
        return g.by() != Gauge.By.MODULE || g.isToldByValue();
    }

    /** What may be seen; of a part that several circuits share once. */
    List<Finding> findings() {
        Map<String, Finding> all = new LinkedHashMap<>();
        seen().forEach(f -> all.putIfAbsent(f.id(), f));
        return List.copyOf(all.values());
    }

    private List<Finding> seen() {
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
                all.add(new Finding(g.findingId(), named(c, g), outcomes, ""));
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
                        new FindingOutcome(CLEAN, "whole, all of it", rightly(4)),
                        new FindingOutcome(RUBBED, "rubbed through on the body", MISREAD),
                        new FindingOutcome(AGAINST, "rubbed through on another wire", MISREAD),
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
        return new DrawnChecks(circuits, shaken).all(this::eachRub);
    }
}
