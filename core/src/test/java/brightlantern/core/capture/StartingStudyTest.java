package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A starter that draws through battery, cable and strap, and what is read in it. */
class StartingStudyTest {
    private static final double INTERVAL = 1e-3;

    /**
     * @param battery ohms, as {@code plus} and {@code earth}
     */
    private static Capture capture(double battery, double plus, double earth, double seconds) {
        Random noise = new Random(2);
        int n = (int) (seconds / INTERVAL);
        double[] amps = new double[n];
        Arrays.setAll(
                amps,
                i -> {
                    double t = i * INTERVAL - 0.2;
                    double its =
                            210 + 40 * Math.sin(2 * Math.PI * 7 * t) + 600 * Math.exp(-t / 0.05);
                    return (t < 0 ? 0 : its) + 1.5 * noise.nextGaussian();
                });
        return new Capture(
                INTERVAL,
                List.of(
                        lane(LaneRole.SUPPLY, amps, 12.6, -battery),
                        lane(LaneRole.PLUS_CABLE, amps, 0, plus),
                        lane(LaneRole.EARTH_CABLE, amps, 0, earth),
                        lane(LaneRole.STARTER_CURRENT, amps, 0, 1)));
    }

    private static Lane lane(LaneRole role, double[] amps, double rest, double ohm) {
        double[] its = Arrays.stream(amps).map(a -> rest + a * ohm).toArray();
        return Lane.of(role.words(), role, role.unit(), "", its);
    }

    private static StartingStudy.Judgement judged(double battery, double plus, double earth) {
        return StartingStudy.judge(capture(battery, plus, earth, 3)).orElseThrow();
    }

    @Test
    void soundOnesCarryTheStart() {
        StartingStudy.Judgement its = judged(0.011, 0.001, 0.0007);
        assertThat(its.holds()).isTrue();
        assertThat(its.tells())
                .extracting(CaptureReading.Told::finding, CaptureReading.Told::outcome)
                .containsExactly(tuple("starting", "even"), tuple("start-volts", "fine"));
        assertThat(its.reasons().get(1)).contains("loses 0.21 V, which is 1.0 mΩ");
    }

    @Test
    void eachOfThreeIsTold() {
        assertThat(judged(0.011, 0.008, 0.0007).outcome()).isEqualTo("plus");
        assertThat(judged(0.011, 0.001, 0.008).outcome()).isEqualTo("earth");
        StartingStudy.Judgement battery = judged(0.02, 0.001, 0.0007);
        assertThat(battery.outcome()).isEqualTo("even");
        assertThat(battery.holds()).isFalse();
        assertThat(battery.sentence()).contains("the battery itself gives in");
    }

    @Test
    void whatIsTooShortOrLacksALaneSaysSo() {
        assertThat(StartingStudy.whyNot(capture(0.011, 0.001, 0.0007, 0.9)).orElseThrow())
                .contains("expected 0.5 s or more");
        Capture all = capture(0.011, 0.001, 0.0007, 3);
        Capture less = new Capture(INTERVAL, all.lanes().subList(0, 3));
        assertThat(StartingStudy.whyNot(less).orElseThrow()).contains("starting current");
        assertThat(StartingStudy.judge(less)).isEmpty();
    }
}
