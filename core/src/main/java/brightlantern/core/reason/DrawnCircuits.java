package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Setting;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
    private static final double OPEN_MINUTES = 2.5;
    static final String CLEAN = "clean";
    private static final String PINS = "pins-";

    private final List<Circuit> circuits;

    /** Parts that stand in circuits of which is written what follows; they are suspects there. */
    private final Set<String> written;

    /** Connector → its pins. */
    private final Map<String, Set<String>> pins;

    /**
     * @param all circuits of a vehicle; those without gauges are left out
     */
    DrawnCircuits(List<Circuit> all) {
        circuits = all.stream().filter(c -> !c.gauges().isEmpty()).toList();
        written =
                all.stream()
                        .filter(c -> c.gauges().isEmpty())
                        .flatMap(c -> c.components().stream())
                        .map(Component::id)
                        .collect(Collectors.toSet());
        pins = pins(circuits);
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
        return new DrawnSuspects(circuits, written, pins).all();
    }

    List<Finding> findings() {
        List<Finding> all = new ArrayList<>();
        for (Circuit c : circuits) {
            for (Gauge g : c.gauges()) {
                if (!g.isSeen() && !g.isToldByValue()) {
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

    static boolean isOfPins(String findingId) {
        return findingId.startsWith(PINS);
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
            c.gauges().stream()
                    .filter(g -> g.isSeen() || g.isToldByValue())
                    .forEach(g -> all.add(look(c, g)));
            for (Segment s : c.segments()) {
                s.pin().ifPresent(pin -> all.add(opened(pin.plug(), c.point(s.from()))));
            }
            for (ProbePoint p : c.points()) {
                if (CircuitSuspects.tells(p)) {
                    ProbeCondition.of(c, p.id()).forEach(k -> all.add(reading(c, p, k)));
                }
            }
        }
        return List.copyOf(all);
    }

    private static Check look(Circuit c, Gauge g) {
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
