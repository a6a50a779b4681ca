package brightlantern.core.signal;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.ToDoubleFunction;

/**
 * How often values are sampled, told beforehand: a module answers one request at a time, a request
 * holds so many values, and modules are asked in parallel.
 */
public final class SamplingCost {
    /** Assumed for a module that has not been asked yet, ms. */
    public static final double TYPICAL_MILLIS = 18;

    private SamplingCost() {}

    /** Samples a second of each value of one module. */
    public static double rate(int values, int pack, double answerMillis) {
        if (values <= 0) {
            return 0;
        }
        int requests = (values + pack - 1) / pack;
        return 1000 / (requests * (answerMillis > 0 ? answerMillis : TYPICAL_MILLIS));
    }

    /**
     * @param counts module id → how many of its values are wanted
     * @return module id → samples a second
     */
    public static Map<String, Double> rates(
            Map<String, Integer> counts, int pack, ToDoubleFunction<String> answerMillis) {
        Map<String, Double> rates = new LinkedHashMap<>();
        counts.forEach((m, n) -> rates.put(m, rate(n, pack, answerMillis.applyAsDouble(m))));
        return rates;
    }

    /** What one value more of a module does to the others of it, in words. */
    public static String oneMore(int values, int pack, double answerMillis) {
        double after = rate(values + 1, pack, answerMillis);
        double before = rate(values, pack, answerMillis);
        if (values == 0) {
            return String.format(Locale.ROOT, "about %s Hz", Units.told(after));
        }
        return before - after < 0.01
                ? String.format(Locale.ROOT, "%s Hz, costs nothing", Units.told(after))
                : String.format(
                        Locale.ROOT,
                        "%s Hz instead of %s for its module",
                        Units.told(after),
                        Units.told(before));
    }
}
