package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Consequence;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What can break in the circuits of a vehicle, and where it can be looked for: every segment is a
 * suspect and every point that a probe can touch a check, whether somebody thought of it or not.
 * What a description writes of a segment or a point itself comes first.
 */
public final class CircuitSuspects {
    /** Prefix of the ids of those that are derived. */
    public static final String PREFIX = "circuit-";

    /** Prefix of the ids of their repairs. */
    static final String REPAIR = "repair-" + PREFIX;

    /** Ohms that are added: from what a motor just feels to what stops it. */
    private static final double LEAST_OHM = 0.15;

    private static final double MOST_OHM = 3;

    /** A motor's gear and brushes wear so far, as factors on its load. */
    private static final double LEAST_DRAG = 1.08;

    private static final double MOST_DRAG = 1.6;

    /**
     * Beside getting at the point: to set an actuator moving, or to hang a load and let it heat.
     */
    private static final double MOVING_MINUTES = 1;

    private static final double LOADED_MINUTES = 2;

    private CircuitSuspects() {}

    /** The description with all suspects and checks of its circuits. */
    public static VehicleDescription added(VehicleDescription written) {
        VehicleDescription d =
                written.withOnly(
                        written.suspects().stream().map(s -> sagging(written, s)).toList(),
                        written.checks());
        DrawnCircuits drawn = new DrawnCircuits(d.wiring());
        List<Suspect> suspects =
                SharedParts.joined(
                        d.suspects(), suspects(d), new FedModules(d).weighted(drawn.suspects()));
        List<Check> checks = new ArrayList<>(checks(d));
        checks.addAll(drawn.checks());
        return d.with(drawn.symptoms(), drawn.findings()).withSuspects(suspects).withChecks(checks);
    }

    /** Suspects for what no written suspect stands for. */
    static List<Suspect> suspects(VehicleDescription d) {
        Set<String> written =
                d.suspects().stream()
                        .flatMap(s -> s.effect().stream())
                        .map(CircuitSuspects::place)
                        .collect(Collectors.toSet());
        List<Suspect> all = new ArrayList<>();
        for (Circuit circuit : written(d)) {
            List<Consequence> consequences =
                    d.consequences().stream()
                            .filter(c -> c.circuit().equals(circuit.id()))
                            .toList();
            Map<String, List<String>> paths = new LinkedHashMap<>();
            CircuitModel model = new CircuitModel(circuit);
            circuit.motors().forEach(m -> paths.put(m.id(), model.path(m.id())));
            for (Segment s : circuit.segments()) {
                List<Consequence> its =
                        consequences.stream()
                                .filter(c -> paths.get(c.motor()).contains(s.id()))
                                .toList();
                if (!its.isEmpty() && !written.contains(circuit.id() + " " + s.id())) {
                    all.add(segment(circuit, s, its));
                }
            }
            for (MotorPart m : circuit.motors()) {
                List<Consequence> its =
                        consequences.stream().filter(c -> c.motor().equals(m.id())).toList();
                if (!its.isEmpty() && !written.contains(circuit.id() + " " + m.id())) {
                    all.add(motor(circuit, m, its));
                }
            }
        }
        return all;
    }

    /** One that lets the supply run down slows every motor as often. */
    private static Suspect sagging(VehicleDescription d, Suspect suspect) {
        if (!(suspect.effect().orElse(null) instanceof Effect.Sags sags)) {
            return suspect;
        }
        Map<String, Double> codes = new LinkedHashMap<>(suspect.codes());
        Map<String, Double> symptoms = new LinkedHashMap<>(suspect.symptoms());
        Map<String, Map<String, Double>> tells = new LinkedHashMap<>(suspect.tells());
        for (Consequence c : d.consequences()) {
            c.codes().forEach((k, p) -> codes.merge(k, sags.share() * p, CircuitSuspects::either));
            c.symptoms()
                    .forEach(
                            (k, p) -> symptoms.merge(k, sags.share() * p, CircuitSuspects::either));
            c.tells()
                    .forEach(
                            (f, p) ->
                                    tells.putIfAbsent(
                                            f, mixed(d.finding(f).orElseThrow(), p, sags.share())));
        }
        return suspect.showing(codes, symptoms, tells);
    }

    private static Map<String, Double> mixed(
            Finding finding, Map<String, Double> slow, double share) {
        return finding.outcomes().stream()
                .collect(
                        Collectors.toMap(
                                FindingOutcome::id,
                                o ->
                                        (1 - share) * o.healthy()
                                                + share * slow.getOrDefault(o.id(), 0.0)));
    }

