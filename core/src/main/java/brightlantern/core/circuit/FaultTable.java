package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * A circuit in one state, solved once, in which faults then cost a few multiplications each: what
 * is linear is inverted; a fault and what is not linear hang on it as a few ports, settled by
 * themselves (Sherman–Morrison–Woodbury; Hager 1989, "Updating the inverse of a matrix").
 */
public final class FaultTable {
    private static final double METER_SIEMENS = 1e-7;

    /** Places of the poles, which no matrix has. */
    private static final int MINUS = -1;

    private static final int PLUS = -2;

    /** Rounds end when no port moves by more volts than this. */
    private static final double SETTLED_VOLTS = 1e-8;

    /**
     * What is left of a branch's own share of its ohms when it is taken out; below it the digits
     * are gone, and it is solved without the branch.
     */
    private static final double LEAST_LEFT = 1e-6;

    private final Circuit circuit;
    private final OperatingState state;

    /** The same with other relays open. */
    private final Map<OperatingState, FaultTable> others = new HashMap<>();

    private final Map<String, Component> linear = new LinkedHashMap<>();
    private final List<Component> bent = new ArrayList<>();
    private final Set<String> bentIds = new HashSet<>();
    private final Map<String, Integer> nodes = new HashMap<>();

    /** How many are not poles. */
    private final int size;

    private final Base whole;

    /** Its voltages with nothing broken: most faults change little of them. */
    private Voltages well;

    /** Its relays, and the coils that decide which of them are closed. */
    private final List<Component> pulled;

    /** The part that was left out last: faults of all sizes in one part follow each other. */
    private String leftOut = "";

    private Base without;

    /**
     * What is linear, solved.
     *
     * @param inverse resistance matrix in Ω over the nodes that no pole fixes
     * @param volts of the nodes
     * @param moves branch → what a unit current through it makes of the nodes
     */
    private record Base(double[][] inverse, double[] volts, Map<Long, double[]> moves) {
        Base(double[][] inverse, double[] volts) {
            this(inverse, volts, new ConcurrentHashMap<>());
        }

        /** Node voltages that a unit current out of i and into j makes. */
        double[] moved(long branch, int i, int j) {
            return moves.computeIfAbsent(
                    branch,
                    k -> {
                        double[] by = new double[volts.length];
                        for (int m = 0; m < by.length; m++) {
                            by[m] = (i < 0 ? 0 : inverse[m][i]) - (j < 0 ? 0 : inverse[m][j]);
                        }
                        return by;
                    });
        }
    }

    /** A circuit whose parts are as drawn, and what hangs on it in this state. */
    public FaultTable(Circuit circuit, OperatingState state) {
        this(new Relays(circuit.components()).expected(state), circuit);
    }

    private FaultTable(OperatingState state, Circuit circuit) {
        this.circuit = circuit;
        this.state = state;
        List<Component> parts = new ArrayList<>(circuit.components());
        state.hung()
                .forEach(
                        (point, load) -> {
                            String pole = circuit.poleOf(point, load);
                            if (!pole.equals(point)) {
                                parts.add(new HungLoad(point, pole, load));
                            }
                        });
        circuit.points().stream()
                .map(ProbePoint::id)
                .filter(id -> !id.equals(Circuit.PLUS) && !id.equals(Circuit.MINUS))
                .forEach(id -> nodes.put(id, nodes.size()));
        size = nodes.size();
        nodes.put(Circuit.MINUS, MINUS);
        nodes.put(Circuit.PLUS, PLUS);
        for (Component p : parts) {
            if (p.isLinear(state)) {
                linear.put(p.id(), p);
            } else {
                bent.add(p);
                bentIds.add(p.id());
            }
        }
        whole = solved("");
        pulled = Relays.partsOf(parts);
        well = asTheyAre(Optional.empty());
    }

