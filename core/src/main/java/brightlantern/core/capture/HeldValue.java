package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.List;

/** A live value that was asked now and then beside a capture; it holds until it is asked again. */
public final class HeldValue {
    private final List<double[]> asked = new ArrayList<>();
    private final double step;

    /**
     * @param step what one step is worth, in its unit
     */
    public HeldValue(double step) {
        this.step = step;
    }

    /**
     * An answer. One that did not come, NaN, changes nothing.
     *
     * @param seconds since the capture began, not before the answer before it
     */
    public void answered(double seconds, double value) {
        if (Double.isFinite(value)) {
            asked.add(new double[] {seconds, value});
        }
    }

    /** Seconds since its last answer; since the beginning without any. */
    public double silentSince(double seconds) {
        return asked.isEmpty() ? seconds : seconds - asked.get(asked.size() - 1)[0];
    }

    /** Whether it was ever answered; before, there is nothing to hold. */
    public boolean isKnown() {
        return !asked.isEmpty();
    }

    /**
     * Its samples as whole steps; nothing was known before the first answer, which holds back to
     * the beginning.
     *
     * @param interval seconds between samples
     * @param from the first sample wanted
     */
    public short[] steps(double interval, int from, int count) {
        short[] steps = new short[count];
        int at = 0;
        for (int i = 0; i < count; i++) {
            double seconds = (from + i) * interval;
            while (at + 1 < asked.size() && asked.get(at + 1)[0] <= seconds) {
                at++;
            }
            double value = asked.isEmpty() ? 0 : asked.get(at)[1] / step;
            steps[i] =
                    (short) Math.max(Short.MIN_VALUE, Math.min(Short.MAX_VALUE, Math.round(value)));
        }
        return steps;
    }
}
