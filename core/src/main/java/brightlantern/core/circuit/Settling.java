package brightlantern.core.circuit;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.OptionalDouble;

/**
 * When a meter has come to rest on a point, so that its reading can be taken without a hand: its
 * figures stay together for a while, and where somebody holds the lead, they have left the point
 * before.
 */
public final class Settling {
    /** For so long they have to stay together, s. */
    private static final double FOR_SECONDS = 1;

    private static final int LEAST_READINGS = 5;
    private static final double WITHIN_VOLTS = 0.02;
    private static final double WITHIN_SHARE = 0.005;

    /** A lead in the air shows less than this, V. */
    public static final double IN_THE_AIR = 0.05;

    /** A lead that was moved showed something else by at least this, V. */
    private static final double MOVED_VOLTS = 0.15;

    private record At(double seconds, double volts) {}

    private final Deque<At> last = new ArrayDeque<>();
    private final boolean held;
    private final OptionalDouble before;
    private boolean left;

    /**
     * @param held whether somebody holds the lead, so that it may hang in the air
     * @param before volts of the reading before, which a lead that is held has to leave first;
     *     empty for the first one
     */
    public Settling(boolean held, OptionalDouble before) {
        this.held = held;
        this.before = before;
        this.left = !held || before.isEmpty();
    }

    /**
     * A figure of the meter.
     *
     * @param seconds not before the one before
     * @return the mean, once it has come to rest
     */
    public OptionalDouble add(double seconds, double volts) {
        if (!left && Math.abs(volts - before.getAsDouble()) > MOVED_VOLTS) {
            left = true;
        }
        last.addLast(new At(seconds, volts));
        while (last.size() > 2 && last.peekFirst().seconds() < seconds - FOR_SECONDS) {
            last.removeFirst();
        }
        double mean = last.stream().mapToDouble(At::volts).average().orElseThrow();
        boolean together =
                last.stream()
                        .allMatch(
                                a ->
                                        Math.abs(a.volts() - mean)
                                                <= Math.max(
                                                        WITHIN_VOLTS,
                                                        WITHIN_SHARE * Math.abs(mean)));
        boolean longEnough =
                last.size() >= LEAST_READINGS
                        && seconds - last.peekFirst().seconds() >= 0.8 * FOR_SECONDS;
        return left && together && longEnough && !(held && Math.abs(mean) < IN_THE_AIR)
                ? OptionalDouble.of(mean)
                : OptionalDouble.empty();
    }

    /** What it showed last, from the least to the most, V. */
    public double[] span() {
        return new double[] {
            last.stream().mapToDouble(At::volts).min().orElse(Double.NaN),
            last.stream().mapToDouble(At::volts).max().orElse(Double.NaN)
        };
    }
}
