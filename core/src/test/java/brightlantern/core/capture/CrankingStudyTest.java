package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * Cranking by hand: sine waves for what healthy cylinders do, and a bump where one of them loses
 * its gas. Engines with physics of their own are judged in the stand-ins' tests.
 */
class CrankingStudyTest {
    private static final List<Integer> ORDER = List.of(1, 3, 4, 2);
    private static final double RATE = 5000;
    private static final double RPM = 240;

    /**
     * @param weak cylinder that compresses less; 0 for none
     * @param loses the lane in which its gas arrives
     */
    private static Capture cranked(int weak, LaneRole loses, double seconds, double rpm) {
        int n = (int) (seconds * RATE);
        List<Lane> lanes = new ArrayList<>();
        for (LaneRole role :
                List.of(
                        LaneRole.STARTER_CURRENT,
                        LaneRole.INTAKE,
                        LaneRole.EXHAUST,
                        LaneRole.CRANKCASE,
                        LaneRole.FIRST_CYLINDER)) {
            double[] samples = new double[n];
            for (int i = 0; i < n; i++) {
                double angle = i / RATE * rpm * 6 % 720;
                samples[i] = sample(role, angle, weak, loses);
            }
            lanes.add(Lane.of(role.words(), role, role.unit(), "", samples));
        }
        return new Capture(1 / RATE, lanes);
    }

    private static double sample(LaneRole role, double angle, int weak, LaneRole loses) {
        if (role == LaneRole.FIRST_CYLINDER) {
            return angle > 714 ? 5 : 0;
        }
        double wave = Math.cos(Math.toRadians(4 * angle / 2));
        double near = 0;
        if (weak > 0) {
            double apart = Math.abs(angle - 180.0 * ORDER.indexOf(weak));
            double off = Math.min(apart, 720 - apart);
            near = Math.exp(-off * off / 800);
        }
        if (role == LaneRole.STARTER_CURRENT) {
            return 200 + 100 * wave * (1 - 0.4 * near);
        }
        double usual = role == LaneRole.CRANKCASE ? 0.2 * wave : wave;
        return usual + (role == loses ? 1.5 * near : 0);
    }

    private static CrankingStudy.Judgement judged(Capture capture) {
        return CrankingStudy.judge(capture, ORDER, 6).orElseThrow();
    }

    @Test
    void healthyCylindersAreAlike() {
        CrankingStudy.Judgement judgement = judged(cranked(0, LaneRole.OTHER, 4, RPM));
        assertThat(judgement.outcome()).isEqualTo("even");
        assertThat(judgement.holds()).isTrue();
        assertThat(judgement.rpm()).isBetween(238.0, 242.0);
        assertThat(judgement.cylinders()).hasSize(4);
    }

    @Test
    void theLaneInWhichGasArrivesTellsWhatLeaks() {
        assertThat(judged(cranked(3, LaneRole.INTAKE, 4, RPM)).outcome())
                .isEqualTo("intake-valve-3");
        assertThat(judged(cranked(4, LaneRole.EXHAUST, 4, RPM)).outcome())
                .isEqualTo("exhaust-valve-4");
        assertThat(judged(cranked(2, LaneRole.CRANKCASE, 4, RPM)).outcome()).isEqualTo("rings-2");
    }

    @Test
    void lessCompressionWithoutAWayIsUnclear() {
        CrankingStudy.Judgement judgement = judged(cranked(3, LaneRole.OTHER, 4, RPM));
        assertThat(judgement.outcome()).isEqualTo("unclear");
        assertThat(judgement.sentence()).contains("Cylinder 3 compresses less");
        assertThat(judgement.reasons()).anyMatch(r -> r.contains("cylinder 3 needs"));
    }

    @Test
    void saysWhyItCannot() {
        Capture whole = cranked(0, LaneRole.OTHER, 4, RPM);
        Capture noSync = new Capture(whole.interval(), whole.lanes().subList(0, 4));
        assertThat(CrankingStudy.whyNot(noSync))
                .hasValueSatisfying(t -> assertThat(t).contains("firing"));
        assertThat(CrankingStudy.judge(noSync, ORDER, 6)).isEmpty();
        Capture slow = new Capture(0.01, whole.lanes());
        assertThat(CrankingStudy.whyNot(slow))
                .hasValueSatisfying(t -> assertThat(t).contains("samples a second"));
        assertThat(CrankingStudy.whyNot(cranked(0, LaneRole.OTHER, 0.8, RPM)))
                .hasValueSatisfying(t -> assertThat(t).contains("whole cycle"));
        assertThat(CrankingStudy.whyNot(cranked(0, LaneRole.OTHER, 4, 900)))
                .hasValueSatisfying(t -> assertThat(t).contains("ran by itself"));
        List<Lane> dead = new ArrayList<>(whole.lanes());
        dead.set(2, Lane.of("Exhaust", LaneRole.EXHAUST, "kPa", "", new double[whole.length()]));
        assertThat(CrankingStudy.whyNot(new Capture(whole.interval(), dead)))
                .hasValueSatisfying(t -> assertThat(t).contains("'Exhaust' shows nothing"));
    }

    @Test
    void anOrderThatDoesNotFitIsTold() {
        Capture four = cranked(0, LaneRole.OTHER, 4, RPM);
        assertThat(CrankingStudy.whyNot(four, ORDER)).isEmpty();
        List<Integer> six = List.of(1, 5, 3, 6, 2, 4);
        assertThat(CrankingStudy.whyNot(four, six).orElseThrow())
                .startsWith("The starting current rises 4 times")
                .contains("the firing order has 6 cylinders");
        assertThat(CrankingStudy.judge(four, six, CaptureStudy.FIRES_BEFORE)).isEmpty();
    }
}
