package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

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

    private static final int MOST_ROUNDS = 80;

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
    private final Map<String, Integer> nodes = new HashMap<>();

    /** How many are not poles. */
    private final int size;

    private final Base whole;

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
     */
    private record Base(double[][] inverse, double[] volts) {}

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
            }
        }
        whole = solved("");
        pulled = Relays.partsOf(parts);
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
        Map<Long, Port> its = new LinkedHashMap<>();
        part.stamp(onto(whole, its), state, Voltages.NOMINAL);
        if (its.size() != 1) {
            return Optional.empty();
        }
        Port p = its.values().iterator().next();
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

    /** Node voltages that a unit current out of a and into b makes. */
    private Port port(Base base, int i, int j) {
        double[] by = new double[size];
        for (int m = 0; m < by.length; m++) {
            by[m] = (i < 0 ? 0 : base.inverse[m][i]) - (j < 0 ? 0 : base.inverse[m][j]);
        }
        return new Port(i, j, by);
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
        Map<Long, Port> still = new LinkedHashMap<>();
        changed.ifPresent(
                p -> fault.orElseThrow().in(p).stamp(onto(base, still), state, Voltages.NOMINAL));
        List<Component> moves = bent.stream().map(p -> fault.map(f -> f.in(p)).orElse(p)).toList();
        return named(settled(base, List.copyOf(still.values()), moves));
    }

    private double[] settled(Base base, List<Port> still, List<Component> moves) {
        double[] volts = solved(base, still);
        Map<Long, Port> ports = new LinkedHashMap<>();
        Voltages before = Voltages.NOMINAL;
        for (int round = 0; round < MOST_ROUNDS && !moves.isEmpty(); round++) {
            ports.values().forEach(Port::clear);
            for (Component part : moves) {
                part.stamp(onto(base, ports), state, before);
            }
            List<Port> all = new ArrayList<>(still);
            all.addAll(ports.values());
            double[] next = solved(base, all);
            boolean stands = round > 0;
            for (Port p : ports.values()) {
                stands &= Math.abs(across(next, p) - across(volts, p)) <= SETTLED_VOLTS;
            }
            volts = next;
            before = named(next);
            if (stands) {
                break;
            }
        }
        return volts;
    }

    private Equations onto(Base base, Map<Long, Port> ports) {
        return new Equations() {
            @Override
            public void resistor(String a, String b, double ohm) {
                current(a, b, 0, 1 / ohm);
            }

            @Override
            public void current(String a, String b, double amps, double siemens) {
                int i = node(a);
                int j = node(b);
                Port p =
                        ports.computeIfAbsent(
                                (long) i << 32 | j & 0xFFFFFFFFL, k -> port(base, i, j));
                p.amps += amps;
                p.siemens += siemens;
            }
        };
    }

    /** Node voltages with these ports hung on: (1 + Z·G) u = u₀ − Z·I. */
    private double[] solved(Base base, List<Port> ports) {
        int k = ports.size();
        double[] volts = base.volts.clone();
        if (k == 0) {
            return volts;
        }
        double[][] a = new double[k][k + 1];
        for (int p = 0; p < k; p++) {
            Port at = ports.get(p);
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
            Port other = ports.get(q);
            double amps = other.amps + other.siemens * u[q];
            for (int m = 0; m < volts.length; m++) {
                volts[m] -= other.by[m] * amps;
            }
        }
        return volts;
    }

    private Voltages named(double[] volts) {
        return name -> at(volts, node(name));
    }
}
