package brightlantern.core.reason;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.ExpectedReading;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.FaultTable;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.procedure.actuator.ActuatorRun;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.Collectors;

/**
 * What a hypothesis lets a run or a reading come out as, computed from the circuit. Remembers what
 * it computed.
 */
final class Predictions {
    /** Longer than this, in seconds, is as good as never. */
    static final double NEVER_SECONDS = 5.0;

    /** Motors of one type differ in speed by so much, and a short supply dip adds to it. */
    private static final double SPEED_SHARE = 0.08;

    /** Readings of the feedback come every few hundredths of a second. */
    private static final double SAMPLING_SECONDS = 0.025;

    private final VehicleDescription description;
    private final SharedPoints shared;

    /** States of circuits that are kept solved; a supply that drifts makes ever new ones. */
    private static final int MOST_TABLES = 400;

    /** Figures that are remembered; new readings make ever new ones. */
    private static final int MOST_KNOWN = 20_000;

    /** So many times a size is about as far from its neighbour as from itself. */
    private static final double HALFWAY = 1.35;

    private final Map<Object, Normal> known = new ConcurrentHashMap<>();
    private final Map<TableKey, FaultTable> tables = new ConcurrentHashMap<>();
    private final Map<String, GaugeState> states = new ConcurrentHashMap<>();
    private final Map<String, Set<String>> parts = new ConcurrentHashMap<>();
    private final Map<ShareKey, Double> shares = new ConcurrentHashMap<>();

    /** Shares of gauges with two faults. */
    private final Map<BothKey, Double> twice = new ConcurrentHashMap<>();

    private record TableKey(String circuit, OperatingState state) {}

    Predictions(VehicleDescription description) {
        this.description = description;
        this.shared = new SharedPoints(description.circuits());
    }

    /** Ids of the parts that, broken, may change what is read at a point. */
    Set<String> moving(String circuitId, String point) {
        return shared.moving(description.circuit(circuitId).orElseThrow(), point);
    }

    /** Ids of the parts that, broken, may change how fast an actuator moves. */
    Set<String> moving(String actuatorId) {
        return parts(
                description
                        .actuator(actuatorId)
                        .flatMap(a -> description.circuit(a.circuit()))
                        .orElseThrow());
    }

    private record RunKey(
            String actuator, List<String> together, double supplyVolts, Optional<Fault> fault) {}

    /** Whether a circuit sheet says how an actuator is fed. */
    boolean knows(String actuatorId) {
        return description
                .actuator(actuatorId)
                .flatMap(a -> description.circuit(a.circuit()))
                .isPresent();
    }

    /** Travel time in seconds between the shares that {@link ActuatorRun} judges. */
    Normal run(
            String actuatorId, List<String> together, double supplyVolts, Optional<Fault> fault) {
        double supply = rounded(supplyVolts);
        RunKey key = new RunKey(actuatorId, together, supply, fault);
        Normal found = known.get(key);
        if (found == null) {
            found = computeRun(actuatorId, together, supply, fault);
            known.put(key, found);
        }
        return found;
    }

    private Normal computeRun(
            String actuatorId, List<String> together, double supplyVolts, Optional<Fault> fault) {
        Actuator actuator = description.actuator(actuatorId).orElseThrow();
        Circuit circuit = description.circuit(actuator.circuit()).orElseThrow();
        Set<String> motors =
                together.stream()
                        .map(id -> description.actuator(id).orElseThrow().motor())
                        .collect(Collectors.toSet());
        double speed =
                new CircuitModel(circuit)
                        .solve(OperatingState.idle(supplyVolts).moving(motors), faults(fault))
                        .speeds()
                        .get(actuator.motor());
        double travel =
                (ActuatorRun.TO_SHARE - ActuatorRun.FROM_SHARE)
                        * (actuator.high() - actuator.low());
        double seconds = speed <= 0 ? NEVER_SECONDS : Math.min(NEVER_SECONDS, travel / speed);
        return new Normal(
                seconds, Math.hypot(SAMPLING_SECONDS, SPEED_SHARE * seconds), NEVER_SECONDS);
    }

