package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** One capture laid under another. */
class CaptureAlignmentTest {
    private static final double INTERVAL = 1e-3;

    private static CaptureAlignment.Turned turned(List<double[]> cycles, double... samples) {
        Capture capture =
                new Capture(INTERVAL, List.of(Lane.of("lane", LaneRole.OTHER, "V", "", samples)));
        return new CaptureAlignment.Turned(capture, new EngineCycles(cycles, 0));
    }

    /** Cycles that become quicker. */
    private static List<double[]> cycles(double from, double length, double quicker) {
        List<double[]> all = new ArrayList<>();
        double at = from;
        for (int i = 0; i < 5; i++) {
            double its = length * Math.pow(quicker, i);
            all.add(new double[] {at, at + its});
            at += its;
        }
        return all;
    }

    @Test
    void byAngleEachPartOfACycleLiesUnderTheSameOfTheOther() {
        CaptureAlignment laid =
                CaptureAlignment.of(
                        CaptureAlignment.By.ANGLE,
                        turned(cycles(0.1, 0.2, 1), new double[1200]),
                        turned(cycles(0.03, 0.12, 0.9), new double[1200]));
        // a quarter into the third cycle of either
        double third = 0.03 + 0.12 + 0.12 * 0.9;
        assertThat(laid.other().applyAsDouble(0.1 + 2.25 * 0.2))
                .isCloseTo(third + 0.25 * 0.12 * 0.81, within(1e-9));
        assertThat(laid.other().applyAsDouble(0.05)).isNaN();
        assertThat(laid.moved(0.2).other().applyAsDouble(0.3 + 2.25 * 0.2))
                .isCloseTo(third + 0.25 * 0.12 * 0.81, within(1e-9));
    }

    @Test
    void withoutCyclesItSaysSoAndLiesAtTheBeginning() {
        CaptureAlignment laid =
                CaptureAlignment.of(
                        CaptureAlignment.By.ANGLE,
                        turned(List.of(), new double[100]),
                        turned(cycles(0, 0.02, 1), new double[100]));
        assertThat(laid.words()).contains("needs a lane in both");
        assertThat(laid.other().applyAsDouble(0.04)).isEqualTo(0.04);
    }

    @Test
    void alikeMovesIt() {
        Random random = new Random(4);
        double[] first = new double[4000];
        for (int i = 1; i < first.length; i++) {
            first[i] = 0.95 * first[i - 1] + random.nextGaussian();
        }
        double[] second = new double[3600];
        for (int i = 0; i < second.length; i++) {
            second[i] = first[i + 130] + 0.05 * random.nextGaussian();
        }
        CaptureAlignment laid =
                CaptureAlignment.of(
                        CaptureAlignment.By.ALIKE,
                        turned(List.of(), first),
                        turned(List.of(), second));
        assertThat(laid.words()).startsWith("Moved by +130.000 ms");
        assertThat(laid.other().applyAsDouble(0.5)).isCloseTo(0.37, within(1e-9));
    }

    @Test
    void columnsShowNothingBeforeAndBehind() {
        CaptureAlignment laid =
                CaptureAlignment.of(
                                CaptureAlignment.By.START,
                                turned(List.of(), new double[20]),
                                turned(List.of(), new double[10]))
                        .moved(0.005);
        Short[] columns =
                laid.columns(
                        new Extents(new short[] {1, 2, 3, 4, 5, 6, 7, 8, 9, 10}),
                        INTERVAL,
                        0,
                        0.02,
                        4);
        assertThat(columns)
                .containsExactly(
                        null, null, (short) 1, (short) 5, (short) 6, (short) 10, null, null);
    }

    @Test
    void cyclesAreEmptyWhereNoLaneTellsThem() {
        assertThat(EngineCycles.of(turned(List.of(), 1, 2, 3).capture(), Optional.empty()).all())
                .isEmpty();
    }
}
