package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** What is computed by columns comes to what each hypothesis by itself comes to. */
class OutcomesTest {
    private static final int SIZE = 40;

    /** Arrays over hypotheses of which most neighbours foretell the same. */
    private static List<double[]> drawn(Random random, int outcomes) {
        List<double[]> each = new ArrayList<>();
        for (int o = 0; o < outcomes; o++) {
            each.add(new double[SIZE]);
        }
        for (int i = 0; i < SIZE; i++) {
            boolean again = i > 0 && random.nextInt(3) > 0;
            double[] raw = random.doubles(outcomes).toArray();
            double sum = Arrays.stream(raw).sum();
            for (int o = 0; o < outcomes; o++) {
                each.get(o)[i] = again ? each.get(o)[i - 1] : raw[o] / sum;
            }
        }
        return each;
    }

    @RepeatedTest(20)
    void nothingIsLostInColumns(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        List<double[]> each = drawn(random, 2 + random.nextInt(5));
        Outcomes outcomes = Outcomes.of(each);
        assertThat(outcomes.columns()).isLessThan(SIZE);
        double[] weights = random.doubles(SIZE).toArray();
        double[] by = outcomes.byColumn(weights);
        for (int o = 0; o < each.size(); o++) {
            assertThat(outcomes.each().get(o)).isEqualTo(each.get(o));
            double sum = 0;
            for (int i = 0; i < SIZE; i++) {
                sum += weights[i] * each.get(o)[i];
                assertThat(outcomes.at(o, i)).isEqualTo(each.get(o)[i]);
            }
            double columns = 0;
            for (int c = 0; c < by.length; c++) {
                columns += by[c] * outcomes.of(o)[c];
            }
            assertThat(columns).isCloseTo(sum, within(1e-12 * sum));
        }
    }

    @RepeatedTest(20)
    void besideAFaultTheOneDecidesThatGoesFurther(RepetitionInfo nth) {
        Random random = new Random(100 + nth.getCurrentRepetition());
        List<double[]> each = drawn(random, 3);
        int first = random.nextInt(SIZE);
        int healthy = SIZE - 1;
        List<double[]> both = Outcomes.of(each).beside(first, healthy).each();
        for (int i = 0; i < SIZE; i++) {
            double far = 0;
            double its = 0;
            for (double[] chance : each) {
                far += Math.abs(chance[first] - chance[healthy]);
                its += Math.abs(chance[i] - chance[healthy]);
            }
            int decides = its < far ? first : i;
            for (int o = 0; o < each.size(); o++) {
                assertThat(both.get(o)[i]).isEqualTo(each.get(o)[decides]);
            }
        }
    }

    @Test
    void oneMayForetellSomethingOfItsOwn() {
        Outcomes outcomes =
                Outcomes.of(List.of(new double[] {0.2, 0.2, 0.2}, new double[] {0.8, 0.8, 0.8}))
                        .with(1, new double[] {0.5, 0.5});
        assertThat(outcomes.each().get(0)).containsExactly(0.2, 0.5, 0.2);
        assertThat(outcomes.each().get(1)).containsExactly(0.8, 0.5, 0.8);
    }
}
