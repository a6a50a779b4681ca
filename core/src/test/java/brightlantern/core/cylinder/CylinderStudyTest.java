package brightlantern.core.cylinder;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.take.Take;
import brightlantern.core.vehicle.Vehicles;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CylinderStudyTest {
    private static final Cylinders SIX =
            Vehicles.named("stonebarrow-wl9").cylinders().orElseThrow();

    /** What the crank of one weak cylinder lends to its neighbours is not taken for theirs. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            quoteCharacter = '"',
            textBlock =
                    """
                    "0.1 -0.2 0.3 0 0.1 -0.3", even
                    "0.98 3.26 -13.79 1.54 3.99 4.01", weak-3
                    "0.04 4.67 -15.89 1.50 3.57 6.12", weak-3
                    "0.2 0.1 -1.9 0.2 0.3 0.1", weak-3
                    "2.1 4.4 -9.0 2.2 -8.1 4.0", uneven
                    "1.0 2.0 -9.0 1.5 -4.0 2.5", uneven
                    """)
    void weakIsWhatIsNotLent(String means, String outcome) {
        CylinderStudy.Verdict verdict = CylinderStudy.study(take(means, 20), SIX).orElseThrow();
        assertThat(verdict.outcome()).as(verdict.sentence()).isEqualTo(outcome);
        assertThat(verdict.seconds()).isEqualTo(19.9);
    }

    @Test
    void tooShortIsToldAndNotJudged() {
        Take brief = take("0 0 -9 0 0 0", 5);
        assertThat(CylinderStudy.study(brief, SIX)).isEmpty();
        assertThat(CylinderStudy.whyNot(brief, SIX, Vehicles.named("stonebarrow-wl9").signals()))
                .contains("held for 5 s, needs 8 s");
    }

    private static Take take(String means, int seconds) {
        double[] mean = Arrays.stream(means.split(" ")).mapToDouble(Double::parseDouble).toArray();
        Map<String, Take.Column> columns = new HashMap<>();
        double[] times = IntStream.range(0, seconds * 10).mapToDouble(i -> i / 10.0).toArray();
        for (int n = 1; n <= mean.length; n++) {
            columns.put(SIX.deviationOf(n), level(times, mean[n - 1]));
            columns.put(SIX.misfiresOf(n), level(times, 0));
        }
        columns.put(SIX.speed(), level(times, 800));
        SIX.when().forEach(c -> columns.put(c.value(), level(times, c.min().orElse(0.0))));
        return new Take(columns, List.of());
    }

    private static Take.Column level(double[] times, double value) {
        double[] values = new double[times.length];
        Arrays.fill(values, value);
        return new Take.Column(times, values);
    }
}
