package brightlantern.core.capture;

import brightlantern.core.cylinder.SignalWheel;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;

/**
 * The marks of a crank's wheel in a lane, each laid on its degree: from gap to gap one turn, the
 * first tooth after a gap at 0 degrees. A tooth that is missing elsewhere leaves a hole of its own;
 * what comes between two teeth is counted as too much.
 */
final class CrankMarks {
    /** A hole is told from the speed's own changes when it is this far from a whole pitch. */
    private static final double HALF = 0.5;

    /** Pitches on either side over which the usual one is taken. */
    private static final int AROUND = 4;

    /** So many samples tell where a lane rests. */
    private static final int ENOUGH = 100_000;

    private final SignalWheel wheel;

    /** Samples at which teeth rise, and how many pitches lie between each and the next. */
    private final double[] rises;

    private final int[] pitches;

    /** By index of the first tooth after a gap, that of the next one; whole turns only. */
    private final TreeMap<Integer, Integer> turns = new TreeMap<>();

    private int tooMuch;

    /** Marks that are missing, turn by turn, counted from the gap. */
    private final List<Integer> lost = new ArrayList<>();

    private int lostTurns;

    CrankMarks(Lane lane, SignalWheel wheel) {
        this.wheel = wheel;
        rises = rises(lane);
        pitches = new int[Math.max(0, rises.length - 1)];
        List<Integer> firsts = new ArrayList<>();
        for (int i = 0; i < pitches.length; i++) {
            double ratio = (rises[i + 1] - rises[i]) / usual(i);
            pitches[i] = (int) Math.round(ratio);
            if (ratio < HALF) {
                tooMuch++;
            } else if (pitches[i] > wheel.missing()) {
                firsts.add(i + 1);
            }
        }
        for (int i = 1; i < firsts.size(); i++) {
            turn(firsts.get(i - 1), firsts.get(i));
        }
    }

    /**
     * Where a lane rises through the middle of its range, between samples.
     *
     * @return in samples, from 0
     */
    static double[] rises(Lane lane) {
        int apart = 1 + lane.length() / ENOUGH;
        double[] sorted = new double[(lane.length() + apart - 1) / apart];
        Arrays.setAll(sorted, i -> lane.at(i * apart));
        Arrays.sort(sorted);
        double low = sorted[(int) (0.02 * (sorted.length - 1))];
        double high = sorted[(int) (0.98 * (sorted.length - 1))];
        double middle = (low + high) / 2;
        double up = low + 0.6 * (high - low);
        double down = low + 0.4 * (high - low);
        List<Double> all = new ArrayList<>();
        boolean above = lane.at(0) > middle;
        double crossed = Double.NaN;
        for (int i = 1; i < lane.length(); i++) {
            double before = lane.at(i - 1);
            double v = lane.at(i);
            if (before <= middle && v > middle) {
                crossed = i - 1 + (middle - before) / (v - before);
            }
            if (!above && v > up) {
                all.add(Double.isNaN(crossed) ? i : crossed);
                above = true;
            } else if (above && v < down) {
                above = false;
            }
        }
        return all.stream().mapToDouble(d -> d).toArray();
    }

    /** The middle of what lies around: gaps and holes are too few to move it. */
    private double usual(int at) {
        int from = Math.max(0, Math.min(at - AROUND, rises.length - 2 - 2 * AROUND));
        int to = Math.min(rises.length - 1, from + 2 * AROUND + 1);
        double[] near = new double[to - from];
        for (int i = from; i < to; i++) {
            near[i - from] = rises[i + 1] - rises[i];
        }
        Arrays.sort(near);
        return near[near.length / 2];
    }

    private void turn(int from, int to) {
        int sum = 0;
        for (int i = from; i < to; i++) {
            if (pitches[i] == 0) {
                return;
            }
            sum += pitches[i];
        }
        if (sum != wheel.teeth()) {
            return;
        }
        turns.put(from, to);
        int its = pitches[to - 1] - wheel.missing() - 1;
        boolean any = its > 0;
        if (its > 0) {
            // one beside the gap
            lost.add(wheel.there() - 1);
        }
        int at = 0;
        for (int i = from; i < to - 1; i++) {
            for (int n = 1; n < pitches[i]; n++) {
                lost.add(at + n);
                any = true;
            }
            at += pitches[i];
        }
        lostTurns += any ? 1 : 0;
    }

    int marks() {
        return rises.length;
    }

    /** Whole turns, from gap to gap. */
    int turns() {
        return turns.size();
    }

    /** Marks that come where none should be. */
    int tooMuch() {
        return tooMuch;
    }

    /** Turns in which a mark is missing. */
    int lostTurns() {
        return lostTurns;
    }

    /** Which marks are missing in at least half of the turns, counted from the gap, from 0. */
    List<Integer> lost() {
        return lost.stream()
                .distinct()
                .filter(t -> 2 * lost.stream().filter(t::equals).count() >= turns.size())
                .sorted()
                .toList();
    }

    /** Pairs of turns that follow each other, beginning with each turn. */
    List<int[]> cycles() {
        List<int[]> all = new ArrayList<>();
        turns.forEach(
                (from, to) -> {
                    Integer end = turns.get(to);
                    if (end != null) {
                        all.add(new int[] {from, end});
                    }
                });
        return all;
    }

    /**
     * What lies within a cycle.
     *
     * @param samples rising
     * @return their degrees
     */
    double[] within(int[] cycle, double[] samples) {
        int from = first(samples, rises[cycle[0]]);
        int to = first(samples, rises[cycle[1]]);
        return Arrays.stream(samples, from, to).map(s -> degrees(cycle, s)).toArray();
    }

    /** Index of the first that is not below. */
    private static int first(double[] samples, double least) {
        int found = Arrays.binarySearch(samples, least);
        return found < 0 ? -found - 1 : found;
    }

    /**
     * Degrees since the first tooth after a gap; NaN before it, and after the end of two turns.
     *
     * @param cycle of {@link #cycles}
     * @param sample between two samples too
     */
    private double degrees(int[] cycle, double sample) {
        int at = 0;
        for (int i = cycle[0]; i < cycle[1]; i++) {
            if (sample >= rises[i] && sample < rises[i + 1]) {
                double share = (sample - rises[i]) / (rises[i + 1] - rises[i]);
                return (at + share * pitches[i]) * wheel.pitch();
            }
            at += pitches[i];
        }
        return Double.NaN;
    }

    /**
     * Speed at each tooth of a cycle.
     *
     * @return degrees a sample; for {@code 2 × teeth} places, those without a tooth with what lies
     *     between their neighbours
     */
    double[] speeds(int[] cycle) {
        double[] all = new double[2 * wheel.teeth()];
        int at = 0;
        for (int i = cycle[0]; i < cycle[1]; i++) {
            double speed = pitches[i] * wheel.pitch() / (rises[i + 1] - rises[i]);
            for (int n = 0; n < pitches[i]; n++) {
                all[at++] = speed;
            }
        }
        return all;
    }

    /** The sample at which a cycle is so many degrees old. */
    double sample(int[] cycle, double degrees) {
        double at = 0;
        for (int i = cycle[0]; i < cycle[1]; i++) {
            double end = at + pitches[i] * wheel.pitch();
            if (degrees < end) {
                return rises[i] + (degrees - at) / (end - at) * (rises[i + 1] - rises[i]);
            }
            at = end;
        }
        return rises[cycle[1]];
    }
}
