package brightlantern.core.battery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.take.Take;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Packs of 96 cells, worked out by hand: U = U0 − I·R. */
class PackStudyTest {
    private static final int SAMPLES = 30;

    private final Random random = new Random(11);
    private final double[] open = random.doubles(96, 3.798, 3.806).toArray();
    private final double[] ohm = random.doubles(96, 0.00105, 0.00115).toArray();

    private PackStudy.Verdict judge(double amperes) {
        double[] t = new double[SAMPLES];
        double[] amps = new double[SAMPLES];
        for (int i = 0; i < SAMPLES; i++) {
            t[i] = i;
            amps[i] = i < SAMPLES / 2 ? 0 : amperes;
        }
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        columns.put("pack.current", new Take.Column(t, amps));
        for (int c = 0; c < 96; c++) {
            double[] volts = new double[SAMPLES];
            for (int i = 0; i < SAMPLES; i++) {
                volts[i] = open[c] - amps[i] * ohm[c] + 0.0005 * random.nextGaussian();
            }
            columns.put("cell." + (c + 1), new Take.Column(t, volts));
        }
        return PackStudy.judge(new Take(columns, List.of()), "cell.", "pack.current", 0.025, 0.5);
    }

    @Test
    void healthyCellsStayTogether() {
        for (double amperes : new double[] {4, 11, -11, 93}) {
            assertThat(judge(amperes).outcome()).isEqualTo(PackStudy.TOGETHER);
        }
    }

    @Test
    void aBadLeadIsSteepAndRightAtRest() {
        ohm[36] += 0.00208;
        PackStudy.Verdict verdict = judge(93);
        assertThat(verdict.outcome()).isEqualTo(PackStudy.WITH_CURRENT);
        assertThat(verdict.sentence()).startsWith("Cell 37 drops 3.2 mV with each ampere");
        assertThat(verdict.cells().get(36).milliohms()).isCloseTo(1000 * ohm[36], within(0.05));
        assertThat(judge(-11).sentence()).startsWith("Cell 37 ");
    }

    @Test
    void aWeakCellIsLowAtRest() {
        open[11] -= 0.08;
        PackStudy.Verdict verdict = judge(40);
        assertThat(verdict.outcome()).isEqualTo(PackStudy.AT_REST);
        assertThat(verdict.sentence()).startsWith("Cell 12 lies -");
    }

    @Test
    void withoutCurrentNothingIsTold() {
        PackStudy.Verdict verdict = judge(2);
        assertThat(verdict.outcome()).isEqualTo(PackStudy.TOO_LITTLE);
        assertThat(verdict.sentence()).contains("2.0 A only");
    }
}
