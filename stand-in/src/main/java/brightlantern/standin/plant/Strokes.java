package brightlantern.standin.plant;

/**
 * A cylinder over its cycle, degree by degree from its firing dead centre: its volume by crank and
 * rod, and what polytropic gas makes of it. Volumes in m³.
 */
final class Strokes {
    static final double EXHAUST_OPENS = 145;

    private static final double POLYTROPIC = 1.32;
    private static final double ROD_RATIO = 3.3;

    private final double[] volume = new double[721];

    /** Pressures against those at the beginning of compression and of expansion, by degree. */
    private final double[] compressed = new double[721];

    private final double[] expanded = new double[721];
    private final double[] leakShare = new double[721];
    private final double atDeadCentre;
    private final double work;

    Strokes(EngineSpec spec) {
        double swept = spec.litres() / 1000 / spec.cylinders();
        double clearance = swept / (spec.compression() - 1);
        for (int d = 0; d <= 720; d++) {
            double a = Math.toRadians(d);
            double x =
                    (1
                                    - Math.cos(a)
                                    + ROD_RATIO
                                    - Math.sqrt(ROD_RATIO * ROD_RATIO - Math.pow(Math.sin(a), 2)))
                            / 2;
            volume[d] = clearance + swept * x;
        }
        for (int d = 0; d <= 720; d++) {
            compressed[d] = Math.pow(volume[540] / volume[d], POLYTROPIC);
            expanded[d] = Math.pow(volume[0] / volume[d], POLYTROPIC);
            // pressure drives the leak: little at first, all of it near dead centre
            leakShare[d] = Math.min(1, Math.pow(volume[0] / volume[d], 0.6) * 1.2);
        }
        atDeadCentre = Math.pow(spec.compression(), POLYTROPIC);
        double sum = 0;
        for (int d = 0; d < EXHAUST_OPENS; d++) {
            sum += expanded[d] * (volume[d + 1] - volume[d]);
        }
        work = sum;
    }

    /** Pressure on compression, against that at its beginning. */
    double compressed(int at) {
        return compressed[at];
    }

    /** Pressure on expansion, against that at its beginning. */
    double expanded(int at) {
        return expanded[at];
    }

    /** Share of a leak that the pressure drives. */
    double leakShare(int at) {
        return leakShare[at];
    }

    /** Pressure of what was drawn in at dead centre, against that before. */
    double atDeadCentre() {
        return atDeadCentre;
    }

    /** Work of an expansion from a pressure of 1 Pa until the exhaust opens, J. */
    double work() {
        return work;
    }

    /** Volume over angle, m³ per radian. */
    double slope(int at) {
        return (volume[at + 1] - volume[at]) / Math.toRadians(1);
    }
}
