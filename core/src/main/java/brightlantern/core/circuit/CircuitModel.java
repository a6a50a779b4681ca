package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a circuit sheet does as physics: node voltages (against battery minus) and motor speeds, for
 * a healthy circuit or with an effect in it. Motors are in steady motion; lamps get less conductive
 * as they heat up.
 */
public final class CircuitModel {
    /** Electronics in each actuator, awake whenever its supply is on. */
    static final double STANDBY_OHM = 1500;

    /** A tenth of a millivolt is below what any workshop meter shows. */
    private static final double SETTLED_VOLTS = 1e-4;

    private final Circuit circuit;
    private final Map<String, Integer> nodes = new HashMap<>();

    public CircuitModel(Circuit circuit) {
        this.circuit = circuit;
        nodes.put("BAT-", 0);
        for (ProbePoint point : circuit.points()) {
            nodes.putIfAbsent(point.id(), nodes.size());
        }
    }

    /** What hangs on a probe point, to the other battery pole. */
    public enum Load {
        NOTHING("nothing", Double.POSITIVE_INFINITY),
        LAMP("small lamp, 5 W", 28.8),
        BULB("big bulb, 55 W", 2.62);

        private final String words;
        private final double hotOhm;

        Load(String words, double hotOhm) {
            this.words = words;
            this.hotOhm = hotOhm;
        }

        public String words() {
            return words;
        }

        /**
         * Filament resistance in ohms at a voltage: R grows about with the root of the voltage (12
         * V nominal).
         */
        public double ohmAt(double volts) {
            return hotOhm * Math.sqrt(Math.max(0.04, Math.min(2, Math.abs(volts) / 12.0)));
        }

        public static Load named(String name) {
            return valueOf(name.toUpperCase(java.util.Locale.ROOT));
        }
    }

    /**
     * How the circuit is used while it is measured.
     *
     * @param supplyVolts at the battery
     * @param moving motors in steady motion
     */
    public record Use(
            double supplyVolts, Set<String> moving, Optional<String> loadedPoint, Load load) {
        public Use {
            moving = Set.copyOf(moving);
        }

        public static Use idle(double supplyVolts) {
            return new Use(supplyVolts, Set.of(), Optional.empty(), Load.NOTHING);
        }

        public Use moving(Set<String> motors) {
            return new Use(supplyVolts, motors, loadedPoint, load);
        }

        public Use loaded(String point, Load hung) {
            return new Use(supplyVolts, moving, Optional.of(point), hung);
        }
    }

    /**
     * @param volts point id → volts against battery minus
     * @param speeds moving motor → percent of travel a second
     */
    public record Solution(
            Map<String, Double> volts, Map<String, Double> speeds, Map<String, Double> amps) {}

    /**
     * Solves the circuit. Between stall and motion a motor is linear, so only which motors stall
     * and how hot a lamp burns is found by repetition.
     */
    public Solution solve(Use use, Optional<Fault> fault) {
        Map<String, Motor> moving = new LinkedHashMap<>();
        for (MotorPart part : circuit.motors()) {
            if (use.moving().contains(part.id())) {
                Motor motor = Motor.of(part);
                moving.put(part.id(), dragged(motor, part, fault));
            }
        }
        Set<String> stalled = new HashSet<>();
        double lampVolts = 12;
        double[] volts = new double[0];
        double[] before = new double[0];
        // the maps contract by a third or better each round: 40 are never needed
        for (int round = 0; round < 40; round++) {
            volts = network(use, fault, moving, stalled, lampVolts).solve();
            for (MotorPart part : circuit.motors()) {
                Motor motor = moving.get(part.id());
                if (motor != null) {
                    double across = volts[node(part.from())] - volts[node(part.to())];
                    if (motor.stallsAt(across)) {
                        stalled.add(part.id());
                    } else {
                        stalled.remove(part.id());
                    }
                }
            }
            if (use.loadedPoint().isPresent()) {
                lampVolts = acrossLoad(use, volts);
            }
            if (settled(before, volts)) {
                break;
            }
            before = volts;
        }
        return solution(moving, volts);
    }

