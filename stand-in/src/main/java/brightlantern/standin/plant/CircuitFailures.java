package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.ConsumerKind;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Shorts;
import brightlantern.core.circuit.Touched;
import brightlantern.core.circuit.Wear;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;

/** The ways in which the parts of circuits break: a little of them, or all of them. */
final class CircuitFailures {
    /** Above the size at which it shows a fault is so many times as large, when it is no break. */
    private static final double LEAST_TIMES = 1.4;

    private static final double MOST_TIMES = 8;

    /** Of all faults so many are breaks. */
    private static final double BREAKS = 0.6;

    /** Ohms are in its way. */
    static final String SERIES = "series";

    /** It touches the body. */
    static final String CHAFED = "chafed";

    /** It touches a live wire. */
    static final String LIVE = "live";

    /** It touches the body and blows its fuse. */
    static final String SHORTED = "shorted";

    /** A sensor tells so many times what it should. */
    static final String BIASED = "biased";

    /** Its module makes so many times of it what it should. */
    static final String MISREAD = "misread";

    /** What switches stays closed. */
    static final String STUCK = "stuck";

    /** So much more than what begins to show. */
    private static final double CLEARLY = 1.15;

    /** A part, or all of a connector, opens whenever it is shaken. */
    static final String LOOSE = "loose";

    /** What feeds modules, and nothing else, breaks so much more rarely. */
    private static final double OF_MODULES = 0.1;

    private CircuitFailures() {}

    /**
     * Those of every part of which a break shows somewhere; of one that is shared once.
     *
     * @param ofModules ids of parts that feed modules, and nothing else
     */
    static List<Part.Failure> of(List<Circuit> circuits, Set<String> ofModules) {
        Map<String, Part.Failure> all = new TreeMap<>();
        for (Circuit c : circuits) {
            GaugeState drawn = new GaugeState(c, GaugeState.TYPICAL_VOLTS);
            Shorts.of(c).forEach((wire, its) -> shorted(c, wire, its.fuse(), all));
            for (Segment s : c.segments()) {
                if (drawn.edge(s.id()).isPresent()) {
                    loose(c, s, all);
                }
                if (!drawn.wrong(Optional.of(new Fault.Stuck(s.id()))).isEmpty()) {
                    stuck(c, s, all);
                }
            }
            for (Gauge g : c.gauges()) {
                if (g.isCompared()) {
                    off(c, g.part(), BIASED, drawn.off(f -> new Fault.Biased(g.part(), f)), all);
                    String input = g.scale().input();
                    off(c, input, MISREAD, drawn.off(f -> new Fault.Misread(input, f)), all);
                }
            }
            for (Component part : c.components()) {
                boolean module = part instanceof Consumer k && k.kind() == ConsumerKind.MODULE;
                if (!module && !all.containsKey(part.id() + " open")) {
                    OptionalDouble edge = drawn.edge(part.id());
                    edge.ifPresent(ohm -> add(c, part, ohm, all));
                    if (!c.sources().isEmpty() && isWire(part)) {
                        for (Touched touched : Touched.values()) {
                            chafed(c, part, touched, drawn.chafes(part.id(), touched), all);
                        }
                    }
                }
            }
        }
        return all.values().stream()
                .map(f -> ofModules.contains(f.of()) ? f.timesAsCommon(OF_MODULES) : f)
                .toList();
    }

    /** A connector as a whole, or what hangs together by itself. */
    private static void loose(Circuit c, Segment s, Map<String, Part.Failure> into) {
        Optional<String> plug = s.pin().map(Segment.Pin::plug);
        String what = plug.map(p -> c.name() + ", connector " + p).orElseGet(() -> name(c, s));
        plug.map(p -> Wear.LOOSE)
                .or(s.kind()::loose)
                .ifPresent(
                        wear ->
                                into.putIfAbsent(
                                        plug.orElse(s.id()) + " " + LOOSE,
                                        new Part.Failure(
                                                LOOSE,
                                                s.id(),
                                                1,
                                                1,
                                                wear.common(),
                                                what + ": " + wear.broken())));
    }

