package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What the other circuits of a vehicle draw through a point that a circuit shares with them, such
 * as an earth stud: their currents add to what the circuit itself draws there. Remembers what it
 * computed.
 */
public final class SharedPoints {
    /** States that are kept solved; a supply that drifts makes ever new ones. */
    private static final int MOST_TABLES = 200;

    /** Of what could be on, this share is while somebody measures. */
    private static final double SOME_ON = 0.2;

    /** Of what an engine that turns makes itself, most is. */
    private static final double MOST_ON = 0.7;

    /** No battery alone has this, V: the engine runs and charges it. */
    private static final double CHARGED_VOLTS = 13.2;

    /** Figures that are kept; states differ in their supply. */
    private static final int MOST_KNOWN = 20_000;

    private final Map<String, List<Circuit>> with = new HashMap<>();
    private final Map<Solved, FaultTable> tables = new ConcurrentHashMap<>();

    /** It is asked for under each hypothesis. */
    private final Map<While, Double> unknown = new ConcurrentHashMap<>();

    /** What the others do while all of them are well; most faults are in none of them. */
    private final Map<AtState, Double> well = new ConcurrentHashMap<>();

    /** Parts by which a point is moved. */
    private final Map<AtPoint, Set<String>> moving = new ConcurrentHashMap<>();

    /** By circuit: ids of its parts. */
    private final Map<String, Set<String>> parts = new HashMap<>();

    private record AtPoint(String circuit, String point) {}

    /** A point while the engine may turn, or while it stands. */
    private record While(AtPoint at, boolean turns) {}

    private record AtState(String circuit, String point, OperatingState state) {}

    private record Solved(String circuit, OperatingState state) {}

    /**
     * @param circuits of the vehicle; those without gauges are fed on their own
     */
    public SharedPoints(List<Circuit> circuits) {
        for (Circuit c : circuits) {
            if (!c.gauges().isEmpty()) {
                parts.put(
                        c.id(),
                        c.components().stream().map(Component::id).collect(Collectors.toSet()));
                c.points().stream()
                        .map(ProbePoint::id)
                        .filter(p -> !p.equals(Circuit.PLUS) && !p.equals(Circuit.MINUS))
                        .forEach(p -> with.computeIfAbsent(p, k -> new ArrayList<>()).add(c));
            }
        }
    }

    /** Nobody draws more than this many times what lies behind the point lets through. */
    private static final double MOST_ODDS = 1e6;

    /**
     * What several circuits draw through one point, as Millman's theorem has it: each by itself
     * would move the point away from its pole by a drop d of the supply V, which is to the rest as
     * its own conductance to that of what they share; these add up.
     *
     * @param supplyVolts V
     * @param drop d, V
     */
    private static double odds(double supplyVolts, double drop) {
        double rest = supplyVolts - drop;
        return rest > supplyVolts / MOST_ODDS ? drop / rest : MOST_ODDS;
    }

    /**
     * Volts at a point that circuits share.
     *
     * @param fed whether it is on the side of the supply
     * @param alone volts that each of them by itself would leave at the point
     */
    public static double together(double supplyVolts, boolean fed, List<Double> alone) {
        if (alone.size() == 1 || supplyVolts <= 0) {
            return alone.get(0);
        }
        double odds =
                alone.stream().mapToDouble(v -> odds(supplyVolts, fed ? supplyVolts - v : v)).sum();
        return moved(supplyVolts, fed, odds);
    }

    private static double moved(double supplyVolts, boolean fed, double odds) {
        double drop = supplyVolts * odds / (1 + odds);
        return fed ? supplyVolts - drop : drop;
    }

    /**
     * Volts at a point of a circuit, with what the others draw through it.
     *
     * @param state how the circuit is used; what it shares with others is set for them too
     * @param fault that may be in a part that is shared
     * @param own volts that the circuit by itself leaves there
     */
    public double volts(
            Circuit circuit,
            String point,
            OperatingState state,
            Optional<Fault> fault,
            double own) {
        double others = besides(circuit, point, state, fault);
        double supply = state.supplyVolts();
        if (others == 0 || supply <= 0) {
            return own;
        }
        boolean fed = circuit.point(point).side().equals("supply");
        return moved(supply, fed, others + odds(supply, fed ? supply - own : own));
    }

