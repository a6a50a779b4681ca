package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Cycles of an engine in a capture: from each firing of the first cylinder to the next, 720 degrees
 * of the crank.
 *
 * @param starts samples at which a cycle begins; between two of them one cycle
 */
record Cycles(List<Integer> starts) {
    static final int DEGREES = 720;

    /** A cycle that is longer or shorter than the middle one by more than this is left out. */
    private static final double UNEVEN = 0.25;

    Cycles {
        starts = List.copyOf(starts);
    }

    /** Rising edges through the middle of the lane's range, half of a cycle apart at least. */
    static Cycles of(Lane first) {
        double[] sorted = first.samples();
        Arrays.sort(sorted);
        double low = sorted[(int) (0.02 * (sorted.length - 1))];
        double high = sorted[(int) (0.999 * (sorted.length - 1))];
        double up = low + 0.6 * (high - low);
        double down = low + 0.4 * (high - low);
        List<Integer> edges = new ArrayList<>();
        boolean above = first.at(0) > up;
        for (int i = 1; i < first.length(); i++) {
            double v = first.at(i);
            if (!above && v > up) {
                edges.add(i);
            }
            above = above ? v > down : v > up;
        }
        return new Cycles(edges);
    }

    /** Cycles that turn as fast as the middle one, as pairs of samples. */
    List<int[]> even() {
        List<int[]> all = new ArrayList<>();
        for (int i = 1; i < starts.size(); i++) {
            all.add(new int[] {starts.get(i - 1), starts.get(i)});
        }
        double[] lengths = all.stream().mapToDouble(c -> c[1] - c[0]).sorted().toArray();
        if (lengths.length == 0) {
            return List.of();
        }
        double middle = lengths[lengths.length / 2];
        return all.stream().filter(c -> Math.abs(c[1] - c[0] - middle) < UNEVEN * middle).toList();
    }

    /**
     * The mean of a lane over cycles, by degree of the crank.
     *
     * @return 720 means, from the beginning of a cycle on
     */
    static double[] mean(Lane lane, List<int[]> cycles) {
        double[] sum = new double[DEGREES];
        for (int[] c : cycles) {
            for (int d = 0; d < DEGREES; d++) {
                double at = c[0] + (c[1] - c[0]) * (d + 0.5) / DEGREES;
                int i = (int) at;
                double next = lane.at(Math.min(lane.length() - 1, i + 1));
                sum[d] += lane.at(i) + (next - lane.at(i)) * (at - i);
            }
        }
        for (int d = 0; d < DEGREES; d++) {
            sum[d] /= cycles.size();
        }
        return sum;
    }
}
