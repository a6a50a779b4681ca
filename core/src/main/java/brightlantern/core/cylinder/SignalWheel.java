package brightlantern.core.cylinder;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * The wheels at crank and camshaft by whose marks a module knows where its engine stands.
 *
 * @param teeth round the crank's wheel, those that are left out among them
 * @param missing teeth left out, side by side: the gap; two at least, since a gap of one looks like
 *     a mark that broke off
 * @param first degrees from the first tooth after the gap to where cylinder 1 fires, at its dead
 *     centre
 * @param cam degrees of the crank at which the signal of the camshaft rises, over two turns, from
 *     the first tooth after the gap in the turn in which cylinder 1 fires
 */
public record SignalWheel(int teeth, int missing, double first, List<Double> cam) {
    private static final int TURN = 360;

    public SignalWheel {
        cam = OrEmpty.list(cam);
    }

    /** Degrees from tooth to tooth. */
    public double pitch() {
        return (double) TURN / teeth;
    }

    /** Teeth that are there. */
    public int there() {
        return teeth - missing;
    }
}