    /** Circuits whose consequences are written; those with gauges tell their own. */
    private static List<Circuit> written(VehicleDescription d) {
        return d.circuits().stream().filter(c -> c.gauges().isEmpty()).toList();
    }

    private static String place(Effect effect) {
        if (effect instanceof Effect.Series series) {
            return series.circuit() + " " + series.of();
        }
        return effect instanceof Effect.Drag drag ? drag.circuit() + " " + drag.of() : "";
    }

    private static Suspect segment(Circuit circuit, Segment s, List<Consequence> consequences) {
        String between =
                " between "
                        + circuit.point(s.from()).name()
                        + " and "
                        + circuit.point(s.to()).name();
        String name = s.name() + " " + s.wear().broken() + "," + between;
        return suspect(
                circuit,
                s.id(),
                name,
                s.wear().common(),
                new Effect.Series(circuit.id(), s.id(), LEAST_OHM, MOST_OHM),
                List.of(name, "voltage is lost while current flows"),
                consequences,
                Repairs.mended(circuit.id() + "-" + s.id(), s.wear(), s.name() + between));
    }

    private static Suspect motor(Circuit circuit, MotorPart m, List<Consequence> consequences) {
        String name = m.name() + " " + m.wear().broken();
        return suspect(
                circuit,
                m.id(),
                name,
                m.wear().common(),
                new Effect.Drag(circuit.id(), m.id(), LEAST_DRAG, MOST_DRAG),
                List.of(name),
                consequences,
                Repairs.of(
                        circuit.id() + "-" + m.id(),
                        m.wear(),
                        m.name().toLowerCase(Locale.ROOT),
                        m.name()));
    }

    private static Suspect suspect(
            Circuit circuit,
            String id,
            String name,
            double common,
            Effect effect,
            List<String> begins,
            List<Consequence> consequences,
            Repair repair) {
        Map<String, Double> codes = new LinkedHashMap<>();
        Map<String, Double> symptoms = new LinkedHashMap<>();
        Map<String, Map<String, Double>> tells = new LinkedHashMap<>();
        List<String> chain = new ArrayList<>(begins);
        for (Consequence c : consequences) {
            c.codes().forEach((code, p) -> codes.merge(code, p, CircuitSuspects::either));
            c.symptoms().forEach((s, p) -> symptoms.merge(s, p, CircuitSuspects::either));
            c.tells().forEach(tells::putIfAbsent);
        }
        chain.addAll(consequences.get(0).chain());
        return new Suspect(
                PREFIX + circuit.id() + "-" + id,
                name,
                common,
                0,
                0,
                Optional.of(effect),
                codes,
                symptoms,
                tells,
                chain,
                repair);
    }

    /** Of two ways to the same end, either suffices. */
    static double either(double p, double q) {
        return 1 - (1 - p) * (1 - q);
    }

    /** A reading at every point that can be reached, in every condition, beside those written. */
    static List<Check> checks(VehicleDescription d) {
        Set<String> written =
                d.checks().stream().map(Check::key).collect(Collectors.toCollection(HashSet::new));
        Set<Check> all = new LinkedHashSet<>();
        for (Circuit circuit : written(d)) {
            for (ProbePoint point : circuit.points()) {
                for (ProbeCondition condition : ProbeCondition.of(circuit)) {
                    Check check = check(circuit, point, condition);
                    if (tells(point) && written.add(check.key())) {
                        all.add(check);
                    }
                }
            }
        }
        return List.copyOf(all);
    }

    /** One lead is on battery minus, and the supply is known without a reading. */
    static boolean tells(ProbePoint point) {
        return point.canBeProbed()
                && !point.id().equals(Circuit.PLUS)
                && !point.id().equals(Circuit.MINUS);
    }

    private static Check check(Circuit circuit, ProbePoint point, ProbeCondition condition) {
        return new Check.Reading(
                PREFIX + circuit.id() + "-" + point.id() + "-" + condition.id(),
                "Meter at " + point.name() + ", " + condition.name(circuit),
                "probe",
                circuit.id(),
                List.of(point.id()),
                condition.motors(),
                condition.load().name().toLowerCase(Locale.ROOT),
                point.minutes()
                        + (condition.moving().isPresent() ? MOVING_MINUTES : 0)
                        + (condition.load() == Load.NOTHING ? 0 : LOADED_MINUTES),
                condition.moving().isPresent()
                        ? "What is lost up to here shows while the current flows."
                        : "It tells the part of the path before this point from the part behind it.");
    }
}
