package brightlantern.core.circuit;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Which relays of a circuit let go. It is solved as they should be by what energises their coils;
 * where the coils say otherwise, once more as these have it.
 */
final class Relays {
    private final List<Segment> all;
    private final Map<String, Consumer> coils = new HashMap<>();

    /**
     * @param parts of a circuit, as faults leave them
     */
    Relays(Collection<? extends Component> parts) {
        all =
                parts.stream()
                        .filter(p -> p instanceof Segment s && s.isPulled())
                        .map(Segment.class::cast)
                        .toList();
        if (!all.isEmpty()) {
            for (Component p : parts) {
                if (p instanceof Consumer c && c.kind() == ConsumerKind.RELAY) {
                    coils.put(c.id(), c);
                }
            }
        }
    }

    /** The parts among these that are relays with coils, and their coils. */
    static List<Component> partsOf(Collection<? extends Component> parts) {
        return parts.stream()
                .filter(
                        p ->
                                p instanceof Segment s && s.isPulled()
                                        || p instanceof Consumer c
                                                && c.kind() == ConsumerKind.RELAY)
                .<Component>map(p -> p)
                .toList();
    }

    /** The state with those open that nothing energises. */
    OperatingState expected(OperatingState state) {
        return with(
                state,
                all.stream()
                        .filter(r -> !state.moving().contains(r.coil().by()))
                        .map(Segment::id)
                        .collect(Collectors.toSet()));
    }

    /** The state with those open whose coils let go at these voltages. */
    OperatingState found(OperatingState state, Voltages volts) {
        return with(
                state,
                all.stream()
                        .filter(r -> isReleased(r, volts))
                        .map(Segment::id)
                        .collect(Collectors.toSet()));
    }

    /** What is broken inside a coil takes its own share of the voltage across it. */
    private boolean isReleased(Segment relay, Voltages volts) {
        Consumer its = coils.get(relay.coil().id());
        double share = its.ohm() / (its.ohm() + its.moreOhm());
        return volts.across(its.from(), its.to(), 0) * share
                < Segment.Coil.HOLDS * Consumer.NOMINAL_VOLTS;
    }

    private OperatingState with(OperatingState state, Set<String> released) {
        if (all.isEmpty()) {
            return state;
        }
        Set<String> open = new HashSet<>(state.open());
        all.forEach(r -> open.remove(r.id()));
        open.addAll(released);
        return state.open(open);
    }
}
