package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Divider;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The way round one sensor, made from its circuit: its reference, its earth, its signal plugged and
 * unplugged, the wire back to the module, and what the module makes of it, each with what should be
 * read and what it would prove. It ends in who is to blame.
 */
public final class SensorWalk {
    /** Of a regulated reference the battery is no part. */
    private static final double SUPPLY_VOLTS = 12.4;

    /** From here on it is said who it is. */
    private static final double SAID = 0.8;

    private final VehicleDescription description;
    private final Circuit circuit;
    private final Gauge gauge;
    private final Map<String, Double> told;
    private final List<Step> steps = new ArrayList<>();

    /**
     * A check of the walk.
     *
     * @param expected what a sound sensor shows there
     * @param proves what it tells of which part
     */
    public record Step(Check check, String expected, String proves) {}

    /** Who is to blame for a wrong figure. */
    public enum Culprit {
        SENSOR("The sensor lies"),
        WAY("Its wires or contacts lose it"),
        SHARED("What it shares with other sensors is at fault: reference, earth or splice"),
        MODULE("The module misreads it"),
        NONE("None of these; go on where the Next card says");

        private final String words;

        Culprit(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private SensorWalk(
            VehicleDescription description,
            Circuit circuit,
            Gauge gauge,
            Map<String, Double> told) {
        this.told = told;
        this.description = description;
        this.circuit = circuit;
        this.gauge = gauge;
        lay();
    }

    /** The walk round a sensor of which nobody tells what it feels, as if at rest. */
    public static Optional<SensorWalk> of(VehicleDescription description, String sensor) {
        return of(description, sensor, Map.of());
    }

    /**
     * The walk round a sensor.
     *
     * @param sensor id of the part
     * @param told value → what its module tells of it now
     * @return nothing where no circuit has such a sensor
     */
    public static Optional<SensorWalk> of(
            VehicleDescription description, String sensor, Map<String, Double> told) {
        return description.circuits().stream()
                .flatMap(
                        c ->
                                sensors(c).stream()
                                        .filter(g -> g.part().equals(sensor))
                                        .map(g -> new SensorWalk(description, c, g, told)))
                .findFirst();
    }

    /** The value by which a sensor's module tells what it feels; empty where none does. */
    public static Optional<String> valueOf(VehicleDescription description, String sensor) {
        return description.circuits().stream()
                .flatMap(c -> sensors(c).stream())
                .filter(g -> g.part().equals(sensor) && !g.value().isEmpty())
                .map(Gauge::value)
                .findFirst();
    }

    /** The sensors of a circuit, each by how its module reads it. */
    public static List<Gauge> sensors(Circuit circuit) {
        return circuit.sources().isEmpty()
                ? List.of()
                : circuit.gauges().stream()
                        .filter(g -> g.by() == Gauge.By.MODULE)
                        .filter(g -> !(circuit.component(g.part()).orElse(null) instanceof Segment))
                        .toList();
    }

    public Circuit circuit() {
        return circuit;
    }

    public String name() {
        return gauge.name();
    }

    /** In the order in which they are walked. */
    public List<Step> steps() {
        return List.copyOf(steps);
    }

    private void lay() {
        Ends ends = Ends.of(circuit.component(gauge.part()).orElseThrow());
        String shared =
                sensors(circuit).stream()
                        .map(Gauge::name)
                        .filter(n -> !n.equals(gauge.name()))
                        .collect(Collectors.joining(", "));
        pin(ends.reference())
                .ifPresent(
                        p ->
                                read(
                                        p.from(),
                                        rest(),
                                        "The reference arrives."
                                                + (shared.isEmpty()
                                                        ? ""
                                                        : " If it does not, these lack it too: "
                                                                + shared)));
        pin(ends.earth())
                .ifPresent(
                        p ->
                                read(
                                        p.from(),
                                        rest(),
                                        "Its earth is good: more than some tens of millivolts are lost between here and the module's own earth."));
        Optional<Segment> signal = pin(ends.signal());
        signal.ifPresent(
                p -> {
                    read(
                            p.from(),
                            rest(),
                            "With all plugged in: what the sensor makes of what it feels.");
                    unplugged(p.from(), ends.reference().isEmpty());
                });
        looks(
                g -> g.isOhms() && g.part().equals(gauge.part()),
                "The sensor by itself, with nothing beside it: whole, open, or shorted inside.");
        read(gauge.from(), rest(), "What arrives at the module's pin.");
        looks(
                g -> g.isAcross() && Set.of(g.from(), g.to()).contains(gauge.from()),
                "The same at both ends: no wire or contact between them takes any of it.");
        looks(
                g -> g.isCompared() && g.part().equals(gauge.part()),
                "What the module tells is true, or not.");
        signal.flatMap(Segment::pin)
                .flatMap(p -> look(DrawnCircuits.lookedAt(p.plug())))
                .ifPresent(
                        c ->
                                steps.add(
                                        new Step(
                                                c,
                                                "clean and tight",
                                                "No meter reaches between a pin and what it leads to.")));
    }

    /**
     * The points inside a sensor.
     *
     * @param reference empty for a sensor of two wires
     */
    private record Ends(
            Optional<String> reference, Optional<String> signal, Optional<String> earth) {
        static Ends of(Component sensor) {
            return sensor instanceof Divider d
                    ? new Ends(Optional.of(d.from()), Optional.of(d.out()), Optional.of(d.to()))
                    : new Ends(
                            Optional.empty(), Optional.of(sensor.from()), Optional.of(sensor.to()));
        }

        Stream<String> all() {
            return Stream.of(reference, signal, earth).flatMap(Optional::stream);
        }
    }

    /** The contact that leads to a point inside a sensor. */
    private Optional<Segment> pin(Optional<String> inside) {
        return circuit.segments().stream()
                .filter(s -> s.pin().isPresent() && inside.filter(s.to()::equals).isPresent())
                .findFirst();
    }

    private ProbeCondition rest() {
        return ProbeCondition.of(circuit).get(0);
    }

    private void unplugged(String signal, boolean biased) {
        ProbeCondition.of(circuit, signal).stream()
                .filter(ProbeCondition::unplugs)
                .findFirst()
                .ifPresent(
                        c ->
                                read(
                                        signal,
                                        c,
                                        biased
                                                ? "Unplugged it rises to what the module puts on it: that proves the wire back to the module."
                                                : "Unplugged it falls to nothing; what is there all the same comes from another wire."));
    }

    private void read(String point, ProbeCondition condition, String proves) {
        description.checks().stream()
                .filter(
                        c ->
                                c instanceof Check.Reading r
                                        && r.circuit().equals(circuit.id())
                                        && r.point().equals(point)
                                        && r.moving().equals(condition.motors()))
                .findFirst()
                .ifPresent(
                        c ->
                                steps.add(
                                        new Step(
                                                c,
                                                condition
                                                        .healthy(
                                                                new SharedPoints(
                                                                        description.circuits()),
                                                                circuit,
                                                                point,
                                                                SUPPLY_VOLTS,
                                                                felt(point, condition))
                                                        .words(),
                                                proves)));
    }

    /** Unplugged it tells nothing of what it feels. */
    private Optional<Sensed> felt(String point, ProbeCondition condition) {
        return Sensed.at(circuit, point, description::value, told)
                .filter(s -> !condition.unplugs());
    }

    private void looks(Predicate<Gauge> which, String proves) {
        circuit.gauges().stream()
                .filter(which)
                .forEach(
                        g ->
                                look(g.findingId())
                                        .ifPresent(c -> steps.add(new Step(c, well(g), proves))));
    }

    private static String well(Gauge g) {
        return g.bands().stream().filter(b -> b.well()).findFirst().orElseThrow().name();
    }

    private Optional<Check> look(String finding) {
        return description.checks().stream()
                .filter(c -> c instanceof Check.Look l && l.finding().equals(finding))
                .findFirst();
    }

    /** How likely each is to blame, together with all that is not of this sensor. */
    public Map<Culprit, Double> blamed(Ranking ranking) {
        Map<Culprit, Double> all = new EnumMap<>(Culprit.class);
        for (Culprit c : Culprit.values()) {
            all.put(c, 0.0);
        }
        for (Standing s : ranking.standings()) {
            Culprit its =
                    description.suspect(s.suspectId()).map(this::culprit).orElse(Culprit.NONE);
            all.merge(its, s.sureness(), Double::sum);
        }
        return all;
    }

    /** Who is to blame, where that is sure enough to be said. */
    public Optional<Culprit> culprit(Ranking ranking) {
        return blamed(ranking).entrySet().stream()
                .max(Comparator.comparingDouble(Map.Entry::getValue))
                .filter(e -> e.getValue() >= SAID)
                .map(Map.Entry::getKey);
    }

    private Culprit culprit(Suspect suspect) {
        Effect effect = suspect.effect().orElse(null);
        String part = suspect.effect().flatMap(Effect::part).orElse("");
        if (circuit.component(part).isEmpty()) {
            return Culprit.NONE;
        }
        if (effect instanceof Effect.Off off && off.misread()) {
            return part.equals(gauge.scale().input()) ? Culprit.MODULE : Culprit.NONE;
        }
        if (part.equals(gauge.part())) {
            return Culprit.SENSOR;
        }
        if (part.equals(gauge.scale().input())) {
            return Culprit.MODULE;
        }
        boolean others =
                sensors(circuit).stream()
                        .anyMatch(g -> !g.part().equals(gauge.part()) && isOf(part, g));
        return others ? Culprit.NONE : isOf(part, gauge) ? Culprit.WAY : Culprit.SHARED;
    }

    /** Whether a part is the sensor, one of its contacts, a wire to one, or its input. */
    private boolean isOf(String part, Gauge sensor) {
        Set<String> plugged =
                Ends.of(circuit.component(sensor.part()).orElseThrow())
                        .all()
                        .flatMap(p -> pin(Optional.of(p)).stream())
                        .map(Segment::from)
                        .collect(Collectors.toSet());
        return part.equals(sensor.part())
                || part.equals(sensor.scale().input())
                || circuit.segments().stream()
                        .filter(s -> s.id().equals(part))
                        .anyMatch(s -> plugged.contains(s.from()) || plugged.contains(s.to()));
    }
}
