package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.Shorts;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** What a technician finds at the circuits of a vehicle by hand, eye, test lamp and ohmmeter. */
public final class Hands {
    private final Circuits live;
    private final List<Circuit> circuits;

    /** All parts as they are built, by their ids. */
    private final Map<String, Component> built;

    private final BrokenParts broken;

    Hands(Circuits live, List<Circuit> circuits, Map<String, Component> built, BrokenParts broken) {
        this.live = live;
        this.circuits = circuits;
        this.built = built;
        this.broken = broken;
    }

    /**
     * How the pins of a connector look when it is opened.
     *
     * @throws IllegalArgumentException when there is no such connector
     */
    public String pins(String plug) {
        needsPlug(plug);
        return broken.badPin(plug)
                .map(n -> "Pin " + n + " of " + plug + " is corroded or loose.")
                .orElse("The pins of " + plug + " are clean and tight.");
    }

    private void needsPlug(String plug) {
        if (!plugs().contains(plug)) {
            throw new IllegalArgumentException("There is no connector '" + plug + "'");
        }
    }

    /** All connectors. */
    public List<String> plugs() {
        return circuits.stream()
                .flatMap(c -> c.settings().stream())
                .map(Setting::id)
                .distinct()
                .filter(Setting::unplugs)
                .map(s -> s.substring(s.indexOf('-') + 1))
                .toList();
    }

    /** Gauges that are held against another instrument, by the id of their finding. */
    public Map<String, Gauge> compared() {
        return gauges(Gauge::isCompared);
    }

    private Map<String, Gauge> gauges(Predicate<Gauge> which) {
        Map<String, Gauge> found = new TreeMap<>();
        circuits.stream()
                .flatMap(c -> c.gauges().stream())
                .filter(which)
                .forEach(g -> found.put(g.findingId(), g));
        return found;
    }

    /** Consumers whose ohms can be measured alone, by the id of their finding. */
    public Map<String, Gauge> ohms() {
        return gauges(Gauge::isOhms);
    }

    /** Consumers whose pin can be fed from the battery, by the id of their finding. */
    public Map<String, Gauge> fed() {
        return gauges(Gauge::isFed);
    }

    /** Consumers round whose wire a clamp can be laid, by the id of their finding. */
    public Map<String, Gauge> clamped() {
        return gauges(Gauge::isClamped);
    }

    /**
     * What a consumer does while a lead from the battery feeds its pin, in words.
     *
     * @throws IllegalArgumentException when it is no gauge of a consumer that can be fed
     */
    public String fed(Gauge gauge) {
        synchronized (live) {
            LiveCircuit its = its(gauge, Gauge::isFed);
            return live.hanging(
                    gauge.fedAt(its.circuit()),
                    Load.LEAD,
                    () -> gauge.at(live.share(its, gauge)).name());
        }
    }

    /**
     * What a clamp shows while its consumer is on, A; empty while it is off.
     *
     * @throws IllegalArgumentException when it is no gauge of a clamp
     */
    public OptionalDouble amps(Gauge gauge) {
        synchronized (live) {
            LiveCircuit its = its(gauge, Gauge::isClamped);
            return live.isOn(its, gauge)
                    ? OptionalDouble.of(gauge.amps(its.circuit(), live.share(its, gauge)))
                    : OptionalDouble.empty();
        }
    }

    private LiveCircuit its(Gauge gauge, Predicate<Gauge> kind) {
        return live.with(gauge, kind)
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "Nothing here is '" + gauge.name() + "'"));
    }

    /** Ohms of a consumer alone, as they are: cold, and a sensor by what it feels. */
    public double ohms(Gauge gauge) {
        return Gauge.ohms(built.get(gauge.part()), broken.now())
                * live.senses().times(gauge.part());
    }

    /**
     * Whether something flickers or jumps while somebody moves the harness at a connector, or taps
     * a relay, switch, fuse or earth.
     *
     * @throws IllegalArgumentException when there is nothing of that name to move
     */
    public boolean jumps(String moved) {
        if (!plugs().contains(moved) && !broken.tapped().contains(moved)) {
            throw new IllegalArgumentException(
                    "There is no connector, relay, switch, fuse or earth '" + moved + "'");
        }
        return broken.jumps(moved);
    }

    /** What can be tapped and moved by itself, id → name. */
    public Map<String, String> tapped() {
        return segments(Segment::isTapped);
    }

    /** Fuses in whose place a test lamp can be put, id → name. */
    public Map<String, String> fuses() {
        return segments(s -> s.kind() == SegmentKind.FUSE);
    }

    /** Wires along which one can look, id → name. */
    public Map<String, String> wires() {
        return segments(s -> s.kind().isLine());
    }

    private Map<String, String> segments(Predicate<Segment> which) {
        Map<String, String> found = new TreeMap<>();
        for (Circuit c : circuits) {
            c.segments().stream()
                    .filter(which)
                    .forEach(s -> found.putIfAbsent(s.id(), CircuitFailures.name(c, s)));
        }
        return found;
    }

    /**
     * What a test lamp in the place of a fuse shows, with all that it feeds unplugged.
     *
     * @throws IllegalArgumentException when there is no such fuse
     */
    public Shorts.Glow behind(String fuse) {
        if (!fuses().containsKey(fuse)) {
            throw new IllegalArgumentException("There is no fuse '" + fuse + "'");
        }
        Shorts.Glow most = Shorts.Glow.DARK;
        for (Circuit c : circuits) {
            Set<String> touch =
                    broken.touching(fuse).stream()
                            .filter(w -> c.component(w).isPresent())
                            .collect(Collectors.toSet());
            if (!touch.isEmpty() && most != Shorts.Glow.AT_ONCE) {
                List<Component> parts =
                        c.components().stream().map(p -> built.get(p.id())).toList();
                Shorts.Glow glow = Shorts.glow(c, parts, fuse, touch);
                most = glow == Shorts.Glow.DARK ? most : glow;
            }
        }
        return most;
    }

    /**
     * How a wire is, for somebody who looks along it and pulls at it.
     *
     * @throws IllegalArgumentException when there is no such wire
     */
    public Along along(String wire) {
        if (!wires().containsKey(wire)) {
            throw new IllegalArgumentException("There is no wire '" + wire + "'");
        }
        return broken.along(wire);
    }
}
