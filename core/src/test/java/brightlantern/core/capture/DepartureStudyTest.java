package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DepartureStudyTest {
    private static final double INTERVAL = 1e-3;
    private static final double SECONDS = 20;
    private static final double NEVER = 99;

    /** Seconds at which coil, injector and count leave, and who is said to have been the first. */
    @ParameterizedTest(name = "coil {0}, injector {1}, count {2}")
    @CsvSource({
        "99, 99, 99, none",
        "99, 12, 9, count",
        "99, 99, 9, count",
        "9, 12, 9.2, coil",
        "9, 99, 9.2, coil",
        "9, 12, 99, coil",
        "99, 9, 9.3, injector",
        "99, 9, 99, injector",
        "9, 9.1, 9.3, together",
        "20, 20, 99, none"
    })
    void theNearestToTheCauseIsNamed(double coil, double injector, double count, String outcome) {
        DepartureStudy.Judgement judgement =
                DepartureStudy.judge(capture(coil, injector, count)).orElseThrow();
        assertThat(judgement.outcome()).as("%s", judgement).isEqualTo(outcome);
        assertThat(judgement.holds()).isEqualTo(outcome.equals("none"));
        assertThat(judgement.order().size())
                .isEqualTo(
                        (int) DoubleStream.of(coil, injector, count).filter(t -> t < 20).count());
    }

    @Test
    void anEngineThatIsSwitchedOffHasNotLostItsPulses() {
        DepartureStudy.Judgement judgement =
                DepartureStudy.judge(capture(15, 15.05, NEVER)).orElseThrow();
        assertThat(judgement.holds()).isTrue();
        assertThat(judgement.reasons().get(0)).contains("the engine was switched off there");
    }

    /** A module forgets what is long past; that and single ones are no beginning. */
    @Test
    void aCountThatRisesAndIsForgottenIsNoDeparture() {
        Lane injector = train(LaneRole.INJECTOR, NEVER, 1);
        short[] steps = new short[injector.length()];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = (short) ((i / 6000) % 3 == 2 ? 0 : (i / 6000) % 3);
        }
        Capture capture =
                new Capture(
                        INTERVAL,
                        List.of(
                                injector,
                                new Lane("count", LaneRole.COUNT, "", "live", 1, 0, steps)));
        assertThat(DepartureStudy.judge(capture).orElseThrow().holds()).isTrue();
    }

    @Test
    void whatCannotBeToldIsSaid() {
        Lane flat =
                Lane.of(
                        "injector",
                        LaneRole.INJECTOR,
                        "A",
                        "clamp",
                        new double[(int) (SECONDS / INTERVAL)]);
        Capture still = new Capture(INTERVAL, List.of(flat, count(NEVER)));
        assertThat(DepartureStudy.judge(still)).isEmpty();
        assertThat(DepartureStudy.whyNot(still).orElseThrow()).contains("shows no pulses");
        Capture alone = new Capture(INTERVAL, List.of(train(LaneRole.INJECTOR, NEVER, 1)));
        assertThat(DepartureStudy.whyNot(alone).orElseThrow()).contains("count of misfires");
    }

    private static Capture capture(double coil, double injector, double count) {
        return new Capture(
                INTERVAL,
                List.of(
                        train(LaneRole.COIL, coil, 1),
                        train(LaneRole.INJECTOR, injector, 2),
                        count(count)));
    }

    /** Pulses of 3 ms while the engine speeds up from 8 to 16 cycles a second. */
    private static Lane train(LaneRole role, double until, long seed) {
        Random random = new Random(seed);
        double[] samples = new double[(int) (SECONDS / INTERVAL)];
        double next = 0.01;
        for (int i = 0; i < samples.length; i++) {
            double t = i * INTERVAL;
            boolean on = t >= next && t < next + 0.003 && t < until;
            samples[i] = (on ? 5 : 0) + 0.05 * random.nextGaussian();
            if (t >= next + 0.003) {
                next += 1 / (8 + 8 * t / SECONDS);
            }
        }
        return Lane.of(role.words(), role, "A", "clamp", samples);
    }

    /** Asked five times a second; it rises with each cycle. */
    private static Lane count(double from) {
        HeldValue held = new HeldValue(1);
        for (double t = 0; t < SECONDS; t += 0.2) {
            held.answered(t, Math.max(0, Math.floor((t - from) * 12)));
            held.answered(t, Double.NaN);
        }
        List<Short> all = new ArrayList<>();
        int length = (int) (SECONDS / INTERVAL);
        // fetched in parts, as a recorder does
        for (int i = 0; i < length; i += 7000) {
            for (short s : held.steps(INTERVAL, i, Math.min(7000, length - i))) {
                all.add(s);
            }
        }
        short[] steps = new short[length];
        for (int i = 0; i < length; i++) {
            steps[i] = all.get(i);
        }
        return new Lane("Misfires", LaneRole.COUNT, "", "live value", 1, 0, steps);
    }
}
