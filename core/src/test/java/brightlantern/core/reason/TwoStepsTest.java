package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Three suspects, each as likely, and checks that tell them apart. */
class TwoStepsTest {
    private final Hypotheses hypotheses =
            new Hypotheses(
                    IntStream.range(0, 3).mapToObj(i -> suspect("part-" + i)).toList(), List.of());
    private final double[] weights = {1 / 3.0, 1 / 3.0, 1 / 3.0, 0, 0};
    private final Map<String, List<double[]>> outcomes =
            Map.of(
                    "hint",
                    List.of(row(0.9, 0.3, 0.3), row(0.1, 0.7, 0.7)),
                    "all",
                    List.of(row(1, 0, 0), row(0, 1, 0), row(0, 0, 1)),
                    "first",
                    List.of(row(1, 0, 0), row(0, 1, 1)),
                    "second",
                    List.of(row(0, 1, 0), row(1, 0, 1)));

    private static Suspect suspect(String id) {
        return new Suspect(
                id,
                id,
                1,
                0,
                0,
                Optional.empty(),
                Map.of(),
                Map.of(),
                Map.of(),
                List.of(),
                new Repair(id, id, 30, 60, "part", "none"));
    }

    private static double[] row(double a, double b, double c) {
        return new double[] {a, b, c, 0, 0};
    }

    private NextCheck check(String id, double minutes) {
        double bits = 0;
        for (double[] chance : outcomes.get(id)) {
            double p = (chance[0] + chance[1] + chance[2]) / 3;
            for (int i = 0; i < 3; i++) {
                bits += chance[i] > 0 ? chance[i] / 3 * Math.log(chance[i] / p) / Math.log(2) : 0;
            }
        }
        return new NextCheck(
                new Check.Look(id, id, "trace", List.of(id), minutes, "", ""),
                bits,
                0,
                bits / (minutes + CheckPlanner.MINUTES_ASIDE),
                List::of);
    }

    private List<NextCheck> ordered(NextCheck... checks) {
        List<NextCheck> byRate = new ArrayList<>(List.of(checks));
        byRate.sort(Comparator.comparingDouble(NextCheck::bitsPerMinute).reversed());
        return new TwoSteps(hypotheses)
                .ordered(byRate, weights, c -> Outcomes.of(outcomes.get(c.check().id())));
    }

    @Test
    void aHintThatLeavesAllToBeDoneDoesNotComeFirstHoweverQuickItIs() {
        NextCheck hint = check("hint", 0);
        NextCheck all = check("all", 13);
        assertThat(hint.bitsPerMinute()).isGreaterThan(all.bitsPerMinute());
        assertThat(ordered(hint, all)).first().satisfies(c -> isCosting(c, "all", 15));
    }

    @Test
    void twoThatTellItTogetherCostBothWhereTheFirstDoesNotTellItAlone() {
        // ten minutes, and in two of three cases eleven more
        assertThat(ordered(check("first", 8), check("second", 9)))
                .first()
                .satisfies(c -> isCosting(c, "first", 10 + 11 * 2 / 3.0));
    }

    private static void isCosting(NextCheck c, String id, double minutes) {
        assertThat(c.check().id()).isEqualTo(id);
        assertThat(c.cost()).isCloseTo(minutes, within(1e-9));
    }
}
