package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/** A lane of current that is switched on and off again. */
final class SwitchedLane {
    /** Above this share of the largest current something is on. */
    private static final double ON = 0.15;

    /** It is off again below this share of where it was on, so that noise ends nothing. */
    private static final double OFF = 0.4;

    /** Less than this, A, is what a clamp shows of itself. */
    private static final double LEAST_AMPS = 0.2;

    /** Fewer pulses are no train. */
    static final int TRAIN = 3;

    private final Lane lane;
    private final double on;

    /**
     * @param as it was recorded; a clamp that sits the wrong way round shows all below its rest
     */
    SwitchedLane(Lane as) {
        lane = isTurned(as) ? as.inverted() : as;
        on = Math.max(LEAST_AMPS, ON * lane.most());
    }

    static boolean isTurned(Lane lane) {
        return -lane.least() > lane.most();
    }

    Lane lane() {
        return lane;
    }

    /** The sample at which what is on at another one is off again. */
    int end(int start) {
        int i = Math.max(0, start);
        while (i < lane.length() && lane.at(i) > OFF * on) {
            i++;
        }
        return i;
    }

    private boolean rises(int i) {
        return lane.at(i - 1) <= on && lane.at(i) > on && lane.at(i + 1) > on;
    }

    /** The first sample of a span at which it is switched on; below 0 where it never is. */
    int start(double from, double to) {
        int end = (int) Math.min(lane.length() - 1, Math.round(to));
        return IntStream.range((int) Math.max(1, Math.round(from)), end)
                .filter(this::rises)
                .findFirst()
                .orElse(-1);
    }

    /** Samples at which it is switched on. */
    List<Integer> starts() {
        List<Integer> starts = new ArrayList<>();
        for (int i = 1; i < lane.length() - 1; i++) {
            if (rises(i)) {
                starts.add(i);
                i = end(i);
            }
        }
        return starts;
    }
}
