package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Wear;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Parts that open when they are shaken, and are sound at rest. */
final class LooseSuspects {
    private static final String LOOSE = "-loose";

    /** What is loose shows so often while it is moved. */
    private static final double JUMPS = 0.95;

    /** A wire that is broken inside is felt so often. */
    private static final double FELT = 0.9;

    /** Who pulls at each pin of a connector that sits loose feels it so often. */
    private static final double SLACK = 0.88;

    private final List<Circuit> circuits;
    private final Shows shows;
    private final Map<String, Set<String>> pins;

    private final Set<String> met = new HashSet<>();

    /** Connector → its contacts. */
    private final Map<String, Set<Segment>> contacts = new HashMap<>();

    /**
     * @param pins connector → its pins
     */
    LooseSuspects(List<Circuit> circuits, Shows shows, Map<String, Set<String>> pins) {
        this.pins = pins;
        this.circuits = circuits;
        this.shows = shows;
        for (Circuit c : circuits) {
            for (Segment s : c.segments()) {
                s.pin()
                        .ifPresent(
                                p ->
                                        contacts.computeIfAbsent(
                                                        p.plug(), k -> new LinkedHashSet<>())
                                                .add(s));
            }
        }
    }

    /**
     * A connector, all of it, when the first of its pins is met; or a wire, relay, switch, fuse or
     * earth by itself.
     */
    Optional<Suspect> of(Circuit c, Segment part) {
        return part.pin()
                .filter(p -> met.add(p.plug()))
                .flatMap(p -> connector(p.plug()))
                .or(
                        () ->
                                part.pin().isPresent()
                                        ? Optional.empty()
                                        : part.kind()
                                                .loose()
                                                .flatMap(wear -> single(c, part, wear)));
    }

    private Optional<Suspect> connector(String plug) {
        List<Segment> its = List.copyOf(contacts.get(plug));
        return suspect(
                plug,
                "Connector " + plug,
                Wear.LOOSE,
                Map.of(Shaken.id(plug), jumps(), DrawnCircuits.lookedAt(plug), slack(plug)),
                shown(its),
                its,
                plug);
    }

    private Optional<Suspect> single(Circuit c, Segment part, Wear wear) {
        boolean line = part.kind().isLine();
        Map<String, Map<String, Double>> tells = new LinkedHashMap<>();
        if (line) {
            tells.put(
                    DrawnCircuits.along(part.id()),
                    Map.of(
                            DrawnCircuits.GIVES,
                            FELT,
                            DrawnCircuits.CLEAN,
                            1 - FELT - 2 * DrawnCircuits.MISREAD,
                            DrawnCircuits.RUBBED,
                            DrawnCircuits.MISREAD,
                            DrawnCircuits.AGAINST,
                            DrawnCircuits.MISREAD));
            part.plugs().forEach(plug -> tells.put(Shaken.id(plug), jumps()));
        } else {
            tells.put(Shaken.id(part.id()), jumps());
        }
        String where = line ? DrawnSuspects.between(c, part) : "";
        return suspect(
                part.id(),
                part.name() + (line ? "," + where + "," : ""),
                wear,
                tells,
                shown(List.of(part)),
                List.of(part),
                DrawnSuspects.lower(part.name()) + where);
    }

    /** One of its pins holds loosely; which of them is not foretold. */
    private Map<String, Double> slack(String plug) {
        Set<String> its = pins.get(plug);
        Map<String, Double> odds = new LinkedHashMap<>();
        its.forEach(pin -> odds.put(pin, SLACK / its.size()));
        odds.put(DrawnCircuits.CLEAN, 1 - SLACK);
        return odds;
    }

    private static Map<String, Double> jumps() {
        return Map.of(Shaken.JUMPS, JUMPS, Shaken.STEADY, 1 - JUMPS);
    }

    /** What is seen while all of these are open. */
    private Shows.Shown shown(List<Segment> open) {
        Shows.Shown shown = new Shows.Shown();
        for (Segment part : open) {
            Shows.Shown its = shows.of(new Fault.Series(part.id(), Fault.Series.OPEN_OHM));
            its.symptoms().stream()
                    .filter(s -> !shown.symptoms().contains(s))
                    .forEach(shown.symptoms()::add);
            shown.codes().putAll(its.codes());
            its.missed().stream()
                    .filter(m -> !shown.missed().contains(m))
                    .forEach(shown.missed()::add);
            its.words().stream()
                    .filter(w -> !shown.words().contains(w))
                    .forEach(shown.words()::add);
        }
        return shown;
    }

    private Optional<Suspect> suspect(
            String id,
            String name,
            Wear wear,
            Map<String, Map<String, Double>> tells,
            Shows.Shown shown,
            List<Segment> parts,
            String repaired) {
        return shown.words().isEmpty()
                ? Optional.empty()
                : Optional.of(
                        Shows.suspect(
                                id + LOOSE,
                                name + " " + wear.broken(),
                                wear,
                                effect(parts),
                                shown,
                                tells,
                                Repairs.mended(id + LOOSE, wear, repaired)));
    }

    /** At the first of which a break shows. */
    private Effect effect(List<Segment> parts) {
        for (Circuit c : circuits) {
            for (Segment s : c.segments()) {
                if (parts.contains(s) && shows.state(c).edge(s.id()).isPresent()) {
                    return new Effect.Loose(c.id(), s.id());
                }
            }
        }
        throw new IllegalStateException("No break shows of " + parts);
    }
}
