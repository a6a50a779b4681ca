package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.cylinder.Cylinders;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** The pressure in a cylinder, drawn by polytropic gas over a crank that turns evenly. */
class PressureStudyTest {
    private static final double RATE = 5000;
    private static final double RPM = 240;
    private static final double RATIO = 11;
    private static final PressureStudy STUDY = new PressureStudy(four(RATIO));

    private static Cylinders four(double ratio) {
        return ToothStudyTest.four(ratio, Optional.empty());
    }

    /** Volume against the smallest one, by degrees after dead centre (rods are long). */
    private static double volume(double degrees) {
        return 1 + (RATIO - 1) * (1 - Math.cos(Math.toRadians(degrees))) / 2;
    }

    /**
     * @param lost share of its charge that is gone behind dead centre
     * @param filled with so much of what is around it
     */
    private static double at(double degrees, double lost, double filled) {
        double after = (degrees + 360) % 720 - 360;
        if (after < -138 || after > 140) {
            return after > 140 && after < 350 ? 102 : 98 * filled;
        }
        double share = after < 0 ? 1 : 1 - lost;
        return 98 * filled * share * Math.pow(volume(138) / volume(after), 1.32);
    }

    private static Capture cranked(String name, double seconds, double rpm, double... how) {
        double[] samples = new double[(int) (seconds * RATE)];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = at(i / RATE * rpm * 6 + 200, how[0], how[1]) + how[2];
        }
        return of(samples, name);
    }

    private static Capture of(double[] samples, String name) {
        return new Capture(1 / RATE, List.of(Lane.of(name, LaneRole.CYLINDER, "kPa", "", samples)));
    }

    @Test
    void tellsATightCylinderFromOneThatLosesItsCharge() {
        PressureStudy.Judgement tight =
                STUDY.judge(cranked("Pressure in cylinder 3", 4, RPM, 0.04, 1, 0)).orElseThrow();
        assertThat(tight.outcome()).isEqualTo("tight");
        assertThat(tight.tells().get(0).finding()).isEqualTo("pressure-3");
        assertThat(tight.rpm()).isCloseTo(RPM, within(1.0));
        assertThat(tight.peak())
                .isCloseTo(98 * Math.pow(volume(138), 1.32), within(tight.peak() / 50));
        assertThat(tight.lost()).isCloseTo(0.03, within(0.03));
        PressureStudy.Judgement leaks =
                STUDY.judge(cranked("of cylinder 3", 4, RPM, 0.4, 1, 0)).orElseThrow();
        assertThat(leaks.outcome()).isEqualTo("leaks");
        assertThat(leaks.lost()).isBetween(0.25, 0.4);
        assertThat(leaks.holds()).isFalse();
    }

    @Test
    void onlyByTheRatioIsATightOneTooLow() {
        Capture little = cranked("Cylinder", 4, RPM, 0.03, 1, 0);
        double high = 16;
        PressureStudy.Judgement low = new PressureStudy(four(high)).judge(little).orElseThrow();
        assertThat(low.outcome()).isEqualTo("low");
        assertThat(low.tells()).as("its lane does not tell which it is").isEmpty();
        PressureStudy.Judgement unknown = new PressureStudy(four(0)).judge(little).orElseThrow();
        assertThat(unknown.outcome()).isEqualTo("tight");
        assertThat(unknown.reasons().get(0)).contains("its ratio is not described");
    }

    @Test
    void aTransducerThatTellsWhatIsAboveAmbientIsUnderstood() {
        PressureStudy.Judgement gauge =
                STUDY.judge(cranked("1", 4, RPM, 0.03, 1, -101.3)).orElseThrow();
        assertThat(gauge.outcome()).isEqualTo("tight");
        assertThat(gauge.filled()).isCloseTo(98, within(2.0));
        assertThat(gauge.reasons()).anyMatch(r -> r.contains("101.3 kPa are added"));
    }

    @Test
    void saysWhyItCannot() {
        assertThat(PressureStudy.whyNot(cranked("1", 4, RPM, 0.03, 1, 300)).orElseThrow())
                .startsWith("It rests at 399 kPa")
                .contains("look at the line");
        assertThat(PressureStudy.whyNot(cranked("1", 0.8, RPM, 0.03, 1, 0)).orElseThrow())
                .contains("at least 3 cycles");
        assertThat(PressureStudy.whyNot(cranked("1", 4, 900, 0.03, 1, 0)).orElseThrow())
                .contains("900 rpm");
        Lane other = Lane.of("other", LaneRole.OTHER, "V", "", new double[] {0, 1, 2});
        assertThat(PressureStudy.whyNot(new Capture(1, List.of(other))).orElseThrow())
                .contains("needs a lane");
        double[] cut = new double[20_000];
        for (int i = 0; i < cut.length; i++) {
            cut[i] = Math.min(900, at(i / RATE * RPM * 6, 0.03, 1));
        }
        assertThat(PressureStudy.whyNot(of(cut, "1")).orElseThrow()).contains("flat");
        assertThat(STUDY.judge(of(cut, "1"))).isEmpty();
    }

    @Test
    void itsRulerBeginsWithTheFirstCylinder() {
        // cylinder 3 fires a quarter of a cycle behind the first
        List<double[]> cycles = STUDY.cycles(cranked("Cylinder 3", 4, RPM, 0.03, 1, 0));
        double its = (720 - 200) / (RPM * 6);
        assertThat(cycles.get(0)[0]).isCloseTo(its - 0.125, within(2e-3));
        assertThat(cycles.get(0)[1] - cycles.get(0)[0]).isCloseTo(0.5, within(1e-3));
    }
}
