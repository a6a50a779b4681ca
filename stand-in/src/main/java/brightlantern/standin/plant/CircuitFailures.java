package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.ConsumerKind;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Shorts;
import brightlantern.core.circuit.Wear;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
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

    /** It touches the body and blows its fuse. */
    static final String SHORTED = "shorted";

    private CircuitFailures() {}

    /** Those of every part of which a break shows somewhere; of one that is shared once. */
    static List<Part.Failure> of(List<Circuit> circuits) {
        Map<String, Part.Failure> all = new TreeMap<>();
        for (Circuit c : circuits) {
            GaugeState drawn = new GaugeState(c, GaugeState.TYPICAL_VOLTS);
            Shorts.of(c).forEach((wire, its) -> shorted(c, wire, its.fuse(), all));
            for (Component part : c.components()) {
                if (!all.containsKey(part.id() + " open")) {
                    OptionalDouble edge = drawn.edge(part.id());
                    edge.ifPresent(ohm -> add(c, part, ohm, all));
                    if (!c.sources().isEmpty() && isWire(part)) {
                        chafed(c, part, drawn.chafes(part.id()), all);
                    }
                }
            }
        }
        return List.copyOf(all.values());
    }

    private static void add(
            Circuit c, Component part, double edge, Map<String, Part.Failure> into) {
        boolean burns = part instanceof Consumer k && k.kind() == ConsumerKind.LAMP;
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

    /** A wire of sensors touches the body; none that a fuse protects, which would blow it. */
    private static void chafed(
            Circuit c, Component part, OptionalDouble edge, Map<String, Part.Failure> into) {
        edge.ifPresent(
                most ->
                        into.put(
                                part.id() + " " + CHAFED,
                                new Part.Failure(
                                        CHAFED,
                                        part.id(),
                                        GaugeState.TOUCHES_OHM,
                                        Math.max(GaugeState.TOUCHES_OHM, most / 2),
                                        Wear.CHAFED.common(),
                                        name(c, part) + ": chafed to earth")));
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
