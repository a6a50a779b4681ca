package brightlantern.core.sound;

import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.hipparchus.complex.Complex;
import org.hipparchus.stat.descriptive.rank.Median;
import org.hipparchus.transform.DftNormalization;
import org.hipparchus.transform.FastFourierTransformer;
import org.hipparchus.transform.TransformType;

/**
 * Injectors clicked one after another with the engine off: onsets are found in the envelope, each
 * click has its loudness (RMS) and its brightness (spectral centroid), and cylinders are compared
 * with each other. A cold engine sounds duller throughout; what is dull among cold ones and like
 * its fellows when warm is stiff with cold, not broken.
 */
public final class InjectorSound {
    private static final double WINDOW_SECONDS = 0.002;

    /** Nothing mechanical clicks twice within this time. */
    private static final double REST_SECONDS = 0.06;

    private static final double CLICK_SECONDS = 0.03;

    /** An onset stands out so many times from the quiet between the clicks. */
    private static final double OVER_NOISE = 6;

    private static final double SHARE_OF_LOUDEST = 0.12;

    /** Fellows of a healthy engine lie within this, dB; a click quieter by more is dull. */
    private static final double DULL_DB = 4;

    /** A centroid below this share of the middle one is dull. */
    private static final double DULL_SHARE = 0.82;

    private InjectorSound() {}

    /**
     * @param seconds of its onset
     * @param level RMS, dB against full scale
     * @param hertz centroid of its spectrum
     */
    public record Click(double seconds, double level, double hertz) {}

    /**
     * @param level mean over the rounds, dB against the middle cylinder
     * @param hertz mean centroid
     */
    public record Cylinder(int number, double level, double hertz, boolean dull, int clicks) {}

    /**
     * @param dull the one that stands out; empty when none or several do
     */
    public record Verdict(
            boolean judged,
            Optional<Integer> dull,
            String sentence,
            List<String> reasons,
            List<Cylinder> cylinders) {}

    /** Mains hum and rumble lie below, clicks well above. */
    private static final double HUM_HERTZ = 300;

    /**
     * Offset, hum and rumble taken away: a Butterworth high-pass of second order, run twice (the
     * bilinear transform's biquad).
     */
    static Wav withoutHum(Wav wav) {
        double[] once = highPass(wav.samples(), wav.rate());
        return new Wav(wav.rate(), highPass(once, wav.rate()), wav.remarks(), wav.clipped());
    }

    private static double[] highPass(double[] x, int rate) {
        double k = Math.tan(Math.PI * HUM_HERTZ / rate);
        double norm = 1 / (1 + Math.sqrt(2) * k + k * k);
        double a1 = 2 * (k * k - 1) * norm;
        double a2 = (1 - Math.sqrt(2) * k + k * k) * norm;
        double[] y = new double[x.length];
        // as if the first sample had always been there: no step at the beginning
        double x1 = x.length > 0 ? x[0] : 0;
        double x2 = x1;
        double y1 = 0;
        double y2 = 0;
        for (int i = 0; i < x.length; i++) {
            y[i] = norm * (x[i] - 2 * x1 + x2) - a1 * y1 - a2 * y2;
            x2 = x1;
            x1 = x[i];
            y2 = y1;
            y1 = y[i];
        }
        return y;
    }

    /** Clicks in the order in which they came. */
    public static List<Click> clicks(Wav recorded) {
        Wav wav = withoutHum(recorded);
        int window = Math.max(1, (int) (WINDOW_SECONDS * wav.rate()));
        double[] envelope = envelope(wav, window);
        double noise = new Median().evaluate(envelope);
        double loudest = 0;
        for (double e : envelope) {
            loudest = Math.max(loudest, e);
        }
        double threshold = Math.max(OVER_NOISE * noise, SHARE_OF_LOUDEST * loudest);
        List<Click> clicks = new ArrayList<>();
        int rest = (int) (REST_SECONDS / WINDOW_SECONDS);
        for (int i = 0; i < envelope.length; i++) {
            if (envelope[i] > threshold) {
                clicks.add(click(wav, i * window));
                i += rest;
            }
        }
        return List.copyOf(clicks);
    }

    /** RMS of the differences in each window: rumble is left out. */
    private static double[] envelope(Wav wav, int window) {
        double[] envelope = new double[wav.samples().length / window];
        for (int w = 0; w < envelope.length; w++) {
            double sum = 0;
            for (int i = Math.max(1, w * window); i < (w + 1) * window; i++) {
                double d = wav.samples()[i] - wav.samples()[i - 1];
                sum += d * d;
            }
            envelope[w] = Math.sqrt(sum / window);
        }
        return envelope;
    }

