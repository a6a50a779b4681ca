package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A wire whose harness is moved: when it jumps, and what that goes with. */
class ContactStudyTest {
    private static final double INTERVAL = 1e-3;

    /**
     * @param at seconds at which it is moved where it is loose
     */
    private static Capture capture(double rests, double opens, double noise, double... at) {
        Random random = new Random(11);
        double[] samples = new double[30_000];
        for (int i = 0; i < samples.length; i++) {
            double t = i * INTERVAL;
            // the circuit is switched off for a while
            double volts = t > 14 && t < 18 ? 0.3 : rests;
            for (double moved : at) {
                double since = t - moved;
                if (since > 0 && since < 0.4 && (int) (since * 1000) % 50 < 8) {
                    volts = opens;
                }
            }
            samples[i] = volts + noise * random.nextGaussian();
        }
        return new Capture(
                INTERVAL, List.of(Lane.of("pin", LaneRole.POINT, "V", "X12.1", samples)));
    }

    private static ContactStudy.Mark mark(double at, String words) {
        return new ContactStudy.Mark(at, words);
    }

    private static final List<ContactStudy.Mark> MARKS =
            List.of(
                    mark(2, "X12"),
                    mark(5, "connector X14, moved"),
                    mark(8, "X12"),
                    mark(20, "connector X14, moved"),
                    mark(24, "X12"));

    private static ContactStudy.Judgement judged(Capture capture, List<ContactStudy.Mark> marks) {
        return ContactStudy.judge(capture, marks, Set.of("X12", "X14", "X1")).orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.004, 0.05, 0.2})
    void whatIsOnlySwitchedDoesNotJump(double noise) {
        ContactStudy.Judgement quiet = judged(capture(12.4, 0, noise), MARKS);
        assertThat(quiet.bursts()).isEmpty();
        assertThat(quiet.holds()).isTrue();
        assertThat(quiet.tells())
                .extracting(CaptureReading.Told::finding, CaptureReading.Told::outcome)
                .containsExactly(tuple("move-X12", "steady"), tuple("move-X14", "steady"));
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.004, 0.05, 0.2})
    void jumpsGoWithWhatWasMoved(double noise) {
        ContactStudy.Judgement found = judged(capture(12.4, 0, noise, 2.3, 7.9, 24.6), MARKS);
        assertThat(found.bursts()).hasSize(3);
        assertThat(found.bursts().get(0).jumps()).isEqualTo(8);
        assertThat(found.bursts().get(0).volts()).isBetween(-13.5, -11.5);
        assertThat(found.sentence()).contains("24 times, in 3 bursts").contains("goes with 'X12'.");
        assertThat(found.tells())
                .extracting(CaptureReading.Told::finding, CaptureReading.Told::outcome)
                .containsExactly(tuple("move-X12", "jumps"), tuple("move-X14", "steady"));
    }

    @Test
    void jumpsThatComeAllTheTimeGoWithNothing() {
        double[] often = new double[14];
        for (int i = 0; i < often.length; i++) {
            often[i] = 0.7 + 2.05 * i;
        }
        ContactStudy.Judgement found = judged(capture(5, 0, 0.01, often), List.of(mark(8, "X12")));
        assertThat(found.sentence()).contains("none of what was marked");
        assertThat(found.tells()).isEmpty();
        assertThat(found.near()).singleElement().matches(n -> n.hit() == 1 && n.chance() > 0.5);
    }

    @Test
    void onceIsNoProofAndWithoutMarksNothingIsNamed() {
        assertThat(judged(capture(5, 0, 0.01, 3), List.of(mark(3, "X12"))).tells()).isEmpty();
        assertThat(judged(capture(5, 0, 0.01, 3), List.of()).sentence()).contains("Mark what was");
        ContactStudy.Judgement once = judged(capture(5, 0, 0.01), List.of(mark(3, "X12")));
        assertThat(once.tells()).as("moved once, steady").isEmpty();
    }

    @Test
    void tooSlowOrTooShortIsSaid() {
        Lane lane = Lane.of("pin", LaneRole.POINT, "V", "X12.1", new double[500]);
        assertThat(ContactStudy.whyNot(new Capture(0.01, List.of(lane))).orElseThrow())
                .contains("10.0 ms")
                .contains("5 ms or faster");
        assertThat(ContactStudy.whyNot(new Capture(0.001, List.of(lane)))).isPresent();
        assertThat(ContactStudy.judge(new Capture(0.001, List.of(lane)), List.of(), Set.of()))
                .isEmpty();
    }
}
