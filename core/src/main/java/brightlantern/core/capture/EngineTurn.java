package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/** Two turns of the crank: from one pulse of the first cylinder to fire to its next, in samples. */
record EngineTurn(double from, double to) {
    /** A pulse begins so far before or behind where its turn would begin, as a share of a turn. */
    private static final double EARLY = 0.3;

    /** A gap of so many usual ones lacks a pulse. */
    private static final double GAP = 1.6;

    /** Where the pulse of the k-th to fire begins; below 0 where none comes. */
    int start(SwitchedLane lane, int k, int of) {
        double turn = (to - from) / of;
        double at = from + k * turn;
        return lane.start(at - EARLY * turn, at + (1 - 2 * EARLY) * turn);
    }

    /**
     * All of a capture: by the pulses of the first cylinder, or, where nothing flows there, by the
     * one gap that is left in the feed of all.
     *
     * @param cylinders that are fed
     * @return none where nothing tells
     */
    static List<EngineTurn> of(SwitchedLane first, SwitchedLane feed, int cylinders) {
        List<Integer> own = first.starts();
        List<EngineTurn> turns = new ArrayList<>();
        if (own.size() >= SwitchedLane.TRAIN) {
            for (int i = 1; i < own.size(); i++) {
                turns.add(new EngineTurn(own.get(i - 1), own.get(i)));
            }
            return turns;
        }
        List<Integer> all = feed.starts();
        double usual = all.size() < SwitchedLane.TRAIN * cylinders ? 0 : usual(all);
        int last = -1;
        for (int i = 1; usual > 0 && i < all.size(); i++) {
            if (all.get(i) - all.get(i - 1) > GAP * usual) {
                if (last >= 0 && i - last == cylinders - 1) {
                    turns.add(new EngineTurn(all.get(last) - usual, all.get(i) - usual));
                }
                last = i;
            }
        }
        return turns;
    }

    /** Middle distance from one pulse to the next, in samples. */
    private static double usual(List<Integer> starts) {
        int[] gaps =
                IntStream.range(1, starts.size())
                        .map(i -> starts.get(i) - starts.get(i - 1))
                        .sorted()
                        .toArray();
        return gaps[gaps.length / 2];
    }
}