    /**
     * Supplies that differ by less than the vehicle's own reading is exact share one computation.
     */
    private static double rounded(double volts) {
        return Math.round(volts * 20) / 20.0;
    }

    private record ShareKey(String circuit, String gauge, Optional<Fault> fault) {}

    /** Share of its nominal voltage that a gauge has. */
    double share(Circuit circuit, Gauge gauge, Optional<Fault> fault) {
        // a fault in another circuit leaves this one healthy
        Optional<Fault> here = fault.filter(f -> parts(circuit).contains(f.part()));
        return shares.computeIfAbsent(
                new ShareKey(circuit.id(), gauge.id(), here),
                k ->
                        states.computeIfAbsent(
                                        circuit.id(),
                                        c -> new GaugeState(circuit, GaugeState.TYPICAL_VOLTS))
                                .share(gauge, here));
    }

    /** Volts at a point. */
    Normal reading(
            String circuitId,
            String point,
            String load,
            List<String> moving,
            double supplyVolts,
            Optional<Fault> fault) {
        double supply = rounded(supplyVolts);
        Circuit circuit = description.circuit(circuitId).orElseThrow();
        Optional<Fault> here = fault.filter(f -> parts(circuit).contains(f.part()));
        OperatingState state =
                OperatingState.idle(supply)
                        .moving(Set.copyOf(moving))
                        .loaded(point, Load.named(load));
        // a figure costs less than to remember a hundred thousand of them
        double own = table(circuit, state).with(here).at(point);
        double volts = shared.volts(circuit, point, state, fault, own);
        ExpectedReading reading =
                ExpectedReading.of(circuit, point, supply, volts)
                        .among(shared.unknown(circuit, point, state.moving(), supply));
        return normal(reading, supply);
    }

    /** Volts at the signal of a sensor of which its module tells what it feels. */
    Normal reading(Evidence.Reading r, Sensed sensed, Optional<Fault> fault) {
        double supply = rounded(r.supplyVolts());
        Circuit circuit = sensed.circuit();
        List<Fault> here = faults(fault.filter(f -> parts(circuit).contains(f.part())));
        OperatingState state = state(r, supply);
        // of the many that are of other circuits it is computed once
        return known(
                SensedKey.of(sensed, r.pointId(), state, here),
                () -> {
                    ExpectedReading its = reads(r, sensed, state, here);
                    return normal(
                            here.isEmpty()
                                    ? its
                                    : its.among(between(r, sensed, state, here.get(0))),
                            supply);
                });
    }

    private ExpectedReading reads(
            Evidence.Reading r, Sensed sensed, OperatingState state, List<Fault> here) {
        return sensed.reads(
                r.pointId(),
                state.supplyVolts(),
                here,
                felt ->
                        table(sensed.circuit(), state.feeling(felt))
                                .with(here.stream().findFirst()));
    }

    /** Sizes lie further apart than a module and a meter differ: what lies between two of them. */
    private double between(Evidence.Reading r, Sensed sensed, OperatingState state, Fault fault) {
        double less = reads(r, sensed, state, List.of(fault.times(1 / HALFWAY))).volts();
        double more = reads(r, sensed, state, List.of(fault.times(HALFWAY))).volts();
        return Math.abs(more - less) / Math.sqrt(12);
    }

    /** The sensor whose signal is where something was read, with what was told of it. */
    Optional<Sensed> sensed(Evidence.Reading r) {
        return description
                .circuit(r.circuitId())
                .flatMap(c -> Sensed.at(c, r.pointId(), description::value, r.told()));
    }

    private static OperatingState state(Evidence.Reading r, double supply) {
        return OperatingState.idle(supply)
                .moving(Set.copyOf(r.moving()))
                .loaded(r.pointId(), Load.named(r.load()));
    }

