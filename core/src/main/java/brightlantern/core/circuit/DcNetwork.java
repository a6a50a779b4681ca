package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.List;

/**
 * A linear direct-current network solved by modified nodal analysis (Ho, Ruehli, Brennan 1975).
 * Node 0 is the reference.
 */
public final class DcNetwork {
    /**
     * A path of this conductance to the reference keeps a node that hangs in the air solvable, as a
     * meter would.
     */
    private static final double METER_SIEMENS = 1e-7;

    /** A pivot below this is nought but for rounding. */
    private static final double SINGULAR = 1e-13;

    private record Source(int plus, int minus, double volts) {}

    private final int nodes;
    private final double[][] siemens;
    private final double[] amps;
    private final List<Source> sources = new ArrayList<>();

    /**
     * @param nodes how many, the reference among them
     */
    public DcNetwork(int nodes) {
        this.nodes = nodes;
        siemens = new double[nodes][nodes];
        amps = new double[nodes];
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
     */
    public void current(int a, int b, double amps, double siemens) {
        this.siemens[a][a] += siemens;
        this.siemens[b][b] += siemens;
        this.siemens[a][b] -= siemens;
        this.siemens[b][a] -= siemens;
        this.amps[a] -= amps;
        this.amps[b] += amps;
    }

    /** An ideal source: plus stands so many volts above minus. */
    public void voltage(int plus, int minus, double volts) {
        sources.add(new Source(plus, minus, volts));
    }

    /**
     * Node voltages against the reference, index 0 is 0 V.
     *
     * @throws IllegalStateException when the network has no single solution
     */
    public double[] solve() {
        int n = nodes - 1;
        int size = n + sources.size();
        double[][] a = new double[size][size];
        double[] z = new double[size];
        for (int i = 0; i < n; i++) {
            System.arraycopy(siemens[i + 1], 1, a[i], 0, n);
            a[i][i] += METER_SIEMENS;
            z[i] = amps[i + 1];
        }
        for (int k = 0; k < sources.size(); k++) {
            Source source = sources.get(k);
            int row = n + k;
            if (source.plus > 0) {
                a[source.plus - 1][row] = 1;
                a[row][source.plus - 1] = 1;
            }
            if (source.minus > 0) {
                a[source.minus - 1][row] = -1;
                a[row][source.minus - 1] = -1;
            }
            z[row] = source.volts;
        }
        double[] x = eliminated(a, z);
        double[] volts = new double[nodes];
        System.arraycopy(x, 0, volts, 1, n);
        return volts;
    }

    /**
     * Gaussian elimination with partial pivoting, in place; at these sizes the bookkeeping of a
     * general solver costs many times the arithmetic.
     */
    private static double[] eliminated(double[][] a, double[] z) {
        int n = z.length;
        for (int k = 0; k < n; k++) {
            int pivot = k;
            for (int i = k + 1; i < n; i++) {
                if (Math.abs(a[i][k]) > Math.abs(a[pivot][k])) {
                    pivot = i;
                }
            }
            if (!(Math.abs(a[pivot][k]) > SINGULAR)) {
                throw new IllegalStateException(
                        "The circuit has no single solution: check for sources in a loop");
            }
            double[] row = a[pivot];
            a[pivot] = a[k];
            a[k] = row;
            double right = z[pivot];
            z[pivot] = z[k];
            z[k] = right;
            for (int i = k + 1; i < n; i++) {
                double[] below = a[i];
                if (below[k] != 0) {
                    double factor = below[k] / row[k];
                    for (int j = k + 1; j < n; j++) {
                        below[j] -= factor * row[j];
                    }
                    z[i] -= factor * right;
                }
            }
        }
        for (int k = n - 1; k >= 0; k--) {
            for (int j = k + 1; j < n; j++) {
                z[k] -= a[k][j] * z[j];
            }
            z[k] /= a[k][k];
        }
        return z;
    }
}
