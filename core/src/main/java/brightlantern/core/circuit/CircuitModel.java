package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What a circuit does as physics: node voltages (against battery minus) and motor speeds, healthy
 * or with faults in it. Diagnosis and stand-ins compute with it alike; a stand-in's parts are a
 * little off their drawing.
 */
public final class CircuitModel {
    /** Far below what any workshop meter shows, so that two ways to compute it agree. */
    private static final double SETTLED_VOLTS = 1e-7;

    /** Near their end rounds double their digits: so many are never needed. */
    static final int MOST_ROUNDS = 60;

    /**
     * Rounds that went in a circle until now begin anew from the cold, whence they come near from
     * one side.
     */
    static final int ANEW = 20;

    /** A segment whose current changes by more than this, in ampere, carries a motor. */
    private static final double CARRIES_AMPS = 0.1;

    private final Circuit circuit;
    private final List<Component> parts;
    private final Map<String, Integer> nodes = new HashMap<>();

    /** A circuit whose parts are as drawn. */
    public CircuitModel(Circuit circuit) {
        this(circuit, circuit.components());
    }

    /**
     * @param parts the circuit's parts as they really are
     */
    public CircuitModel(Circuit circuit, List<Component> parts) {
        this.circuit = circuit;
        this.parts = List.copyOf(parts);
        nodes.put(Circuit.MINUS, 0);
        for (ProbePoint point : circuit.points()) {
            nodes.putIfAbsent(point.id(), nodes.size());
        }
    }

    /**
     * @param volts point id → volts against battery minus
     * @param speeds moving motor → percent of travel a second
     * @param amps moving motor → its current
     */
    public record Solution(
            Map<String, Double> volts, Map<String, Double> speeds, Map<String, Double> amps) {}

    /**
     * The steady state; round after round until lamps are as hot as they get and motors decided.
     */
    public Solution solve(OperatingState state, Collection<? extends Fault> faults) {
        List<Component> present = present(state, faults);
        Relays relays = new Relays(present);
        OperatingState expected = relays.expected(state);
        Voltages volts = settled(present, expected);
        OperatingState found = relays.found(expected, volts);
        if (!found.equals(expected)) {
            volts = settled(present, found);
        }
        return solution(present, found, volts);
    }

    private Voltages settled(List<Component> present, OperatingState state) {
        Voltages before = Voltages.NOMINAL;
        double[] last = {};
        for (int round = 0; round < MOST_ROUNDS; round++) {
            Voltages at = round == ANEW ? Voltages.NOMINAL : before;
            double[] now =
                    round == 0
                            ? round(into -> present.forEach(p -> p.stamp(into, state, at)), state)
                            : round(
                                    into -> present.forEach(p -> p.tangent(into, state, at)),
                                    state);
            before = named(now);
            if (round > 0 && isSame(last, now)) {
                break;
            }
            last = now;
        }
        return before;
    }

    /**
     * The next instant of a circuit whose lamps are as hot as the instant before left them.
     *
     * @param before voltages an instant before
     */
    public Voltages next(
            OperatingState state, Collection<? extends Fault> faults, Voltages before) {
        List<Component> present = present(state, faults);
        OperatingState its = new Relays(present).expected(state);
        return named(round(into -> present.forEach(part -> part.stamp(into, its, before)), its));
    }

    /** The parts as the faults leave them, and what hangs on. */
    private List<Component> present(OperatingState state, Collection<? extends Fault> faults) {
        List<Component> present = new ArrayList<>();
        for (Component part : parts) {
            Component as = part;
            for (Fault fault : faults) {
                as = fault.in(as);
            }
            present.add(as);
        }
        state.hung()
                .forEach(
                        (point, load) -> {
                            String pole = circuit.poleOf(point, load);
                            if (!pole.equals(point)) {
                                present.add(new HungLoad(point, pole, load));
                            }
                        });
        return present;
    }

    /** What all parts add to the equations. */
    private interface Stamps {
        void into(Equations equations);
    }

    private double[] round(Stamps stamps, OperatingState state) {
        DcNetwork network = new DcNetwork(nodes.size());
        network.held(node(Circuit.PLUS), state.supplyVolts());
        stamps.into(
                new Equations() {
                    @Override
                    public void resistor(String a, String b, double ohm) {
                        network.resistor(node(a), node(b), ohm);
                    }

                    @Override
                    public void current(String a, String b, double amps, double siemens) {
                        network.current(node(a), node(b), amps, siemens);
                    }
                });
        return network.solve();
    }

    private Voltages named(double[] volts) {
        return name -> volts[node(name)];
    }

    private static boolean isSame(double[] before, double[] now) {
        if (before.length != now.length) {
            return false;
        }
        for (int i = 0; i < now.length; i++) {
            if (!(Math.abs(now[i] - before[i]) <= SETTLED_VOLTS)) {
                return false;
            }
        }
        return true;
    }

    private Solution solution(List<Component> present, OperatingState state, Voltages volts) {
        Map<String, Double> at = new LinkedHashMap<>();
        circuit.points().forEach(point -> at.put(point.id(), volts.at(point.id())));
        Map<String, Double> speeds = new LinkedHashMap<>();
        Map<String, Double> amps = new LinkedHashMap<>();
        for (Component part : present) {
            if (part instanceof MotorPart m && state.moving().contains(m.id())) {
                double across = volts.at(m.from()) - volts.at(m.to());
                speeds.put(m.id(), Motor.of(m).speed(across));
                amps.put(m.id(), Motor.of(m).amps(across));
            }
        }
        return new Solution(at, speeds, amps);
    }

    /**
     * Ids of the segments that the paths of all motors share; where to look when all are at fault.
     * Empty when there is one motor only.
     */
    public List<String> commonPath() {
        if (circuit.motors().size() < 2) {
            return List.of();
        }
        List<String> common = new ArrayList<>();
        circuit.segments().forEach(s -> common.add(s.id()));
        circuit.motors().forEach(m -> common.retainAll(path(m.id())));
        return common;
    }

    /** Segments that carry a motor's current: those whose current changes when only it moves. */
    public List<String> path(String motorId) {
        OperatingState idle = OperatingState.idle(12);
        Map<String, Double> rest = solve(idle, List.of()).volts();
        Map<String, Double> busy = solve(idle.moving(Set.of(motorId)), List.of()).volts();
        List<String> path = new ArrayList<>();
        for (Segment s : circuit.segments()) {
            double drop =
                    (busy.get(s.from()) - busy.get(s.to()))
                            - (rest.get(s.from()) - rest.get(s.to()));
            if (Math.abs(drop) / s.ohm() > CARRIES_AMPS) {
                path.add(s.id());
            }
        }
        return path;
    }

    /** Whether a point is one of its nodes. */
    public boolean knows(String point) {
        return nodes.containsKey(point);
    }

    private int node(String point) {
        Integer index = nodes.get(point);
        if (index == null) {
            throw new IllegalArgumentException(
                    "Circuit " + circuit.name() + " has no point '" + point + "'");
        }
        return index;
    }
}
