package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.ConsumerKind;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Need;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Shorts;
import brightlantern.core.circuit.Source;
import brightlantern.core.circuit.Touched;
import brightlantern.core.circuit.Wear;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;

/** What can break in circuits with gauges, and what follows from it. */
final class DrawnSuspects {
    private static final double LARGEST_TIMES = 80;

    /** A bad contact looks bad so often. */
    private static final double PIN_SEEN = 0.88;

    /** How the ids of wires end that touch the body. */
    private static final String CHAFED = "-chafed";

    /** … and of those that touch what is live. */
    private static final String LIVE = "-live";

    private static final String SHORTED = "-shorted";
    private static final String STUCK = "-stuck";

    /** Who looks along a wire that has rubbed through sees it so often. */
    private static final double RUB_SEEN = 0.92;

    /** Of what may also break so many are no breaks. */
    private static final double PARTLY = 0.6;

    private static final double LAMP_TELLS = 0.96;

    private final List<Circuit> circuits;
    private final Shows shows;
    private final Set<String> followed;
    private final Map<String, Set<String>> pins;
    private final Map<String, Map<String, Shorts.Short>> shorts;

    /**
     * @param shorts circuit → its wires that blow a fuse
     * @param circuits with gauges
     * @param needs what the engine needs of them
     * @param followed parts of which is written what follows while they are bad; here they are open
     * @param pins connector → its pins
     */
    DrawnSuspects(
            List<Circuit> circuits,
            List<Need> needs,
            Set<String> followed,
            Map<String, Set<String>> pins,
            Map<String, Map<String, Shorts.Short>> shorts) {
        this.shorts = shorts;
        this.circuits = circuits;
        this.shows = new Shows(circuits, needs);
        this.followed = followed;
        this.pins = pins;
    }

    /** What a bad contact shows when its connector is opened. */
    private Map<String, Map<String, Double>> tells(Component part) {
        Optional<Segment.Pin> pin = part instanceof Segment s ? s.pin() : Optional.empty();
        if (pin.isEmpty()) {
            return Map.of();
        }
        Map<String, Double> odds = new LinkedHashMap<>();
        Set<String> all = pins.get(pin.get().plug());
        all.forEach(
                p -> odds.put(p, p.equals(pin.get().number()) ? PIN_SEEN : DrawnCircuits.MISREAD));
        odds.put(DrawnCircuits.CLEAN, 1 - PIN_SEEN - DrawnCircuits.MISREAD * (all.size() - 1));
        return Map.of(DrawnCircuits.lookedAt(pin.get().plug()), odds);
    }

    /** Every part of which a break shows somewhere; one that several circuits share once. */
    List<Suspect> all() {
        Map<String, Suspect> all = new LinkedHashMap<>();
        LyingSuspects lying = new LyingSuspects(shows);
        LooseSuspects loose = new LooseSuspects(circuits, shows, pins);
        for (Circuit c : circuits) {
            for (Component part : c.components()) {
                if (!all.containsKey(part.id())) {
                    suspect(c, part).ifPresent(s -> all.put(part.id(), s));
                    for (Touched touched : Touched.values()) {
                        chafed(c, part, touched).ifPresent(s -> all.put(s.id(), s));
                    }
                    shorted(c, part).ifPresent(s -> all.put(part.id() + SHORTED, s));
                    stuck(c, part).ifPresent(s -> all.put(part.id() + STUCK, s));
                    lying.of(c, part).forEach(s -> all.putIfAbsent(s.id(), s));
                    if (part instanceof Segment s) {
                        loose.of(c, s).ifPresent(x -> all.putIfAbsent(x.id(), x));
                    }
                }
            }
        }
        return List.copyOf(all.values());
    }

    private Optional<Suspect> suspect(Circuit c, Component part) {
        if (part instanceof Consumer k && k.kind() == ConsumerKind.MODULE) {
            // one that is dead by itself is an element of the network
            return Optional.empty();
        }
        OptionalDouble edge = shows.state(c).edge(part.id());
        if (edge.isEmpty()) {
            return Optional.empty();
        }
        Fault open = new Fault.Series(part.id(), Fault.Series.OPEN_OHM);
        double most = Math.min(edge.getAsDouble() * LARGEST_TIMES, Fault.Series.OPEN_OHM);
        List<Fault> sizes =
                Shows.sizes(edge.getAsDouble(), most, ohm -> new Fault.Series(part.id(), ohm));
        return Optional.of(
                Shows.suspect(
                        part.id(),
                        name(c, part),
                        part.wear(),
                        effect(c, part, edge.getAsDouble()),
                        shows.of(open).with(shows.doubted(sizes, PARTLY)),
                        tells(part),
                        repair(c, part)));
    }

