package brightlantern.core.capture;

import brightlantern.core.cylinder.Cylinders;
import java.util.List;
import java.util.Optional;

/**
 * Cycles of an engine (two turns) within a capture, from whichever lane tells them.
 *
 * @param all begin and end of each, s, one after the other
 * @param firesBefore degrees by which a cycle begins before the compression dead centre of the
 *     first cylinder
 */
public record EngineCycles(List<double[]> all, double firesBefore) {
    public static final EngineCycles NONE = new EngineCycles(List.of(), 0);

    private static final double DEGREES = Cycles.DEGREES;

    public EngineCycles {
        all = List.copyOf(all);
    }

    /** Those of a capture; none where no lane tells them. */
    public static EngineCycles of(Capture capture, Optional<Cylinders> cylinders) {
        if (capture.lane(LaneRole.FIRST_CYLINDER).isPresent()) {
            return new EngineCycles(CrankingStudy.cycles(capture), CaptureStudy.FIRES_BEFORE);
        }
        return cylinders
                .map(
                        its ->
                                capture.lane(LaneRole.CYLINDER).isPresent()
                                        ? new PressureStudy(its).cycles(capture)
                                        : ToothStudy.cycles(capture, its))
                .map(c -> new EngineCycles(c, 0))
                .orElse(NONE);
    }

    /** So many cycles, and parts of one, lie before a time; NaN before and after all of them. */
    double cyclesBefore(double seconds) {
        int low = 0;
        int high = all.size() - 1;
        while (low <= high) {
            int middle = (low + high) / 2;
            double[] its = all.get(middle);
            if (seconds < its[0]) {
                high = middle - 1;
            } else if (seconds >= its[1]) {
                low = middle + 1;
            } else {
                return middle + (seconds - its[0]) / (its[1] - its[0]) - firesBefore / DEGREES;
            }
        }
        return Double.NaN;
    }

    /** The reverse of {@link #cyclesBefore}, s. */
    double at(double cyclesBefore) {
        double its = cyclesBefore + firesBefore / DEGREES;
        int n = (int) Math.floor(its);
        if (Double.isNaN(its) || n < 0 || n >= all.size()) {
            return Double.NaN;
        }
        double[] cycle = all.get(n);
        return cycle[0] + (its - n) * (cycle[1] - cycle[0]);
    }
}