    private static Click click(Wav wav, int from) {
        int size = Integer.highestOneBit((int) (CLICK_SECONDS * wav.rate()) * 2 - 1);
        double[] part = new double[size];
        double sum = 0;
        int n = (int) (CLICK_SECONDS * wav.rate());
        for (int i = 0; i < n && from + i < wav.samples().length; i++) {
            double v = wav.samples()[from + i];
            sum += v * v;
            if (i < size) {
                part[i] = v;
            }
        }
        Complex[] spectrum =
                new FastFourierTransformer(DftNormalization.STANDARD)
                        .transform(part, TransformType.FORWARD);
        double weight = 0;
        double moment = 0;
        for (int k = 1; k < size / 2; k++) {
            double power =
                    spectrum[k].getReal() * spectrum[k].getReal()
                            + spectrum[k].getImaginary() * spectrum[k].getImaginary();
            weight += power;
            moment += power * k * wav.rate() / size;
        }
        return new Click(
                from / (double) wav.rate(),
                10 * Math.log10(Math.max(1e-12, sum / n)),
                weight == 0 ? 0 : moment / weight);
    }

    /**
     * Compares cylinders that clicked in this order, round after round.
     *
     * @param order numbers of the cylinders
     */
    public static Verdict judge(Wav wav, List<Integer> order) {
        if (wav.clipped()) {
            return new Verdict(
                    false,
                    Optional.empty(),
                    "Cannot be judged: the recording is clipped. Move the microphone away or turn it down, and record again.",
                    wav.remarks(),
                    List.of());
        }
        List<Click> clicks = clicks(wav);
        if (clicks.isEmpty() || clicks.size() % order.size() != 0) {
            return new Verdict(
                    false,
                    Optional.empty(),
                    Words.count(clicks.size(), "click")
                            + " found, which cannot be judged: expected as many as "
                            + order.size()
                            + " cylinders or a multiple.",
                    wav.remarks(),
                    List.of());
        }
        Map<Integer, List<Click>> by = new LinkedHashMap<>();
        for (int i = 0; i < clicks.size(); i++) {
            by.computeIfAbsent(order.get(i % order.size()), n -> new ArrayList<>())
                    .add(clicks.get(i));
        }
        double middleLevel = new Median().evaluate(means(by, true));
        double middleHertz = new Median().evaluate(means(by, false));
        List<Cylinder> cylinders = new ArrayList<>();
        List<String> reasons = new ArrayList<>(wav.remarks());
        by.forEach(
                (n, its) -> {
                    double level = mean(its, true) - middleLevel;
                    double hertz = mean(its, false);
                    boolean dull = level < -DULL_DB || hertz < DULL_SHARE * middleHertz;
                    cylinders.add(new Cylinder(n, level, hertz, dull, its.size()));
                    reasons.add(
                            String.format(
                                    Locale.ROOT,
                                    "Cylinder %d: %+.1f dB against the middle one, centre of its sound at"
                                            + " %.0f Hz (%s)%s.",
                                    n,
                                    level,
                                    hertz,
                                    Words.count(its.size(), "click"),
                                    dull ? ", dull" : ""));
                });
        List<Integer> dull =
                cylinders.stream().filter(Cylinder::dull).map(Cylinder::number).toList();
        return new Verdict(
                true,
                dull.size() == 1 ? Optional.of(dull.get(0)) : Optional.empty(),
                dull.isEmpty()
                        ? "All injectors sound alike."
                        : dull.size() == 1
                                ? "Injector %d sounds dull among its fellows."
                                        .formatted(dull.get(0))
                                : "Several injectors sound dull: " + dull + ".",
                reasons,
                cylinders);
    }

    /** What cold and warm tell together. */
    public static String together(Verdict cold, Verdict warm) {
        if (!cold.judged() || !warm.judged()) {
            return "One of the two recordings could not be judged.";
        }
        if (warm.dull().isPresent()) {
            return "Injector %d is dull when warm as well: it is sticking or worn."
                    .formatted(warm.dull().get());
        }
        return cold.dull()
                .map(
                        n ->
                                "Injector %d is stiff when cold and sounds like its fellows when warm: it is not the fault."
                                        .formatted(n))
                .orElse("All injectors sound alike, cold and warm.");
    }

    private static double[] means(Map<Integer, List<Click>> by, boolean level) {
        return by.values().stream().mapToDouble(c -> mean(c, level)).toArray();
    }

    private static double mean(List<Click> clicks, boolean level) {
        return clicks.stream()
                .mapToDouble(c -> level ? c.level() : c.hertz())
                .average()
                .orElse(Double.NaN);
    }
}
