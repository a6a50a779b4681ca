package brightlantern.core.capture;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Sensed;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Where in the wiring of a vehicle the lanes of a plan are reached soonest. */
public final class CapturePlaces {
    /** A splice joins so many wires at least. */
    private static final int SPLICED = 3;

    private CapturePlaces() {}

    /** The same plan, each lane of it told with the point of the sheets that is reached soonest. */
    public static CapturePlan of(CapturePlan plan, Collection<Circuit> circuits) {
        List<CapturePlan.Probe> lanes = new ArrayList<>();
        for (CapturePlan.Probe p : plan.lanes()) {
            String told =
                    soonest(p.place(), circuits)
                            .map(
                                    at ->
                                            String.format(
                                                    Locale.ROOT,
                                                    "%s: soonest at %s, %s (%.0f min)",
                                                    p.told(),
                                                    at.name(),
                                                    at.place(),
                                                    at.minutes()))
                            .orElse(p.told());
            lanes.add(
                    new CapturePlan.Probe(
                            p.role(), p.name(), p.place(), told, p.range(), p.output()));
        }
        return plan.withLanes(lanes);
    }

    private static Optional<ProbePoint> soonest(String place, Collection<Circuit> circuits) {
        boolean shared = place.equals("coils") || place.equals("injectors");
        String one = shared ? place.substring(0, place.length() - 1) + "-1" : place;
        String part = one.replaceFirst("^injector-", "injector-coil-");
        for (Circuit circuit : circuits) {
            Optional<Component> its = circuit.component(part);
            if (its.isPresent()) {
                Set<String> at = shared ? feed(circuit) : ends(circuit, its.get());
                return circuit.points().stream()
                        .filter(p -> p.canBeProbed() && at.contains(p.id()))
                        .min(Comparator.comparingDouble(ProbePoint::minutes));
            }
        }
        return Optional.empty();
    }

    /** The wire of a sensor's signal, or the wires of what draws as far as they are its own. */
    private static Set<String> ends(Circuit circuit, Component part) {
        Set<String> signal = Sensed.signalOf(circuit, part.id());
        if (!signal.isEmpty()) {
            return signal;
        }
        Set<String> own = new HashSet<>(Set.of(part.from(), part.to()));
        boolean grows = true;
        while (grows) {
            grows = false;
            for (Segment s : circuit.segments()) {
                if (own.contains(s.from()) || own.contains(s.to())) {
                    for (String end : List.of(s.from(), s.to())) {
                        grows |= wires(circuit, end) < SPLICED && own.add(end);
                    }
                }
            }
        }
        return own;
    }

    /** Splices of the supply, and what one of their wires leads to that is no part's own pin. */
    private static Set<String> feed(Circuit circuit) {
        Set<String> own =
                circuit.consumers().stream()
                        .flatMap(c -> Stream.of(c.from(), c.to()))
                        .collect(Collectors.toSet());
        Set<String> spliced =
                circuit.points().stream()
                        .filter(p -> p.side().equals("supply") && !own.contains(p.id()))
                        .map(ProbePoint::id)
                        .filter(p -> !p.equals(Circuit.PLUS) && wires(circuit, p) >= SPLICED)
                        .collect(Collectors.toSet());
        Set<String> all = new HashSet<>(spliced);
        for (Segment s : circuit.segments()) {
            if (spliced.contains(s.from()) || spliced.contains(s.to())) {
                Stream.of(s.from(), s.to()).filter(p -> !own.contains(p)).forEach(all::add);
            }
        }
        return all;
    }

    /** Wires and parts that meet at a point. */
    private static long wires(Circuit circuit, String point) {
        return circuit.components().stream()
                .flatMap(c -> Stream.of(c.from(), c.to()))
                .filter(point::equals)
                .count();
    }
}