    /** The odds that the others add. */
    private double besides(
            Circuit circuit, String point, OperatingState state, Optional<Fault> fault) {
        if (circuit.gauges().isEmpty()) {
            return 0;
        }
        OperatingState unloaded = state.loaded(point, Load.NOTHING);
        double sum = 0;
        for (Circuit other : others(circuit, point)) {
            sum +=
                    fault.filter(f -> has(other, f)).isPresent()
                            ? moved(other, point, unloaded, fault)
                            : well(other, point, unloaded);
        }
        return sum;
    }

    /** What another adds while nothing is broken in it. */
    private double well(Circuit other, String point, OperatingState unloaded) {
        if (well.size() > MOST_KNOWN) {
            well.clear();
        }
        return well.computeIfAbsent(
                new AtState(other.id(), point, unloaded),
                k -> moved(other, point, unloaded, Optional.empty()));
    }

    /** Ids of all parts that, broken, may change what a point of a circuit reads. */
    public Set<String> moving(Circuit circuit, String point) {
        return moving.computeIfAbsent(
                new AtPoint(circuit.id(), point),
                k ->
                        Stream.concat(Stream.of(circuit), others(circuit, point).stream())
                                .flatMap(c -> c.components().stream())
                                .map(Component::id)
                                .collect(Collectors.toUnmodifiableSet()));
    }

    private List<Circuit> others(Circuit circuit, String point) {
        return with.getOrDefault(point, List.of()).stream()
                .filter(o -> !o.id().equals(circuit.id()))
                .toList();
    }

    private boolean has(Circuit circuit, Fault fault) {
        return parts.get(circuit.id()).contains(fault.part());
    }

    private double moved(
            Circuit other, String point, OperatingState unloaded, Optional<Fault> fault) {
        double volts = table(other, unloaded).with(fault).at(point);
        boolean fed = other.point(point).side().equals("supply");
        double supply = unloaded.supplyVolts();
        return supply <= 0 ? 0 : odds(supply, fed ? supply - volts : volts);
    }

    /**
     * Volts by which the others may move a point because something of theirs is on that nobody
     * told: one standard deviation, as a share of what all of it together would do. While the key
     * is turned to start, or the supply says that the engine runs, its own consumers are on.
     *
     * @param moving ids of the settings of the circuit that are made
     * @param supplyVolts V
     * @return V, at least 0
     */
    public double unknown(Circuit circuit, String point, Set<String> moving, double supplyVolts) {
        boolean turns =
                supplyVolts >= CHARGED_VOLTS
                        || circuit.settings().stream()
                                .anyMatch(
                                        s ->
                                                s.by() == Setting.By.STARTER
                                                        && moving.contains(s.id()));
        return circuit.gauges().isEmpty()
                ? 0
                : unknown.computeIfAbsent(
                        new While(new AtPoint(circuit.id(), point), turns),
                        k ->
                                with.getOrDefault(point, List.of()).stream()
                                        .filter(other -> !other.id().equals(circuit.id()))
                                        .mapToDouble(other -> unknown(circuit, other, point, turns))
                                        .sum());
    }

    /** What is set for the circuit itself is known, and set for the other too. */
    private double unknown(Circuit circuit, Circuit other, String point, boolean turns) {
        List<Setting> on =
                other.settings().stream()
                        .filter(s -> s.by() != Setting.By.STARTER)
                        .filter(s -> !Setting.unplugs(s.id()) && circuit.setting(s.id()).isEmpty())
                        .toList();
        double all = drawn(other, point, on);
        double made =
                turns
                        ? drawn(
                                other,
                                point,
                                on.stream().filter(s -> s.by() == Setting.By.ENGINE).toList())
                        : 0;
        return SOME_ON * Math.max(0, all - made) + MOST_ON * made;
    }

    /** Volts by which a circuit moves a point when these are made, all of it well. */
    private double drawn(Circuit other, String point, List<Setting> on) {
        OperatingState rest = OperatingState.idle(GaugeState.TYPICAL_VOLTS);
        Set<String> ids = on.stream().map(Setting::id).collect(Collectors.toSet());
        return Math.abs(
                table(other, rest.moving(ids)).with(Optional.empty()).at(point)
                        - table(other, rest).with(Optional.empty()).at(point));
    }

    private FaultTable table(Circuit circuit, OperatingState state) {
        if (tables.size() > MOST_TABLES) {
            tables.clear();
        }
        return tables.computeIfAbsent(
                new Solved(circuit.id(), state), k -> new FaultTable(circuit, state));
    }
}
