package brightlantern.standin.plant;

import brightlantern.core.sound.Wav;
import java.util.List;
import java.util.Random;

/**
 * What a microphone hears when injectors are clicked one after another: a damped ringing of the
 * body for each, a little different from one to the next, over the noise of the yard. Cold fuel and
 * cold springs damp it; a stiff one most.
 */
public final class InjectorClicks {
    private static final int RATE = 44_100;
    private static final double APART_SECONDS = 0.4;
    private static final double RINGS_HERTZ = 3100;
    private static final double RINGS_SECONDS = 0.006;
    private static final double NOISE = 0.002;

    /** Above this an injector is as free as it gets, °C. */
    private static final double FREE_CELSIUS = 60;

    private InjectorClicks() {}

    /**
     * @param order in which they click, round after round
     * @param stiff the one that is stiff when cold; 0 for none
     * @param celsius of the engine
     */
    public static Wav heard(List<Integer> order, int rounds, int stiff, double celsius, long seed) {
        Random random = new Random(seed);
        double cold = Math.max(0, Math.min(1, (FREE_CELSIUS - celsius) / 50));
        double[] samples = new double[(int) ((order.size() * rounds + 1) * APART_SECONDS * RATE)];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = NOISE * random.nextGaussian();
        }
        double[] own = new double[order.size() + 1];
        for (int n = 1; n < own.length; n++) {
            own[n] = 1 + 0.04 * random.nextGaussian();
        }
        for (int c = 0; c < order.size() * rounds; c++) {
            int n = order.get(c % order.size());
            double dull = 0.15 * cold + (n == stiff ? 0.45 * cold : 0);
            double loud = 0.45 * own[n] * (1 - dull) * (1 + 0.03 * random.nextGaussian());
            double hertz = RINGS_HERTZ * own[n] * (1 - 0.6 * dull);
            int from = (int) ((c + 0.5) * APART_SECONDS * RATE);
            for (int i = 0; i < RATE / 20; i++) {
                double t = i / (double) RATE;
                samples[from + i] +=
                        loud
                                * Math.exp(-t / (RINGS_SECONDS * (1 + dull)))
                                * Math.sin(2 * Math.PI * hertz * t);
            }
        }
        return new Wav(RATE, samples, List.of());
    }
}