    /**
     * @param part that is left out; empty for none
     */
    private Base solved(String part) {
        int n = size;
        double[][] g = new double[n][n];
        double[] z = new double[n];
        for (int i = 0; i < n; i++) {
            g[i][i] = METER_SIEMENS;
        }
        Equations equations = into(g, z);
        linear.values().stream()
                .filter(p -> !p.id().equals(part))
                .forEach(p -> p.stamp(equations, state, Voltages.NOMINAL));
        double[][] inverse = Dense.inverse(g);
        double[] volts = new double[n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                volts[i] += inverse[i][j] * z[j];
            }
        }
        return new Base(inverse, volts);
    }

    /**
     * What is left when a part is taken out. To take a conductance off afterwards would leave a
     * small difference of large figures.
     */
    private synchronized Base without(String part) {
        if (!leftOut.equals(part)) {
            without = takenOff(linear.get(part)).orElseGet(() -> solved(part));
            leftOut = part;
        }
        return without;
    }

    /** The same where that difference is large enough, at a fraction of the cost. */
    private Optional<Base> takenOff(Component part) {
        Ports its = new Ports(whole);
        part.stamp(its, state, Voltages.NOMINAL);
        if (its.ports.size() != 1) {
            return Optional.empty();
        }
        Port p = its.ports.get(0);
        double left = 1 - p.siemens * alone(p.by, p.a, p.b);
        if (!(left > LEAST_LEFT)) {
            return Optional.empty();
        }
        int n = size;
        double[][] inverse = new double[n][];
        for (int i = 0; i < n; i++) {
            double share = p.siemens * p.by[i] / left;
            inverse[i] = whole.inverse[i].clone();
            for (int j = 0; share != 0 && j < n; j++) {
                inverse[i][j] += share * p.by[j];
            }
        }
        // what it drew before is given back
        double amps = (p.amps + p.siemens * across(whole.volts, p)) / left;
        double[] volts = whole.volts.clone();
        for (int i = 0; i < n; i++) {
            volts[i] += p.by[i] * amps;
        }
        return Optional.of(new Base(inverse, volts));
    }

    private Equations into(double[][] g, double[] z) {
        return new Equations() {
            @Override
            public void resistor(String a, String b, double ohm) {
                current(a, b, 0, 1 / ohm);
            }

            @Override
            public void current(String a, String b, double amps, double siemens) {
                half(a, b, amps, siemens);
                half(b, a, -amps, siemens);
            }

            private void half(String a, String b, double amps, double siemens) {
                int i = node(a);
                if (i < 0) {
                    return;
                }
                g[i][i] += siemens;
                z[i] -= amps;
                int j = node(b);
                if (j >= 0) {
                    g[i][j] -= siemens;
                } else {
                    z[i] += siemens * pole(j);
                }
            }
        };
    }

    /** Volts of a pole. */
    private double pole(int node) {
        return node == PLUS ? state.supplyVolts() : 0;
    }

    /** Its place in the matrix; below 0 for a pole of the battery. */
    private int node(String name) {
        Integer index = nodes.get(name);
        if (index == null) {
            throw new IllegalArgumentException("There is no point '" + name + "'");
        }
        return index;
    }

    /** What one branch between two nodes draws: amps plus siemens times the volts across. */
    private static final class Port {
        private final int a;
        private final int b;
        private final double[] by;
        private double amps;
        private double siemens;

        Port(int a, int b, double[] by) {
            this.a = a;
            this.b = b;
            this.by = by;
        }

        void clear() {
            amps = 0;
            siemens = 0;
        }
    }

    private double at(double[] volts, int node) {
        return node < 0 ? pole(node) : volts[node];
    }

    private double across(double[] volts, Port p) {
        return at(volts, p.a) - at(volts, p.b);
    }

    private static double alone(double[] by, int i, int j) {
        return (i < 0 ? 0 : by[i]) - (j < 0 ? 0 : by[j]);
    }

    /** The steady state with a fault in it, or with none. */
    public Voltages with(Optional<Fault> fault) {
        Voltages volts = asTheyAre(fault);
        if (pulled.isEmpty()) {
            return volts;
        }
        List<Component> faulty =
                pulled.stream().map(p -> fault.map(f -> f.in(p)).orElse(p)).toList();
        OperatingState found = new Relays(faulty).found(state, volts);
        return found.equals(state) ? volts : other(found).asTheyAre(fault);
    }

    private synchronized FaultTable other(OperatingState found) {
        return others.computeIfAbsent(found, s -> new FaultTable(s, circuit));
    }

    /** With its relays as its state has them. */
    private Voltages asTheyAre(Optional<Fault> fault) {
        Optional<Component> changed =
                fault.map(f -> linear.get(f.part())).filter(p -> fault.get().in(p) != p);
        Base base = changed.map(p -> without(p.id())).orElse(whole);
        Ports still = new Ports(base);
        changed.ifPresent(p -> fault.orElseThrow().in(p).stamp(still, state, Voltages.NOMINAL));
        List<Component> moves =
                fault.filter(f -> bentIds.contains(f.part()))
                        .map(f -> bent.stream().map(f::in).toList())
                        .orElse(bent);
        return settled(base, still.ports, moves);
    }

    private Voltages settled(Base base, List<Port> still, List<Component> moves) {
        Drawn volts = drawn(base, still);
        Ports into = new Ports(base);
        List<Port> all = new ArrayList<>();
        for (int round = 0; round < CircuitModel.MOST_ROUNDS && !moves.isEmpty(); round++) {
            into.ports.forEach(Port::clear);
            // the first is as hot as with nothing broken, from there they come to rest
            Voltages first = well == null ? Voltages.NOMINAL : well;
            Voltages before = round == CircuitModel.ANEW ? Voltages.NOMINAL : volts;
            for (Component part : moves) {
                if (round == 0) {
                    part.stamp(into, state, first);
                } else {
                    part.tangent(into, state, before);
                }
            }
            all.clear();
            all.addAll(still);
            all.addAll(into.ports);
            Drawn next = drawn(base, all);
            boolean stands = round > 0;
            for (Port p : into.ports) {
                stands &= Math.abs(next.across(p) - volts.across(p)) <= SETTLED_VOLTS;
            }
            volts = next;
            if (stands) {
                break;
            }
        }
        return volts;
    }

    /** Few branches, each between two nodes. */
    private final class Ports implements Equations {
        private final List<Port> ports = new ArrayList<>(2);
        private final Base base;

        Ports(Base base) {
            this.base = base;
        }

        @Override
        public void resistor(String a, String b, double ohm) {
            current(a, b, 0, 1 / ohm);
        }

        @Override
        public void current(String a, String b, double amps, double siemens) {
            Port p = between(node(a), node(b));
            p.amps += amps;
            p.siemens += siemens;
        }

        private Port between(int i, int j) {
            for (Port p : ports) {
                if (p.a == i && p.b == j) {
                    return p;
                }
            }
            long branch = (long) i << Integer.SIZE | j & 0xFFFFFFFFL;
            Port p = new Port(i, j, base.moved(branch, i, j));
            ports.add(p);
            return p;
        }
    }

    /** What is drawn with these ports hung on: (1 + Z·G) u = u₀ − Z·I. */
    private Drawn drawn(Base base, List<Port> ports) {
        int k = ports.size();
        double[][] by = new double[k][];
        double[] amps = new double[k];
        double[][] a = new double[k][k + 1];
        for (int p = 0; p < k; p++) {
            Port at = ports.get(p);
            by[p] = at.by;
            a[p][k] = across(base.volts, at);
            for (int q = 0; q < k; q++) {
                Port other = ports.get(q);
                double z = alone(other.by, at.a, at.b);
                a[p][q] = (p == q ? 1 : 0) + z * other.siemens;
                a[p][k] -= z * other.amps;
            }
        }
        double[] u = Dense.solved(a);
        for (int q = 0; q < k; q++) {
            amps[q] = ports.get(q).amps + ports.get(q).siemens * u[q];
        }
        return new Drawn(base.volts, by, amps);
    }

    /** Node voltages by what ports draw; few of them are ever asked for. */
    private final class Drawn implements Voltages {
        private final double[] volts;
        private final double[][] by;
        private final double[] amps;

        Drawn(double[] volts, double[][] by, double[] amps) {
            this.volts = volts;
            this.by = by;
            this.amps = amps;
        }

        @Override
        public double at(String name) {
            return at(node(name));
        }

        private double at(int node) {
            if (node < 0) {
                return pole(node);
            }
            double its = volts[node];
            for (int q = 0; q < amps.length; q++) {
                its -= by[q][node] * amps[q];
            }
            return its;
        }

        double across(Port p) {
            return at(p.a) - at(p.b);
        }
    }
}
