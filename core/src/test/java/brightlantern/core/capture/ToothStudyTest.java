package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.cylinder.SignalWheel;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Marks of crank and camshaft, drawn by formula and read back. */
class ToothStudyTest {
    private static final SignalWheel WHEEL =
            new SignalWheel(36, 2, 60, List.of(20.0, 210.0, 400.0, 600.0));
    private static final Cylinders FOUR = four(Optional.of(WHEEL));
    private static final double INTERVAL = 4e-5;

    private static Cylinders four(Optional<SignalWheel> wheel) {
        return four(0, wheel);
    }

    static Cylinders four(double ratio, Optional<SignalWheel> wheel) {
        return new Cylinders(
                List.of(1, 3, 4, 2),
                Map.of(),
                "deviation.",
                "misfires.",
                "engine.speed",
                "",
                "",
                -3,
                1,
                "",
                1500,
                8,
                ratio,
                wheel,
                List.of());
    }

    /** Volts over the degrees of two turns, at 900 rpm, begun at {@code from} degrees. */
    private static Lane lane(LaneRole role, double from, double seconds, DoubleUnaryOperator at) {
        double[] volts = new double[(int) (seconds / INTERVAL)];
        for (int i = 0; i < volts.length; i++) {
            volts[i] = at.applyAsDouble((from + i * INTERVAL * 5400) % 720);
        }
        return Lane.of(role.words(), role, "V", "", volts);
    }

    private static double crank(double degrees, int lost) {
        double at = degrees % 360 / 10;
        return (int) at < 34 && (int) at != lost - 1 && at - (int) at < 0.5 ? 5 : 0.1;
    }

    private static double cam(double degrees, double late) {
        return WHEEL.cam().stream().anyMatch(c -> (degrees - c - late + 1440) % 720 < 25) ? 5 : 0;
    }

    private static Capture capture(double from, double late, int lost) {
        return new Capture(
                INTERVAL,
                List.of(
                        lane(LaneRole.CRANK, from, 1, d -> crank(d, lost)),
                        lane(LaneRole.CAM, from, 1, d -> cam(d, late))));
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0, right",
        "400, 0, right",
        "0, 9, late",
        "250, 30, late",
        "600, -12, early",
        "90, 5, right"
    })
    void whereTheCamshaftStandsIsToldWhereverItBegins(double from, double late, String outcome) {
        ToothStudy.Judgement seen = ToothStudy.judge(capture(from, late, 0), FOUR).orElseThrow();
        assertThat(seen.outcome()).isEqualTo(outcome);
        assertThat(seen.late()).isCloseTo(late, within(0.4));
        assertThat(seen.rpm()).isCloseTo(900, within(5.0));
        assertThat(seen.holds()).isEqualTo(outcome.equals("right"));
    }

    @ParameterizedTest
    @ValueSource(ints = {2, 17, 33})
    void aMarkThatIsMissingIsNumbered(int lost) {
        ToothStudy.Judgement seen = ToothStudy.judge(capture(77, 0, lost), FOUR).orElseThrow();
        assertThat(seen.outcome()).isEqualTo("tooth");
        assertThat(seen.lost()).containsExactly(lost);
    }

    @Test
    void cyclesBeginWhereTheFirstCylinderFires() {
        List<double[]> cycles = ToothStudy.cycles(capture(500, 0, 0), FOUR);
        assertThat(cycles).hasSizeGreaterThan(3);
        for (double[] c : cycles) {
            assertThat((500 + c[0] * 5400) % 720).isCloseTo(60, within(1.0));
            assertThat(c[1] - c[0]).isCloseTo(720 / 5400.0, within(1e-3));
        }
    }

    @Test
    void marksThatComeAndGoAreNoFault() {
        Capture noisy =
                new Capture(
                        INTERVAL,
                        List.of(
                                lane(
                                        LaneRole.CRANK,
                                        0,
                                        1,
                                        d -> d > 332 && d < 334 ? 5 - crank(d, 0) : crank(d, 0)),
                                lane(LaneRole.CAM, 0, 1, d -> cam(d, 0))));
        assertThat(ToothStudy.whyNot(noisy, FOUR).orElseThrow())
                .containsPattern("[78] of them where none should be");
        Capture foreign =
                new Capture(
                        INTERVAL,
                        List.of(
                                lane(LaneRole.CRANK, 0, 1, d -> crank(d, 0)),
                                lane(LaneRole.CAM, 0, 1, d -> d % 90 < 20 ? 5 : 0)));
        assertThat(ToothStudy.judge(foreign, FOUR).orElseThrow())
                .satisfies(j -> assertThat(j.outcome()).isEqualTo("unclear"))
                .satisfies(j -> assertThat(j.reasons().toString()).contains("8.0 marks"));
    }

    @Test
    void whatIsLackingIsNamed() {
        assertThat(ToothStudy.whyNot(capture(0, 0, 0), four(Optional.empty())).orElseThrow())
                .contains("does not tell which marks");
        Lane crank = lane(LaneRole.CRANK, 0, 1, d -> crank(d, 0));
        assertThat(why(crank)).contains("lane at each sensor");
        assertThat(why(crank, lane(LaneRole.CAM, 0, 1, d -> 0))).contains("shows nothing at all");
        assertThat(why(lane(LaneRole.CRANK, 0, 1, d -> d % 12 < 6 ? 5 : 0), camLane()))
                .contains("0 whole turns")
                .contains("34 marks and a gap of 2");
        assertThat(ToothStudy.judge(new Capture(INTERVAL, List.of(crank)), FOUR)).isEmpty();
    }

    private static Lane camLane() {
        return lane(LaneRole.CAM, 0, 1, d -> cam(d, 0));
    }

    private static String why(Lane... lanes) {
        return ToothStudy.whyNot(new Capture(INTERVAL, List.of(lanes)), FOUR).orElseThrow();
    }
}
