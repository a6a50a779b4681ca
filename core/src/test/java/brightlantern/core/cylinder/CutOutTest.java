package brightlantern.core.cylinder;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.take.Stay;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** A cut-out on takes made by hand: each cylinder off for 2 s, then 3 s of rest. */
class CutOutTest {
    private static final String SPEED = "engine.speed";
    private static final double RATE = 0.1;

    /**
     * @param drops loss of speed in each stay, cylinders in turn, round after round
     */
    private static CutOut.Verdict judged(int cylinders, double... drops) {
        List<double[]> rows = new ArrayList<>();
        List<Stay> stays = new ArrayList<>();
        double t = steady(rows, 0, 3, 800);
        for (int i = 0; i < drops.length; i++) {
            stays.add(new Stay(CutOut.CUT + (i % cylinders + 1), t, t + 2));
            t = steady(rows, t, 2, 800 - drops[i]);
            stays.add(new Stay("rest", t, t + 3));
            t = steady(rows, t, 3, 800);
        }
        Take.Column column =
                new Take.Column(
                        rows.stream().mapToDouble(r -> r[0]).toArray(),
                        rows.stream().mapToDouble(r -> r[1]).toArray());
        Take.Column shakes =
                new Take.Column(
                        rows.stream().mapToDouble(r -> r[0]).toArray(),
                        rows.stream().mapToDouble(r -> r[1] < 799 ? 12 : 3).toArray());
        return CutOut.judge(
                new Take(Map.of(SPEED, column, "roughness", shakes), List.of()),
                SPEED,
                "roughness",
                stays);
    }

    private static double steady(List<double[]> rows, double from, double seconds, double rpm) {
        double t = from;
        for (; t < from + seconds - RATE / 2; t += RATE) {
            rows.add(new double[] {t, rpm});
        }
        return t;
    }

    @Test
    void whoeverIsMissedLeastIsWeak() {
        CutOut.Verdict verdict = judged(4, 40, 41, 8, 39, 41, 40, 9, 40);
        assertThat(verdict.outcome()).isEqualTo("weak-3");
        assertThat(verdict.passes()).contains(false);
        assertThat(verdict.cylinders().get(2).rounds()).isEqualTo(2);
        assertThat(verdict.reasons())
                .anyMatch(
                        r ->
                                r.startsWith(
                                        "Without cylinder 3 the engine loses 8.5 rpm (± 0.7 over 2"
                                                + " rounds), 21 % of the middle one; it shakes by 1"));
        assertThat(judged(3, 60, 58, 62).reasons().get(0)).contains("60.0 rpm (one round)");
    }

    @Test
    void alikeIsEvenAndHalfWayIsUneven() {
        assertThat(judged(3, 60, 58, 62).outcome()).isEqualTo("even");
        assertThat(judged(3, 60, 58, 62).passes()).contains(true);
        assertThat(judged(4, 60, 48, 61, 60).outcome()).isEqualTo("uneven");
        assertThat(judged(4, 60, 30, 61, 28).outcome())
                .as("two weak ones name no culprit")
                .isEqualTo("uneven");
    }

    @Test
    void roundsThatDifferTooMuchAreNotJudged() {
        CutOut.Verdict verdict = judged(3, 60, 58, 62, 20, 57, 60);
        assertThat(verdict.outcome()).isEqualTo("cannot-tell");
        assertThat(verdict.passes()).isEmpty();
        assertThat(verdict.sentence()).contains("let the engine settle");
    }

    @Test
    void anEngineThatLosesNothingWasNotSwitchedOff() {
        assertThat(judged(3, 0.3, 0.1, 0.2).sentence()).contains("it was not switched off");
        assertThat(judged(1, 40).sentence()).contains("Fewer than two cylinders");
        assertThat(CutOut.judge(new Take(Map.of(), List.of()), SPEED, "", List.of()).sentence())
                .contains("Engine speed was not recorded");
    }
}
