package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import java.io.IOException;
import java.io.StringWriter;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Lanes as they are kept, thinned, brought in and sent out. */
class LanesTest {
    private static Lane lane(double... samples) {
        return Lane.of("lane", LaneRole.OTHER, "V", "", samples);
    }

    private static short[] steps(Random random, int count) {
        short[] steps = new short[count];
        int at = 0;
        for (int i = 0; i < count; i++) {
            at =
                    random.nextInt(50) == 0
                            ? random.nextInt(65_536) - 32_768
                            : at + random.nextInt(7) - 3;
            steps[i] = (short) at;
        }
        return steps;
    }

    @RepeatedTest(30)
    void whatIsPackedComesBack(RepetitionInfo n) {
        Random random = new Random(n.getCurrentRepetition());
        short[] steps = steps(random, random.nextInt(3000));
        assertThat(PackedSteps.unpack(PackedSteps.pack(steps), steps.length)).isEqualTo(steps);
    }

    /** Twelve bits of a noisy wave: what the issue of storage is about. */
    @Test
    void twelveBitsTakeLessThanAByte() {
        Random random = new Random(1);
        short[] steps = new short[200_000];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = (short) (1500 * Math.sin(i / 300.0) + 2 * random.nextGaussian());
        }
        assertThat(PackedSteps.pack(steps).length).isLessThan(steps.length);
    }

    @Test
    void tornPackagesAreTold() {
        byte[] packed = PackedSteps.pack(new short[500]);
        assertThatThrownBy(() -> PackedSteps.unpack(packed, 600))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("Expected 600");
        assertThatThrownBy(() -> PackedSteps.unpack(new byte[] {7, 7, 7}, 5))
                .isInstanceOf(IllegalArgumentException.class);
    }

    /** Each column holds exactly the least and most of its samples, at any zoom. */
    @RepeatedTest(30)
    void extentsAgreeWithAllSamples(RepetitionInfo n) {
        Random random = new Random(100 + n.getCurrentRepetition());
        short[] steps = steps(random, 1 + random.nextInt(5000));
        int from = random.nextInt(steps.length);
        int to = from + 1 + random.nextInt(steps.length - from);
        int columns = 1 + random.nextInt(60);
        Extents extents = new Extents(Arrays.copyOf(steps, random.nextInt(steps.length + 1)));
        while (extents.length() < steps.length) {
            int at = extents.length();
            int more = 1 + random.nextInt(steps.length - at);
            extents.append(Arrays.copyOfRange(steps, at, at + more));
        }
        short[] got = extents.of(from, to, columns);
        for (int c = 0; c < columns; c++) {
            int begin = (int) (from + (long) (to - from) * c / columns);
            int end = Math.max(begin + 1, (int) (from + (long) (to - from) * (c + 1) / columns));
            short least = Short.MAX_VALUE;
            short most = Short.MIN_VALUE;
            for (int i = begin; i < end; i++) {
                least = (short) Math.min(least, steps[i]);
                most = (short) Math.max(most, steps[i]);
            }
            assertThat(new short[] {got[2 * c], got[2 * c + 1]})
                    .as("column %d", c)
                    .isEqualTo(new short[] {least, most});
        }
    }

    @Test
    void samplesAreKeptToASmallPartOfTheirSpan() {
        Lane lane = lane(-3.2, 0, 1.25, 6.8);
        for (int i = 0; i < 4; i++) {
            assertThat(lane.at(i))
                    .isCloseTo(new double[] {-3.2, 0, 1.25, 6.8}[i], within(10.0 / 65_000));
        }
        assertThat(lane.inverted().at(3)).isCloseTo(-6.8, within(10.0 / 65_000));
    }

    @Test
    void flatPeaksAreClippedAndASwitchIsNot() {
        double[] cut = new double[2000];
        double[] square = new double[2000];
        for (int i = 0; i < cut.length; i++) {
            cut[i] = Math.max(-0.97, Math.min(0.97, Math.sin(i / 50.0)));
            square[i] = i / 100 % 2;
        }
        assertThat(lane(cut).clipped()).isTrue();
        assertThat(lane(square).clipped()).isFalse();
        assertThat(lane(3, 3, 3).silent()).isTrue();
    }

    @Test
    void badLanesNameThemselves() {
        assertThatThrownBy(() -> lane(1, Double.NaN)).hasMessageContaining("sample 2");
        assertThatThrownBy(() -> lane()).hasMessageContaining("'lane' has no samples");
        assertThatThrownBy(() -> new Capture(0.1, List.of(lane(1, 2), lane(1))))
                .hasMessageContaining("one length");
        assertThatThrownBy(() -> new Capture(0, List.of(lane(1)))).hasMessageContaining("above 0");
    }

    private static Value value(String id) {
        return new Value(
                id, "log", 0, 4, true, 1, 0, "=" + id, "V", "V", 2, Map.of(), List.of(), List.of());
    }

    @Test
    void anEvenTakeBecomesLanesAndGoesOutAsCsv() throws IOException {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        double[] t = {0, 0.001, 0.002, 0.003};
        columns.put("a", new Take.Column(t, new double[] {1, 2, 3, 4}));
        columns.put("b", new Take.Column(t, new double[] {0, 0, 5, 5}));
        Capture capture = CaptureOfTake.of(new Take(columns, List.of()), LanesTest::value);
        assertThat(capture.interval()).isCloseTo(0.001, within(1e-9));
        StringWriter out = new StringWriter();
        CaptureCsv.write(capture, out);
        // a name that a spreadsheet would take for a formula is neutralised
        assertThat(out.toString().lines().toList())
                .hasSize(5)
                .first()
                .asString()
                .contains("\"'=a [V]\"");
        assertThat(out.toString().lines().skip(3).findFirst().orElseThrow())
                .startsWith("0.0020000,");
    }

    @Test
    void anUnevenOneIsToldWithItsPlace() {
        Map<String, Take.Column> columns =
                Map.of(
                        "a",
                        new Take.Column(
                                new double[] {0, 0.001, 0.005, 0.006}, new double[] {1, 2, 3, 4}));
        assertThatThrownBy(() -> CaptureOfTake.of(new Take(columns, List.of()), LanesTest::value))
                .hasMessageContaining("not sampled evenly")
                .hasMessageContaining("'=a'");
    }

    @Test
    void pulsesHaveFrequencyWidthAndWhatIsMissing() {
        double[] samples = new double[10_000];
        for (int i = 0; i < samples.length; i++) {
            boolean up = i % 100 < 25 && i / 100 != 40;
            samples[i] = up ? 5 : 0.2;
        }
        Pulses pulses = Pulses.of(lane(samples), 1e-4).orElseThrow();
        assertThat(1 / pulses.period()).isCloseTo(100, within(0.01));
        assertThat(pulses.width()).isCloseTo(0.0025, within(1e-4));
        assertThat(pulses.duty()).isCloseTo(0.25, within(0.01));
        assertThat(pulses.missing()).hasSize(1);
        assertThat(pulses.missing().get(0)).isCloseTo(0.4, within(0.001));
        assertThat(pulses.extra()).isEmpty();
        assertThat(Pulses.of(lane(1, 1, 1), 1)).isEmpty();
    }

    /** Pulses of 1 ms every 10 ms that go up to 60 V and ring at 20 kHz when they end. */
    private static Lane switchedOff(double jitter, double rings) {
        Random random = new Random(8);
        double[] volts = new double[200_000];
        for (int p = 0; p < 19; p++) {
            int at = 1000 + p * 10_000 + (int) (jitter * random.nextGaussian());
            for (int i = 0; i < 9000; i++) {
                double after = (i - 1000) * 1e-6;
                volts[at + i] +=
                        i < 1000
                                ? 60
                                : rings
                                        * Math.exp(-after / 1e-4)
                                        * Math.sin(2 * Math.PI * 20_000 * after);
            }
        }
        for (int i = 0; i < volts.length; i++) {
            volts[i] += 0.1 * random.nextGaussian();
        }
        return lane(volts);
    }

    @Test
    void whatRingsAfterItsPulsesIsTold() {
        Lane rings = switchedOff(0, 40);
        Pulses pulses = Pulses.of(rings, 1e-6).orElseThrow();
        assertThat(pulses.high()).isCloseTo(60, within(1.0));
        assertThat(Ringing.of(rings, 1e-6, pulses).orElseThrow().hertz())
                .isCloseTo(20_000, within(400.0));
        Lane calm = switchedOff(0, 0);
        assertThat(Ringing.of(calm, 1e-6, Pulses.of(calm, 1e-6).orElseThrow())).isEmpty();
    }

    @Test
    void jitterIsWhatIsLeftWithoutThePace() {
        assertThat(Pulses.of(switchedOff(0, 0), 1e-6).orElseThrow().jitter()).isLessThan(2e-6);
        // the gap between two rises that each lie off by 30 µs
        assertThat(Pulses.of(switchedOff(30, 0), 1e-6).orElseThrow().jitter())
                .isBetween(25e-6, 65e-6);
    }
}
