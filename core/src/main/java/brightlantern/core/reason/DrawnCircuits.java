package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.ConsumerKind;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.Source;
import brightlantern.core.circuit.Wear;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What follows from circuits with gauges: how a fault in them is noticed, which codes are set,
 * which parts can break and how it is looked for. Nothing of it is written for a single part.
 */
final class DrawnCircuits {
    /** A healthy gauge is misread, or misread by its module, so often. */
    private static final double MISREAD = 0.01;

    /** A fault that shows is told by its driver, or seen by its module, so often. */
    private static final double SHOWS = 0.92;

    private static final double LARGEST_TIMES = 80;
    private static final double READING_MINUTES = 1;
    private static final double SETTING_MINUTES = 0.5;
    private static final double UNPLUG_MINUTES = 1.5;
    private static final double SEE_MINUTES = 0.6;
    private static final double VALUE_MINUTES = 0.4;
    private static final double OPEN_MINUTES = 2.5;
    private static final String CLEAN = "clean";
    private static final String PINS = "pins-";

    /** A bad contact looks bad so often. */
    private static final double PIN_SEEN = 0.88;

    /** How the ids of wires end that touch the body. */
    private static final String CHAFED = "-chafed";

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

    /** What a bad contact shows when its connector is opened. */
    private Map<String, Map<String, Double>> tells(Component part) {
        Optional<Segment.Pin> pin = part instanceof Segment s ? s.pin() : Optional.empty();
        if (pin.isEmpty()) {
            return Map.of();
        }
        Map<String, Double> odds = new LinkedHashMap<>();
        Set<String> all = pins.get(pin.get().plug());
        all.forEach(p -> odds.put(p, p.equals(pin.get().number()) ? PIN_SEEN : MISREAD));
        odds.put(CLEAN, 1 - PIN_SEEN - MISREAD * (all.size() - 1));
        return Map.of(lookedAt(pin.get().plug()), odds);
    }

    /** Every part of which a break shows somewhere; one that several circuits share once. */
    List<Suspect> suspects() {
        Map<String, Suspect> all = new LinkedHashMap<>();
        Map<String, GaugeState> states = new LinkedHashMap<>();
        Map<String, List<Circuit>> with = new HashMap<>();
        for (Circuit c : circuits) {
            states.put(c.id(), new GaugeState(c, GaugeState.TYPICAL_VOLTS));
            for (Component part : c.components()) {
                with.computeIfAbsent(part.id(), x -> new ArrayList<>()).add(c);
            }
        }
        for (Circuit c : circuits) {
            for (Component part : c.components()) {
                if (!all.containsKey(part.id()) && !written.contains(part.id())) {
                    suspect(c, part, with, states).ifPresent(s -> all.put(part.id(), s));
                    chafed(c, part, with, states).ifPresent(s -> all.put(part.id() + CHAFED, s));
                }
            }
        }
        return List.copyOf(all.values());
    }

    private Optional<Suspect> suspect(
            Circuit c,
            Component part,
            Map<String, List<Circuit>> with,
            Map<String, GaugeState> states) {
        OptionalDouble edge = states.get(c.id()).edge(part.id());
        if (edge.isEmpty()) {
            return Optional.empty();
        }
        Fault open = new Fault.Series(part.id(), Fault.Series.OPEN_OHM);
        return Optional.of(
                suspect(
                        part.id(),
                        name(c, part),
                        part.wear(),
                        effect(c, part, edge.getAsDouble()),
                        shown(open, with, states),
                        tells(part),
                        repair(c, part)));
    }

