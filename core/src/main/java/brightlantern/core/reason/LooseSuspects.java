package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Wear;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Connectors that open when they are shaken, and are sound at rest. */
final class LooseSuspects {
    private static final String LOOSE = "-loose";

    /** What is loose shows so often while it is moved. */
    private static final double JUMPS = 0.95;

    private final List<Circuit> circuits;
    private final Shows shows;

    LooseSuspects(List<Circuit> circuits, Shows shows) {
        this.circuits = circuits;
        this.shows = shows;
    }

    /** A connector that opens when it is shaken; all of it, whichever of its pins is met first. */
    Optional<Suspect> of(Component part) {
        Optional<Segment.Pin> pin = part instanceof Segment s ? s.pin() : Optional.empty();
        if (pin.isEmpty()) {
            return Optional.empty();
        }
        String plug = pin.get().plug();
        Shows.Shown shown =
                new Shows.Shown(new ArrayList<>(), new LinkedHashMap<>(), new ArrayList<>());
        for (Segment contact : contacts(plug)) {
            Shows.Shown its = shows.of(new Fault.Series(contact.id(), Fault.Series.OPEN_OHM));
            its.symptoms().stream()
                    .filter(s -> !shown.symptoms().contains(s))
                    .forEach(shown.symptoms()::add);
            shown.codes().putAll(its.codes());
            its.words().stream()
                    .filter(w -> !shown.words().contains(w))
                    .forEach(shown.words()::add);
        }
        if (shown.words().isEmpty()) {
            return Optional.empty();
        }
        String name = "Connector " + plug + " " + Wear.LOOSE.broken();
        return Optional.of(
                Shows.suspect(
                        plug + LOOSE,
                        name,
                        Wear.LOOSE,
                        effect(plug),
                        shown,
                        Map.of(
                                DrawnCircuits.moved(plug),
                                Map.of(
                                        DrawnCircuits.JUMPS,
                                        JUMPS,
                                        DrawnCircuits.STEADY,
                                        1 - JUMPS)),
                        new Repair(
                                "repair-" + CircuitSuspects.PREFIX + plug + LOOSE,
                                Wear.LOOSE.repair() + " " + plug,
                                Wear.LOOSE.minutes(),
                                Wear.LOOSE.price(),
                                "contacts, as found",
                                "none to speak of",
                                false)));
    }

    /** At the first of its contacts of which a break shows. */
    private Effect effect(String plug) {
        for (Circuit c : circuits) {
            for (Segment s : c.segments()) {
                if (isAt(s, plug) && shows.state(c).edge(s.id()).isPresent()) {
                    return new Effect.Loose(c.id(), s.id(), plug);
                }
            }
        }
        throw new IllegalStateException("No break shows at connector " + plug);
    }

    private static boolean isAt(Segment s, String plug) {
        return s.pin().filter(p -> p.plug().equals(plug)).isPresent();
    }

    private List<Segment> contacts(String plug) {
        return circuits.stream()
                .flatMap(c -> c.segments().stream())
                .filter(s -> isAt(s, plug))
                .distinct()
                .toList();
    }
}