    private static Motor dragged(Motor motor, MotorPart part, Optional<Fault> fault) {
        return fault.orElse(null) instanceof Fault.Drag drag && drag.motor().equals(part.id())
                ? motor.withDrag(drag.size())
                : motor;
    }

    private static double added(Segment segment, Optional<Fault> fault) {
        return fault.orElse(null) instanceof Fault.Series series
                        && series.segment().equals(segment.id())
                ? series.size()
                : 0;
    }

    private static boolean settled(double[] before, double[] now) {
        if (before.length != now.length) {
            return false;
        }
        for (int i = 0; i < now.length; i++) {
            if (Math.abs(now[i] - before[i]) > SETTLED_VOLTS) {
                return false;
            }
        }
        return true;
    }

    private double acrossLoad(Use use, double[] volts) {
        ProbePoint point = circuit.point(use.loadedPoint().orElseThrow());
        double at = volts[node(point.id())];
        return point.side().equals("earth") ? use.supplyVolts() - at : at;
    }

    private DcNetwork network(
            Use use,
            Optional<Fault> fault,
            Map<String, Motor> moving,
            Set<String> stalled,
            double lampVolts) {
        DcNetwork network = new DcNetwork(nodes.size());
        network.voltage(node("BAT+"), 0, use.supplyVolts());
        for (Segment segment : circuit.segments()) {
            network.resistor(
                    node(segment.from()),
                    node(segment.to()),
                    segment.ohm() + added(segment, fault));
        }
        for (MotorPart part : circuit.motors()) {
            network.resistor(node(part.from()), node(part.to()), STANDBY_OHM);
            Motor motor = moving.get(part.id());
            if (motor != null) {
                boolean stalls = stalled.contains(part.id());
                network.current(
                        node(part.from()),
                        node(part.to()),
                        stalls ? 0 : motor.movingAmps(),
                        stalls ? 1 / motor.ohm() : motor.movingSiemens());
            }
        }
        if (use.loadedPoint().isPresent() && use.load() != Load.NOTHING) {
            ProbePoint point = circuit.point(use.loadedPoint().get());
            int pole = point.side().equals("earth") ? node("BAT+") : 0;
            if (pole != node(point.id())) {
                network.resistor(node(point.id()), pole, use.load().ohmAt(lampVolts));
            }
        }
        return network;
    }

    private Solution solution(Map<String, Motor> moving, double[] volts) {
        Map<String, Double> at = new LinkedHashMap<>();
        circuit.points().forEach(point -> at.put(point.id(), volts[node(point.id())]));
        Map<String, Double> speeds = new LinkedHashMap<>();
        Map<String, Double> amps = new LinkedHashMap<>();
        for (MotorPart part : circuit.motors()) {
            Motor motor = moving.get(part.id());
            if (motor != null) {
                double across = volts[node(part.from())] - volts[node(part.to())];
                speeds.put(part.id(), motor.speed(across));
                amps.put(part.id(), motor.amps(across));
            }
        }
        return new Solution(at, speeds, amps);
    }

    /**
     * Ids of the segments that every path of both motors shares; where to look when both are at
     * fault.
     */
    public List<String> commonPath(String motorA, String motorB) {
        List<String> common = new ArrayList<>(path(motorA));
        common.retainAll(path(motorB));
        return common;
    }

    /**
     * Segments that carry a motor's current: those whose voltage changes markedly when only it
     * moves.
     */
    public List<String> path(String motorId) {
        Map<String, Double> rest = solve(Use.idle(12), Optional.empty()).volts();
        Map<String, Double> busy =
                solve(Use.idle(12).moving(Set.of(motorId)), Optional.empty()).volts();
        List<String> path = new ArrayList<>();
        for (Segment s : circuit.segments()) {
            double drop =
                    (busy.get(s.from()) - busy.get(s.to()))
                            - (rest.get(s.from()) - rest.get(s.to()));
            if (Math.abs(drop) / s.ohm() > 0.1) {
                path.add(s.id());
            }
        }
        return path;
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
