package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Two instruments that saw the same signal, one of them later. */
class LaneDelayTest {
    private static final int LENGTH = 60_000;

    private static Lane lane(double[] signal, int from, double times, long seed) {
        Random noise = new Random(seed);
        double[] samples = new double[LENGTH];
        Arrays.setAll(samples, i -> times * signal[from + i] + 0.2 * noise.nextGaussian());
        return Lane.of("lane " + seed, LaneRole.OTHER, "V", "", samples);
    }

    /** Pulses at uneven times, as of an engine that never turns quite alike. */
    private static double[] uneven() {
        Random random = new Random(3);
        double[] signal = new double[3 * LENGTH];
        for (int at = 0; at < signal.length - 40; at += 900 + random.nextInt(400)) {
            Arrays.fill(signal, at, at + 40, 5);
        }
        return signal;
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 7, 4230, -4230, 19_999})
    void theDelayIsFoundToTheSample(int late) {
        double[] signal = uneven();
        Lane first = lane(signal, LENGTH / 2, 1, 1);
        Lane second = lane(signal, LENGTH / 2 + late, 0.7, 2);
        assertThat(LaneDelay.of(first, second, 20_000)).contains(late);
        Capture moved = new Capture(1e-4, List.of(first, second)).moved(List.of(0, late));
        assertThat(moved.length()).isEqualTo(LENGTH - Math.abs(late));
        assertThat(LaneDelay.of(moved.lanes().get(0), moved.lanes().get(1), 20_000)).contains(0);
    }

    /** Teeth of an engine that idles: every turn is nearly as the one before. */
    @ParameterizedTest
    @ValueSource(ints = {0, 2113, -1500, 4800})
    void thatOfAnIdlingEngineIsFoundThoughItNearlyRepeatsItself(int late) {
        Random random = new Random(9);
        double[] signal = new double[3 * LENGTH];
        double angle = 0;
        double speed = 1;
        for (int i = 0; i < signal.length; i++) {
            if (i % 1250 == 0) {
                speed = 1 + 0.01 * random.nextGaussian();
            }
            angle += speed * 360 / 3750;
            double tooth = angle % 360 / 6;
            signal[i] = tooth < 58 && tooth % 1 < 0.5 ? 5 : 0;
        }
        Lane first = lane(signal, LENGTH / 2, 1, 1);
        Lane second = lane(signal, LENGTH / 2 + late, 1, 2);
        assertThat(LaneDelay.of(first, second, 5000)).contains(late);
    }

    @Test
    void whatRepeatsItselfOrIsNotAlikeTellsNothing() {
        double[] even = new double[3 * LENGTH];
        for (int i = 0; i < even.length; i++) {
            even[i] = i % 1000 < 40 ? 5 : 0;
        }
        assertThat(LaneDelay.of(lane(even, 0, 1, 1), lane(even, 300, 1, 2), 20_000)).isEmpty();
        double[] other = new double[3 * LENGTH];
        assertThat(LaneDelay.of(lane(uneven(), 0, 1, 1), lane(other, 0, 1, 2), 20_000)).isEmpty();
    }

    @Test
    void whatWouldLeaveNothingIsRefused() {
        Lane lane = lane(uneven(), 0, 1, 1);
        Capture capture = new Capture(1e-4, List.of(lane, lane));
        assertThatThrownBy(() -> capture.moved(List.of(0, LENGTH)))
                .hasMessageContaining("leave nothing of 60000");
        assertThatThrownBy(() -> capture.moved(List.of(0))).hasMessageContaining("1 delays for 2");
    }
}
