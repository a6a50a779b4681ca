package brightlantern.core.circuit;

import java.util.Arrays;
import java.util.PriorityQueue;

/**
 * A linear direct-current network, solved by taking out one node after another, that of the fewest
 * neighbours first, and joining those instead (star-mesh transform, Rosen 1924; minimum degree,
 * Markowitz 1957). Nothing is ever subtracted, so that nine orders of magnitude between a cable and
 * the leakage of a meter cost no digits; a harness is nearly a tree, and takes as long as it has
 * wires. Node 0 is the reference.
 */
public final class DcNetwork {
    /**
     * A path of this conductance to the reference keeps a node that hangs in the air solvable, as a
     * meter would.
     */
    private static final double METER_SIEMENS = 1e-7;

    private final int nodes;

    /** Volts of a node that a source holds; NaN of the others. */
    private final double[] held;

    /** By node: those that it is joined with, and by how much. */
    private final int[][] others;

    private final double[][] siemens;
    private final int[] degree;

    /** By node: conductance to nodes that are held, and amps that come in. */
    private final double[] leak;

    private final double[] amps;

    /**
     * @param nodes how many, the reference among them
     */
    public DcNetwork(int nodes) {
        this.nodes = nodes;
        held = new double[nodes];
        Arrays.fill(held, 1, nodes, Double.NaN);
        others = new int[nodes][4];
        siemens = new double[nodes][4];
        degree = new int[nodes];
        leak = new double[nodes];
        amps = new double[nodes];
        Arrays.fill(leak, METER_SIEMENS);
    }

    /** A resistor in ohms, above zero. */
    public void resistor(int a, int b, double ohm) {
        if (!(ohm > 0)) {
            throw new IllegalArgumentException("A resistor needs more than 0 Ω, got " + ohm);
        }
        current(a, b, 0, 1 / ohm);
    }

    /**
     * A current that flows from a to b through a part whatever the voltage, plus a conductance
     * beside it.
     *
     * @param siemens not below zero
     */
    public void current(int a, int b, double amps, double siemens) {
        this.amps[a] -= amps;
        this.amps[b] += amps;
        if (a != b && siemens > 0) {
            half(a, b, siemens);
            half(b, a, siemens);
        }
    }

    /** An ideal source: a node stands so many volts above the reference. */
    public void held(int node, double volts) {
        held[node] = volts;
    }

    private void half(int a, int b, double more) {
        int n = degree[a];
        for (int i = 0; i < n; i++) {
            if (others[a][i] == b) {
                siemens[a][i] += more;
                return;
            }
        }
        if (n == others[a].length) {
            others[a] = Arrays.copyOf(others[a], 2 * n);
            siemens[a] = Arrays.copyOf(siemens[a], 2 * n);
        }
        others[a][n] = b;
        siemens[a][n] = more;
        degree[a] = n + 1;
    }

    private void drop(int a, int b) {
        int last = --degree[a];
        int i = 0;
        while (others[a][i] != b) {
            i++;
        }
        others[a][i] = others[a][last];
        siemens[a][i] = siemens[a][last];
    }

    private boolean isFree(int node) {
        return Double.isNaN(held[node]);
    }

    /** Node voltages against the reference, index 0 is 0 V. It is used up by that. */
    public double[] solve() {
        for (int node = 0; node < nodes; node++) {
            for (int i = degree[node] - 1; i >= 0 && isFree(node); i--) {
                int other = others[node][i];
                if (!isFree(other)) {
                    leak[node] += siemens[node][i];
                    amps[node] += siemens[node][i] * held[other];
                    drop(node, other);
                }
            }
        }
        int[] order = new int[nodes];
        double[] sums = new double[nodes];
        int taken = 0;
        // nodes whose neighbours have become fewer or more are told anew, the old ones passed over
        PriorityQueue<Long> next = new PriorityQueue<>();
        boolean[] gone = new boolean[nodes];
        for (int node = 0; node < nodes; node++) {
            if (isFree(node)) {
                next.add(key(node));
            }
        }
        while (!next.isEmpty()) {
            long key = next.poll();
            int node = (int) key;
            if (!gone[node] && key == key(node)) {
                gone[node] = true;
                sums[node] = takeOut(node);
                order[taken++] = node;
                for (int i = 0; i < degree[node]; i++) {
                    next.add(key(others[node][i]));
                }
            }
        }
        double[] volts = held.clone();
        while (taken > 0) {
            int node = order[--taken];
            double its = amps[node];
            for (int i = 0; i < degree[node]; i++) {
                its += siemens[node][i] * volts[others[node][i]];
            }
            volts[node] = its / sums[node];
        }
        return volts;
    }

    private long key(int node) {
        return (long) degree[node] << Integer.SIZE | node;
    }

    /** Joins its neighbours with each other instead; the sum of its conductances. */
    private double takeOut(int node) {
        double sum = leak[node];
        for (int i = 0; i < degree[node]; i++) {
            sum += siemens[node][i];
        }
        for (int i = 0; i < degree[node]; i++) {
            int other = others[node][i];
            double share = siemens[node][i] / sum;
            leak[other] += share * leak[node];
            amps[other] += share * amps[node];
            drop(other, node);
            for (int j = 0; j < degree[node]; j++) {
                if (j != i) {
                    half(other, others[node][j], share * siemens[node][j]);
                }
            }
        }
        return sum;
    }
}