    /**
     * A wire of sensors that touches the body, or what is live. One that a fuse protects blows it,
     * and is looked for behind the fuse.
     */
    private Optional<Suspect> chafed(Circuit c, Component part, Touched touched) {
        if (c.sources().isEmpty() || !isWire(part)) {
            return Optional.empty();
        }
        OptionalDouble edge = shows.state(c).chafes(part.id(), touched);
        if (edge.isEmpty()) {
            return Optional.empty();
        }
        Wear wear = touched.wear();
        String id = part.id() + (touched == Touched.EARTH ? CHAFED : LIVE);
        String name = part.name() + " " + wear.broken() + "," + between(c, part);
        Fault bare = new Fault.Chafed(part.id(), touched, GaugeState.TOUCHES_OHM);
        List<Fault> sizes =
                Shows.sizes(
                        GaugeState.TOUCHES_OHM,
                        edge.getAsDouble(),
                        ohm -> new Fault.Chafed(part.id(), touched, ohm));
        return Optional.of(
                Shows.suspect(
                        id,
                        name,
                        wear,
                        new Effect.Chafed(
                                c.id(),
                                part.id(),
                                touched,
                                GaugeState.TOUCHES_OHM,
                                edge.getAsDouble()),
                        shows.of(bare).with(shows.doubted(sizes, 1)),
                        rubbed(part, touched),
                        Repairs.mended(id, wear, lower(part.name()) + between(c, part))));
    }

    /** What switches and stays closed: what it feeds goes on when it was switched off. */
    private Optional<Suspect> stuck(Circuit c, Component part) {
        Optional<Wear> wear = part instanceof Segment s ? s.stuck() : Optional.empty();
        Shows.Shown shown = shows.of(new Fault.Stuck(part.id()));
        return wear.filter(w -> !shown.words().isEmpty())
                .map(
                        w ->
                                Shows.suspect(
                                        part.id() + STUCK,
                                        part.name() + " " + w.broken(),
                                        w,
                                        new Effect.Stuck(c.id(), part.id()),
                                        shown,
                                        Map.of(),
                                        Repairs.mended(part.id() + STUCK, w, lower(part.name()))));
    }

    private static Map<String, Map<String, Double>> rubbed(Component wire, Touched touched) {
        boolean body = touched == Touched.EARTH;
        return Map.of(
                DrawnCircuits.along(wire.id()),
                Map.of(
                        body ? DrawnCircuits.RUBBED : DrawnCircuits.AGAINST,
                        RUB_SEEN,
                        body ? DrawnCircuits.AGAINST : DrawnCircuits.RUBBED,
                        DrawnCircuits.MISREAD,
                        DrawnCircuits.CLEAN,
                        1 - RUB_SEEN - 2 * DrawnCircuits.MISREAD,
                        DrawnCircuits.GIVES,
                        DrawnCircuits.MISREAD));
    }

    /** A wire behind a fuse that touches the body: its fuse is blown, and a new one blows too. */
    private Optional<Suspect> shorted(Circuit c, Component part) {
        Shorts.Short its = shorts.get(c.id()).get(part.id());
        if (its == null) {
            return Optional.empty();
        }
        Shows.Shown shown = shows.of(new Fault.Series(its.fuse(), Fault.Series.OPEN_OHM));
        if (shown.words().isEmpty()) {
            return Optional.empty();
        }
        String fuse = lower(c.component(its.fuse()).orElseThrow().name());
        Map<String, Map<String, Double>> tells = new LinkedHashMap<>(rubbed(part, Touched.EARTH));
        Map<String, Double> lamp = new LinkedHashMap<>();
        for (Shorts.Glow g : Shorts.Glow.values()) {
            lamp.put(g.id(), g == its.glow() ? LAMP_TELLS : (1 - LAMP_TELLS) / 2);
        }
        tells.put(DrawnCircuits.behind(its.fuse()), lamp);
        return Optional.of(
                Shows.suspect(
                        part.id() + SHORTED,
                        part.name()
                                + " "
                                + Wear.SHORTED.broken()
                                + " and blows "
                                + fuse
                                + ","
                                + between(c, part),
                        Wear.SHORTED,
                        new Effect.Shorted(c.id(), part.id(), its.fuse()),
                        shown,
                        tells,
                        Repairs.of(
                                part.id() + SHORTED,
                                Wear.SHORTED,
                                lower(part.name()) + between(c, part) + ", and replace " + fuse,
                                "as found, a fuse")));
    }

    /**
     * A filament is whole or burnt through, a sensor open or well; all else may also let less
     * through.
     */
    private Effect effect(Circuit c, Component part, double edge) {
        boolean burns =
                part instanceof Consumer k && k.isOpenOrWell() || followed.contains(part.id());
        double most = Math.min(edge * LARGEST_TIMES, Fault.Series.OPEN_OHM);
        return new Effect.Series(
                c.id(),
                part.id(),
                burns ? Fault.Series.OPEN_OHM : edge,
                burns ? Fault.Series.OPEN_OHM : most,
                true);
    }

    static String between(Circuit c, Component part) {
        return " between " + c.point(part.from()).name() + " and " + c.point(part.to()).name();
    }

    private static boolean isWire(Component part) {
        return part instanceof Segment s
                && (s.kind() == SegmentKind.WIRE || s.kind() == SegmentKind.SPLICE);
    }

    private String name(Circuit c, Component part) {
        return part.name()
                + " "
                + (followed.contains(part.id()) ? "open" : part.wear().broken())
                + (isWire(part) ? "," + between(c, part) : "");
    }

    private static Repair repair(Circuit c, Component part) {
        String what = lower(part.name()) + (isWire(part) ? between(c, part) : "");
        if (part instanceof Source) {
            return Repairs.ofModule(part.id(), part.wear(), what);
        }
        return part instanceof Segment
                ? Repairs.mended(part.id(), part.wear(), what)
                : Repairs.of(part.id(), part.wear(), what, part.name());
    }

    static String lower(String name) {
        return name.length() > 1 && Character.isUpperCase(name.charAt(1))
                ? name
                : name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }
}