    private static void stuck(Circuit c, Segment s, Map<String, Part.Failure> into) {
        s.stuck()
                .ifPresent(
                        wear ->
                                into.putIfAbsent(
                                        s.id() + " " + STUCK,
                                        new Part.Failure(
                                                STUCK,
                                                s.id(),
                                                1,
                                                1,
                                                wear.common(),
                                                name(c, s) + ": " + wear.broken())));
    }

    private static void add(
            Circuit c, Component part, double edge, Map<String, Part.Failure> into) {
        boolean burns = part instanceof Consumer k && k.isOpenOrWell();
        double common = part.wear().common();
        String name = name(c, part);
        double open = Fault.Series.OPEN_OHM;
        into.put(
                part.id() + " open",
                new Part.Failure(
                        SERIES,
                        part.id(),
                        open,
                        open,
                        common * (burns ? 1 : BREAKS),
                        name + ": open"));
        if (!burns && edge * LEAST_TIMES < open) {
            into.put(
                    part.id() + " partly",
                    new Part.Failure(
                            SERIES,
                            part.id(),
                            edge * LEAST_TIMES,
                            Math.min(open, edge * MOST_TIMES),
                            common * (1 - BREAKS),
                            name + ": too much resistance"));
        }
    }

    /** On either side of what is right, from where it clearly shows. */
    private static void off(
            Circuit c,
            String part,
            String mode,
            GaugeState.Off edges,
            Map<String, Part.Failure> into) {
        Wear wear = mode.equals(BIASED) ? Wear.BIASED : Wear.MISREAD;
        String name = name(c, c.component(part).orElseThrow()) + " " + wear.broken();
        double most = GaugeState.Off.MOST_TIMES;
        if (edges.down() > 0) {
            double to = edges.down() / CLEARLY;
            into.put(
                    part + " " + mode + " down",
                    new Part.Failure(
                            mode,
                            part,
                            to * CLEARLY * CLEARLY / most,
                            to,
                            wear.common() / 2,
                            name + ": too low a signal"));
        }
        if (edges.up() > 0) {
            double from = edges.up() * CLEARLY;
            into.put(
                    part + " " + mode + " up",
                    new Part.Failure(
                            mode,
                            part,
                            from,
                            from * most / CLEARLY / CLEARLY,
                            wear.common() / 2,
                            name + ": too high a signal"));
        }
    }

    /**
     * A wire of sensors touches the body, or what is live; none that a fuse protects, which would
     * blow it.
     */
    private static void chafed(
            Circuit c,
            Component part,
            Touched touched,
            OptionalDouble edge,
            Map<String, Part.Failure> into) {
        String mode = touched == Touched.EARTH ? CHAFED : LIVE;
        edge.ifPresent(
                most ->
                        into.put(
                                part.id() + " " + mode,
                                new Part.Failure(
                                        mode,
                                        part.id(),
                                        GaugeState.TOUCHES_OHM,
                                        Math.max(GaugeState.TOUCHES_OHM, most / 2),
                                        touched.wear().common(),
                                        name(c, part) + ": " + touched.wear().broken())));
    }

    private static void shorted(
            Circuit c, String wire, String fuse, Map<String, Part.Failure> into) {
        Component part = c.component(wire).orElseThrow();
        into.putIfAbsent(
                wire + " " + SHORTED,
                new Part.Failure(
                        SHORTED,
                        wire,
                        1,
                        1,
                        Wear.SHORTED.common(),
                        name(c, part)
                                + ": touches the body and blows "
                                + c.component(fuse).orElseThrow().name()));
    }

    private static boolean isWire(Component part) {
        return part instanceof Segment s && s.kind() == SegmentKind.WIRE;
    }

    static String name(Circuit c, Component part) {
        boolean wire = isWire(part);
        return c.name()
                + ", "
                + part.name()
                + (wire
                        ? " between "
                                + c.point(part.from()).name()
                                + " and "
                                + c.point(part.to()).name()
                        : "");
    }
}
