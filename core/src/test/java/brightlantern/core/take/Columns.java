package brightlantern.core.take;

import java.util.function.DoubleUnaryOperator;

/** Columns of takes as tests want them. */
public final class Columns {
    private Columns() {}

    /** Ten readings a second of a function of time. */
    public static Take.Column of(double seconds, DoubleUnaryOperator of) {
        int n = (int) (seconds * 10);
        double[] t = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i / 10.0;
            y[i] = of.applyAsDouble(t[i]);
        }
        return new Take.Column(t, y);
    }
}
