package brightlantern.standin.instrument;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a meter makes of waves whose figures are known. */
class WaveFiguresTest {
    private static final int COUNT = 20_000;
    private static final double SECONDS = 0.2;

    @ParameterizedTest
    @CsvSource({"55, 0.3", "120, 0.5", "1000, 0.8"})
    void aSquareWaveIsCounted(double hertz, double duty) {
        Random random = new Random(3);
        double[] wave =
                IntStream.range(0, COUNT)
                        .mapToDouble(i -> i * SECONDS / COUNT * hertz % 1 < duty ? 12 : 0)
                        .map(v -> v + 0.05 * random.nextGaussian())
                        .toArray();
        WaveFigures its = WaveFigures.of(wave, SECONDS);
        assertThat(its.hertz()).isCloseTo(hertz, within(0.01 * hertz));
        assertThat(its.duty()).isCloseTo(duty, within(0.02));
        // of 0 and 12 V with this share of 12
        assertThat(its.alternating())
                .isCloseTo(12 * Math.sqrt(duty * (1 - duty)), within(0.05 * 12));
    }

    @Test
    void aSineOfOneVoltHasItsRootMeanSquareWhateverItStandsOn() {
        double[] wave =
                IntStream.range(0, COUNT)
                        .mapToDouble(i -> 14 + Math.sin(2 * Math.PI * 50 * i * SECONDS / COUNT))
                        .toArray();
        assertThat(WaveFigures.of(wave, SECONDS).alternating())
                .isCloseTo(Math.sqrt(0.5), within(1e-3));
        assertThat(WaveFigures.of(wave, SECONDS).hertz()).isCloseTo(50, within(0.5));
    }

    @Test
    void whatStandsStillHasNoFrequency() {
        WaveFigures its = WaveFigures.of(new double[] {12.4}, SECONDS);
        assertThat(its.alternating()).isZero();
        assertThat(its.hertz()).isInfinite();
        assertThat(its.duty()).isInfinite();
    }
}