    /**
     * A wire of sensors that touches the body. One that a fuse protects blows it, and is looked for
     * behind the fuse.
     */
    private Optional<Suspect> chafed(
            Circuit c,
            Component part,
            Map<String, List<Circuit>> with,
            Map<String, GaugeState> states) {
        if (c.sources().isEmpty() || !isWire(part)) {
            return Optional.empty();
        }
        OptionalDouble edge = states.get(c.id()).chafes(part.id());
        if (edge.isEmpty()) {
            return Optional.empty();
        }
        String name = part.name() + " " + Wear.CHAFED.broken() + "," + between(c, part);
        Fault bare = new Fault.Chafed(part.id(), GaugeState.TOUCHES_OHM);
        return Optional.of(
                suspect(
                        part.id() + CHAFED,
                        name,
                        Wear.CHAFED,
                        new Effect.Chafed(
                                c.id(), part.id(), GaugeState.TOUCHES_OHM, edge.getAsDouble()),
                        shown(bare, with, states),
                        Map.of(),
                        new Repair(
                                "repair-" + CircuitSuspects.PREFIX + part.id() + CHAFED,
                                Wear.CHAFED.repair() + " " + lower(part.name()) + between(c, part),
                                Wear.CHAFED.minutes(),
                                Wear.CHAFED.price(),
                                "as found",
                                "none to speak of",
                                false)));
    }

    /**
     * What follows from a fault.
     *
     * @param symptoms and codes ids
     * @param words what is seen, each in words
     */
    private record Shown(List<String> symptoms, List<String> codes, List<String> words) {}

    private static Shown shown(
            Fault fault, Map<String, List<Circuit>> with, Map<String, GaugeState> states) {
        Shown shown = new Shown(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        Optional<Fault> its = Optional.of(fault);
        for (Circuit c : with.get(fault.part())) {
            for (Gauge g : states.get(c.id()).wrong(its)) {
                Band band = g.at(states.get(c.id()).share(g, its));
                shown.words().add(g.name() + " " + band.name());
                if (g.told()) {
                    shown.symptoms().add(symptomId(g));
                }
                if (!band.code().isEmpty()) {
                    shown.codes().add(band.code());
                }
            }
        }
        return shown;
    }

    private static Suspect suspect(
            String id,
            String name,
            Wear wear,
            Effect effect,
            Shown shown,
            Map<String, Map<String, Double>> tells,
            Repair repair) {
        Map<String, Double> codes = new LinkedHashMap<>();
        Map<String, Double> symptoms = new LinkedHashMap<>();
        shown.codes().forEach(c -> codes.put(c, SHOWS));
        shown.symptoms().forEach(s -> symptoms.put(s, SHOWS));
        List<String> words = shown.words();
        String chain =
                words.size() > 2
                        ? words.get(0) + ", and " + (words.size() - 1) + " more like it"
                        : String.join(", ", words);
        return new Suspect(
                CircuitSuspects.PREFIX + id,
                name,
                wear.common(),
                Optional.of(effect),
                codes,
                symptoms,
                tells,
                List.of(name, chain),
                repair);
    }

    /** A filament is whole or burnt through; all else may also let less through. */
    private static Effect effect(Circuit c, Component part, double edge) {
        boolean burns = part instanceof Consumer k && k.kind() == ConsumerKind.LAMP;
        double most = Math.min(edge * LARGEST_TIMES, Fault.Series.OPEN_OHM);
        return new Effect.Series(
                c.id(),
                part.id(),
                burns ? Fault.Series.OPEN_OHM : edge,
                burns ? Fault.Series.OPEN_OHM : most,
                true);
    }

    private static String between(Circuit c, Component part) {
        return " between " + c.point(part.from()).name() + " and " + c.point(part.to()).name();
    }

    private static boolean isWire(Component part) {
        return part instanceof Segment s
                && (s.kind() == SegmentKind.WIRE || s.kind() == SegmentKind.SPLICE);
    }

    private static String name(Circuit c, Component part) {
        return part.name()
                + " "
                + part.wear().broken()
                + (isWire(part) ? "," + between(c, part) : "");
    }

    private static Repair repair(Circuit c, Component part) {
        Wear wear = part.wear();
        return new Repair(
                "repair-" + CircuitSuspects.PREFIX + part.id(),
                wear.repair() + " " + lower(part.name()) + (isWire(part) ? between(c, part) : ""),
                wear.minutes(),
                wear.price(),
                part instanceof Segment ? "as found" : part.name(),
                part instanceof Source
                        ? "needs its configuration written afterwards"
                        : "none to speak of",
                false);
    }

    private static String lower(String name) {
        return name.length() > 1 && Character.isUpperCase(name.charAt(1))
                ? name
                : name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
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
