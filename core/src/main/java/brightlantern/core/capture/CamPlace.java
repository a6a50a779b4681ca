package brightlantern.core.capture;

import brightlantern.core.cylinder.SignalWheel;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Where the camshaft stands against the crank.
 *
 * @param late degrees; NaN where its marks are not those described
 * @param spread of its marks, degrees
 * @param edges in two turns, on the mean
 * @param home cycles in whose first turn cylinder 1 fires
 */
record CamPlace(double late, double spread, double edges, List<int[]> home) {
    /** Marks of one wheel differ by less than this; by more, one of them moved by itself. */
    private static final double MOST_SPREAD = 4;

    boolean known() {
        return !Double.isNaN(late);
    }

    /** By the marks of the camshaft within cycles of the crank. */
    static CamPlace of(CrankMarks marks, Capture capture, SignalWheel wheel) {
        double[] cam = CrankMarks.rises(capture.lane(LaneRole.CAM).orElseThrow());
        List<Double> lates = new ArrayList<>();
        List<Double> spreads = new ArrayList<>();
        List<int[]> home = new ArrayList<>();
        int seen = 0;
        List<int[]> cycles = marks.cycles();
        for (int[] cycle : cycles) {
            double[] at = marks.within(cycle, cam);
            seen += at.length;
            if (at.length != wheel.cam().size()) {
                continue;
            }
            double[] best = fitted(at, wheel);
            lates.add(wrapped(best[0]));
            spreads.add(best[1]);
            if (Math.abs(best[0]) <= 180) {
                home.add(cycle);
            }
        }
        boolean known = 2 * lates.size() >= cycles.size() && middle(spreads) < MOST_SPREAD;
        return new CamPlace(
                known ? middle(lates) : Double.NaN,
                middle(spreads),
                (double) seen / cycles.size(),
                known ? home : List.of());
    }

    /**
     * Which of its marks is which: the one way round in which all are off by the same.
     *
     * @return degrees by which they are off, in ±360, and how far they differ
     */
    private static double[] fitted(double[] at, SignalWheel wheel) {
        double[] best = {Double.NaN, Double.POSITIVE_INFINITY};
        int n = at.length;
        for (int turned = 0; turned < n; turned++) {
            double[] off = new double[n];
            for (int i = 0; i < n; i++) {
                double d = at[i] - wheel.cam().get((i + turned) % n);
                off[i] = Math.floorMod((int) Math.round(1000 * (d + 360)), 720_000) / 1000.0 - 360;
                if (i > 0 && off[i] - off[0] > 360) {
                    off[i] -= 720;
                } else if (i > 0 && off[0] - off[i] > 360) {
                    off[i] += 720;
                }
            }
            double mean = Arrays.stream(off).average().orElseThrow();
            double spread = Arrays.stream(off).map(o -> Math.abs(o - mean)).max().orElseThrow();
            if (spread < best[1]) {
                best = new double[] {mean, spread};
            }
        }
        return best;
    }

    /** A whole turn more or less says nothing about where it stands. */
    private static double wrapped(double degrees) {
        return degrees > 180 ? degrees - 360 : degrees < -180 ? degrees + 360 : degrees;
    }

    private static double middle(List<Double> of) {
        double[] sorted = of.stream().mapToDouble(d -> d).sorted().toArray();
        return sorted.length == 0 ? Double.NaN : sorted[sorted.length / 2];
    }
}
