package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Three phases through six diodes, with one of them lost, and what is read in it. */
class RippleStudyTest {
    private static final double INTERVAL = 5e-5;

    /**
     * @param hertz of a phase
     * @param volts that the whole of what is given makes
     */
    private static Capture capture(
            double hertz, double volts, boolean lost, double interval, double seconds) {
        Random noise = new Random(5);
        double[] samples = new double[(int) Math.round(seconds / interval)];
        for (int i = 0; i < samples.length; i++) {
            double t = i * interval;
            double a = Math.sin(2 * Math.PI * hertz * t + 1);
            double b = Math.sin(2 * Math.PI * hertz * t + 1 - 2 * Math.PI / 3);
            double c = Math.sin(2 * Math.PI * hertz * t + 1 + 2 * Math.PI / 3);
            double top = lost ? Math.max(a, b) : Math.max(a, Math.max(b, c));
            double given = top - Math.min(a, Math.min(b, c));
            // the engine turns unevenly, and the regulator hunts slowly
            double slow = 0.1 * Math.sin(2 * Math.PI * 27 * t) + 0.2 * Math.sin(2 * Math.PI * t);
            samples[i] = 14 + volts * given + slow + 0.006 * noise.nextGaussian();
        }
        return new Capture(
                interval, List.of(Lane.of("supply", LaneRole.SUPPLY, "V", "battery", samples)));
    }

    private static RippleStudy.Judgement judged(double hertz, double volts, boolean lost) {
        return RippleStudy.judge(capture(hertz, volts, lost, INTERVAL, 0.5)).orElseThrow();
    }

    @Test
    void sixPulsesAreEvenAndAGapIsALostDiodeAtAnyIdle() {
        for (double hertz = 150; hertz <= 360; hertz += 30) {
            for (double volts : new double[] {0.2, 0.4, 0.8}) {
                RippleStudy.Judgement whole = judged(hertz, volts, false);
                assertThat(whole.outcome()).as("%s Hz, %s V", hertz, volts).isEqualTo("even");
                assertThat(whole.holds()).isTrue();
                assertThat(whole.hertz()).isCloseTo(6 * hertz, within(3.0));
                RippleStudy.Judgement lost = judged(hertz, volts, true);
                assertThat(lost.outcome()).as("%s Hz, %s V", hertz, volts).isEqualTo("gap");
                assertThat(lost.hertz()).as("once in each period").isCloseTo(hertz, within(3.0));
                assertThat(lost.volts()).isGreaterThan(4 * whole.volts());
            }
        }
    }

    @Test
    void whatGivesNothingDoesNotPulse() {
        RippleStudy.Judgement none = judged(0, 0, false);
        assertThat(none.outcome()).isEqualTo("none");
        assertThat(none.sentence()).contains("the alternator gives nothing");
    }

    @Test
    void whatCannotBeToldIsSaid() {
        Capture slow = capture(200, 0.4, true, 1e-3, 0.5);
        assertThat(RippleStudy.judge(slow)).isEmpty();
        assertThat(RippleStudy.whyNot(slow).orElseThrow())
                .isEqualTo(
                        "It has a sample every 1.00 ms for 0.50 s; expected one every 0.2 ms or faster, for 0.1 s or longer.");
        Capture other =
                new Capture(
                        INTERVAL,
                        List.of(Lane.of("p", LaneRole.POINT, "V", "p", new double[9000])));
        assertThat(RippleStudy.whyNot(other)).contains("It needs a lane at the battery itself.");
    }
}