    private static Normal normal(ExpectedReading its, double supply) {
        return new Normal(its.volts(), its.tolerance(), supply + 0.5);
    }

    private Normal known(Object key, Supplier<Normal> computed) {
        if (known.size() > MOST_KNOWN) {
            known.clear();
        }
        return known.computeIfAbsent(key, k -> computed.get());
    }

    /** A circuit is too large to be hashed for each hypothesis. */
    private record SensedKey(
            String gauge, double told, String at, OperatingState state, List<Fault> faults) {
        static SensedKey of(Sensed s, String at, OperatingState state, List<Fault> faults) {
            return new SensedKey(s.gauge().id(), s.told(), at, state, faults);
        }
    }

    private record BothKey(String circuit, String at, OperatingState state, Set<Fault> faults) {}

    /** Whether two faults are both in a circuit, where each changes what the other does. */
    boolean inOne(String circuitId, Fault one, Fault other) {
        Circuit circuit = description.circuit(circuitId).orElseThrow();
        return parts(circuit).contains(one.part()) && parts(circuit).contains(other.part());
    }

    /** Volts at a point with two faults in its circuit, solved with both. */
    Normal reading(Evidence.Reading r, Fault one, Fault other) {
        double supply = rounded(r.supplyVolts());
        Circuit circuit = description.circuit(r.circuitId()).orElseThrow();
        String point = r.pointId();
        OperatingState state = state(r, supply);
        List<Fault> both = List.of(one, other);
        CircuitModel model = new CircuitModel(circuit);
        Optional<Sensed> sensed = sensed(r);
        if (sensed.isPresent()) {
            return known(
                    SensedKey.of(sensed.get(), point, state, both),
                    () ->
                            normal(
                                    sensed.get()
                                            .reads(
                                                    point,
                                                    supply,
                                                    both,
                                                    felt ->
                                                            model.solve(state.feeling(felt), both)
                                                                            .volts()
                                                                    ::get),
                                    supply));
        }
        return known(
                new BothKey(circuit.id(), point, state, Set.copyOf(both)),
                () -> {
                    double own = model.solve(state, both).volts().get(point);
                    double volts = shared.volts(circuit, point, state, Optional.empty(), own);
                    return normal(
                            ExpectedReading.of(circuit, point, supply, volts)
                                    .among(shared.unknown(circuit, point, state.moving(), supply)),
                            supply);
                });
    }

    /** Share of its nominal voltage that a gauge has with two faults in its circuit. */
    double share(Circuit circuit, Gauge gauge, Fault one, Fault other) {
        OperatingState state = gauge.state(circuit, GaugeState.TYPICAL_VOLTS);
        if (twice.size() > MOST_KNOWN) {
            twice.clear();
        }
        return twice.computeIfAbsent(
                new BothKey(circuit.id(), gauge.id(), state, Set.copyOf(List.of(one, other))),
                k -> {
                    Map<String, Double> volts =
                            new CircuitModel(circuit).solve(state, List.of(one, other)).volts();
                    return gauge.share(circuit, volts::get, List.of(one, other));
                });
    }

    Set<String> parts(String circuitId) {
        return parts(description.circuit(circuitId).orElseThrow());
    }

    /** Ids of all parts of a circuit; it is asked for each hypothesis. */
    private Set<String> parts(Circuit circuit) {
        return parts.computeIfAbsent(
                circuit.id(),
                c ->
                        circuit.components().stream()
                                .map(Component::id)
                                .collect(Collectors.toUnmodifiableSet()));
    }

    private FaultTable table(Circuit circuit, OperatingState state) {
        if (tables.size() > MOST_TABLES) {
            tables.clear();
        }
        return tables.computeIfAbsent(
                new TableKey(circuit.id(), state), k -> new FaultTable(circuit, state));
    }

    private static List<Fault> faults(Optional<Fault> fault) {
        return fault.map(List::of).orElse(List.of());
    }
}
