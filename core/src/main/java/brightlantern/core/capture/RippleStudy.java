package brightlantern.core.capture;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.hipparchus.complex.Complex;
import org.hipparchus.transform.DftNormalization;
import org.hipparchus.transform.FastFourierTransformer;
import org.hipparchus.transform.TransformType;

/**
 * Whether each diode of an alternator gives its share. Six diodes rectify three phases, so that a
 * healthy alternator pulses six times in each period of a phase (six-pulse bridge); without one of
 * them a pulse is missing once in each period. At idle a phase has some 150 to 350 Hz, and six
 * times that lies above all that a gap can have.
 */
public final class RippleStudy {
    /** With a strongest line of less than this nothing is given at all, V. */
    private static final double NOTHING_VOLTS = 0.005;

    /** A gap is deeper than this, V. */
    private static final double GAP_VOLTS = 0.15;

    /** Slower than this at idle is a phase, faster is what six diodes make of it, Hz. */
    private static final double PHASE_HERTZ = 600;

    /** Slower than this is the engine's turning or what is switched, Hz. */
    private static final double LEAST_HERTZ = 90;

    private static final double SLOWEST_INTERVAL = 2e-4;
    private static final double SHORTEST_SECONDS = 0.1;

    /** What is slower than this is no ripple, s. */
    private static final double MEAN_OVER = 0.01;

    private static final double TAIL = 0.01;

    private RippleStudy() {}

    /** A line of a spectrum: its frequency, Hz, and its amplitude, V. */
    private record Line(double hertz, double volts) {}

    /**
     * @param outcome none, even or gap
     * @param volts from top to bottom
     * @param hertz of the strongest line
     */
    public record Judgement(
            String outcome, String sentence, List<String> reasons, double volts, double hertz)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
        }

        @Override
        public boolean holds() {
            return outcome.equals("even");
        }

        @Override
        public List<Told> tells() {
            return List.of(new Told(CapturePlan.RIPPLE, outcome, holds(), sentence));
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    public static Optional<String> whyNot(Capture capture) {
        if (capture.lane(LaneRole.SUPPLY).isEmpty()) {
            return Optional.of("It needs a lane at the battery itself.");
        }
        if (capture.interval() > SLOWEST_INTERVAL || capture.seconds() < SHORTEST_SECONDS) {
            return Optional.of(
                    String.format(
                            Locale.ROOT,
                            "It has a sample every %.2f ms for %.2f s; expected one every %.1f ms or faster, for %.1f s or longer.",
                            1000 * capture.interval(),
                            capture.seconds(),
                            1000 * SLOWEST_INTERVAL,
                            SHORTEST_SECONDS));
        }
        return capture.lane(LaneRole.SUPPLY).orElseThrow().clipped()
                ? Optional.of("Its peaks lie flat at the end of the range: choose a larger one.")
                : Optional.empty();
    }

    /** What it says; empty when nothing can be said, and {@link #whyNot} says why. */
    public static Optional<Judgement> judge(Capture capture) {
        if (whyNot(capture).isPresent()) {
            return Optional.empty();
        }
        double[] ripple =
                fast(
                        capture.lane(LaneRole.SUPPLY).orElseThrow().samples(),
                        (int) Math.round(MEAN_OVER / capture.interval()));
        double volts = span(ripple);
        Line line = strongest(ripple, capture.interval());
        double hertz = line.hertz();
        List<String> reasons =
                List.of(
                        String.format(
                                Locale.ROOT,
                                "%.2f V from top to bottom, most of it %.0f times a second.",
                                volts,
                                hertz));
        if (line.volts() < NOTHING_VOLTS) {
            return Optional.of(
                    new Judgement(
                            "none",
                            "Nothing pulses at the battery: the alternator gives nothing, or the engine did not run.",
                            reasons,
                            volts,
                            hertz));
        }
        return Optional.of(
                volts > GAP_VOLTS && hertz < PHASE_HERTZ
                        ? new Judgement(
                                "gap",
                                "A pulse is missing in each period of the alternator: one of its diodes is lost.",
                                reasons,
                                volts,
                                hertz)
                        : new Judgement(
                                "even",
                                "The alternator pulses evenly: all of its diodes give their share.",
                                reasons,
                                volts,
                                hertz));
    }

    /** What is left of samples without their running mean. */
    private static double[] fast(double[] samples, int over) {
        double[] sums = new double[samples.length + 1];
        for (int i = 0; i < samples.length; i++) {
            sums[i + 1] = sums[i] + samples[i];
        }
        double[] left = new double[samples.length];
        for (int i = 0; i < left.length; i++) {
            int from = Math.max(0, i - over / 2);
            int to = Math.min(samples.length, i + over / 2 + 1);
            left[i] = samples[i] - (sums[to] - sums[from]) / (to - from);
        }
        return left;
    }

    private static double span(double[] samples) {
        double[] sorted = samples.clone();
        Arrays.sort(sorted);
        int tail = (int) (TAIL * sorted.length);
        return sorted[sorted.length - 1 - tail] - sorted[tail];
    }

    /** The strongest line (discrete Fourier transform, Hann's window). */
    private static Line strongest(double[] samples, double interval) {
        int n = Integer.highestOneBit(samples.length);
        double[] windowed = new double[n];
        for (int i = 0; i < n; i++) {
            windowed[i] = samples[i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * i / n));
        }
        Complex[] lines =
                new FastFourierTransformer(DftNormalization.STANDARD)
                        .transform(windowed, TransformType.FORWARD);
        int best = 0;
        double most = -1;
        for (int k = (int) Math.ceil(LEAST_HERTZ * n * interval); k < n / 2; k++) {
            double power = Math.pow(lines[k].norm(), 2);
            if (power > most) {
                most = power;
                best = k;
            }
        }
        // Hann's window leaves half of an amplitude, and each line half of that
        return new Line(best / (n * interval), 4 * Math.sqrt(Math.max(0, most)) / n);
    }
}
