package brightlantern.core.circuit;

/** Small dense systems of linear equations. */
final class Dense {
    private Dense() {}

    /**
     * By Gauss and Jordan, without a search for pivots: a conductance matrix with a path to earth
     * everywhere is regular.
     *
     * @param g n × n, S; used up
     * @return n × n, Ω
     */
    static double[][] inverse(double[][] g) {
        int n = g.length;
        double[][] inverse = new double[n][n];
        for (int i = 0; i < n; i++) {
            inverse[i][i] = 1;
        }
        for (int k = 0; k < n; k++) {
            double pivot = g[k][k];
            for (int j = 0; j < n; j++) {
                g[k][j] /= pivot;
                inverse[k][j] /= pivot;
            }
            for (int i = 0; i < n; i++) {
                double factor = g[i][k];
                if (i != k && factor != 0) {
                    for (int j = 0; j < n; j++) {
                        g[i][j] -= factor * g[k][j];
                        inverse[i][j] -= factor * inverse[k][j];
                    }
                }
            }
        }
        return inverse;
    }

    /**
     * By Gauss, with a search for pivots in each column.
     *
     * @param a k × (k + 1), the right side last; used up
     * @return k figures
     */
    static double[] solved(double[][] a) {
        int k = a.length;
        for (int c = 0; c < k; c++) {
            int pivot = c;
            for (int i = c + 1; i < k; i++) {
                if (Math.abs(a[i][c]) > Math.abs(a[pivot][c])) {
                    pivot = i;
                }
            }
            double[] row = a[pivot];
            a[pivot] = a[c];
            a[c] = row;
            for (int i = c + 1; i < k; i++) {
                double factor = a[i][c] / row[c];
                for (int j = c; j <= k; j++) {
                    a[i][j] -= factor * row[j];
                }
            }
        }
        double[] u = new double[k];
        for (int c = k - 1; c >= 0; c--) {
            u[c] = a[c][k];
            for (int j = c + 1; j < k; j++) {
                u[c] -= a[c][j] * u[j];
            }
            u[c] /= a[c][c];
        }
        return u;
    }
}
