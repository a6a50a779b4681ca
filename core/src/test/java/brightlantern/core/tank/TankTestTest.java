package brightlantern.core.tank;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.take.Take;
import brightlantern.core.tank.TankTest.Outcome;
import brightlantern.core.tank.TankTest.Phase;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;

/** The leak test on curves that were drawn by hand. */
class TankTestTest {
    private static final TankTest.Spec SPEC = new TankTest.Spec(0.5, 2.2, 5);
    private static final double STEP = 0.1;

    private final Map<String, List<double[]>> samples = new LinkedHashMap<>();
    private double now;

    /** A phase in which pump, vent and purge stay; vacuum over the seconds since it began. */
    private TankTestTest phase(
            double seconds, int pump, int vent, int purge, DoubleUnaryOperator vacuum) {
        for (double t = 0; t < seconds; t += STEP) {
            double[] row = {-vacuum.applyAsDouble(t), pump, vent, purge};
            for (int i = 0; i < row.length; i++) {
                samples.computeIfAbsent(TankTest.VALUES.get(i), id -> new ArrayList<>())
                        .add(new double[] {now, row[i]});
            }
            now += STEP;
        }
        return this;
    }

    private static DoubleUnaryOperator towards(double end, double seconds) {
        return t -> end * (1 - Math.exp(-t / seconds));
    }

    private static DoubleUnaryOperator steady(double vacuum) {
        return t -> vacuum;
    }

    /** A whole test: what the system was drawn to, and what was left with the purge open. */
    private TankTestTest whole(double reference, double system, double purged) {
        return phase(6, 0, 0, 0, steady(0))
                .phase(10, 1, 0, 0, towards(reference, 0.6))
                .phase(60, 1, 1, 0, towards(system, 8))
                .phase(12, 1, 1, 1, t -> purged + (system - purged) * Math.exp(-t))
                .phase(10, 1, 0, 0, towards(reference, 0.6))
                .phase(6, 0, 0, 0, steady(0));
    }

    private TankTest.Verdict judged() {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        samples.forEach(
                (id, s) ->
                        columns.put(
                                id,
                                new Take.Column(
                                        s.stream().mapToDouble(p -> p[0]).toArray(),
                                        s.stream().mapToDouble(p -> p[1]).toArray())));
        return TankTest.judge(new Take(columns, List.of()), SPEC);
    }

    @Test
    void asTightAsTheReferenceIsTight() {
        TankTest.Verdict verdict = whole(2.2, 2.5, 0.01).judged();
        assertThat(verdict.outcome()).isEqualTo(Outcome.TIGHT);
        assertThat(verdict.phases())
                .extracting(TankTest.Found::phase)
                .containsExactly(Phase.values());
        assertThat(verdict.reasons()).anyMatch(r -> r.contains("Opening the purge valve left"));
    }

    /** With both at the same vacuum pump and hole pass what pump and reference passed. */
    @Test
    void theSizeOfAHoleFollowsFromEqualFlows() {
        assertThat(TankTest.hole(SPEC, 2.2, 2.2)).isCloseTo(0.5, within(1e-9));
        // half the vacuum: flow (1 - 1.1/5) / (1 - 2.2/5) = 1.393, root of pressures 1.414
        assertThat(TankTest.hole(SPEC, 2.2, 1.1))
                .isCloseTo(0.5 * Math.sqrt(1.39286 * 1.41421), within(1e-4));
        TankTest.Verdict verdict = whole(2.2, 1.1, 0.01).judged();
        assertThat(verdict.outcome()).isEqualTo(Outcome.LEAK);
        assertThat(verdict.hole()).isCloseTo(0.702, within(0.01));
        assertThat(verdict.sentence()).isEqualTo("The system leaks like a hole of 0.7 mm.");
    }

    @Test
    void aSystemThatIsStillBeingDrawnDownIsForetold() {
        TankTest.Verdict slow =
                phase(6, 0, 0, 0, steady(0))
                        .phase(10, 1, 0, 0, towards(2.2, 0.6))
                        .phase(60, 1, 1, 0, towards(2.6, 40))
                        .judged();
        assertThat(slow.phases().get(2).settled()).isLessThan(2);
        assertThat(slow.phases().get(2).foretold()).isCloseTo(2.6, within(0.15));
        assertThat(slow.outcome()).isEqualTo(Outcome.TIGHT);
        assertThat(slow.reasons()).anyMatch(r -> r.contains("was heading for"));
    }

    @Test
    void stuckPartsAreToldFromALeak() {
        assertThat(whole(2.2, 2.5, 2.5).judged().outcome()).isEqualTo(Outcome.PURGE_SHUT);
    }

    @Test
    void aPurgeValveThatStandsOpenChangesNothingWhenItIsOpened() {
        assertThat(whole(2.2, 0.012, 0.012).judged().outcome()).isEqualTo(Outcome.PURGE_OPEN);
    }

    @Test
    void noVacuumAtAllIsTheVent() {
        assertThat(whole(2.2, 0.0001, 0.0001).judged().outcome()).isEqualTo(Outcome.VENT_OPEN);
    }

    @Test
    void theReferenceTellsOfThePump() {
        assertThat(whole(0.02, 0.02, 0).judged().outcome()).isEqualTo(Outcome.PUMP_DEAD);
        samples.clear();
        assertThat(whole(1.0, 1.0, 0).judged().outcome()).isEqualTo(Outcome.PUMP_WEAK);
        samples.clear();
        assertThat(whole(4.2, 4.4, 0).judged().outcome()).isEqualTo(Outcome.REFERENCE_BLOCKED);
    }

    @Test
    void aReferenceThatMovedMeanwhileCannotTell() {
        TankTest.Verdict moved =
                phase(6, 0, 0, 0, steady(0))
                        .phase(10, 1, 0, 0, towards(2.2, 0.6))
                        .phase(60, 1, 1, 0, towards(1.1, 8))
                        .phase(12, 1, 1, 1, steady(0.01))
                        .phase(10, 1, 0, 0, towards(1.6, 0.6))
                        .judged();
        assertThat(moved.outcome()).isEqualTo(Outcome.CANNOT_TELL);
        assertThat(moved.reasons().get(0)).contains("changed meanwhile, from 2.20 to 1.60");
        assertThat(moved.hole()).isNaN();
    }

    @Test
    void theNewestOfTwoTestsCounts() {
        whole(2.2, 1.1, 0.01).whole(2.4, 2.5, 0.01);
        TankTest.Verdict newest = judged();
        assertThat(newest.outcome()).isEqualTo(Outcome.TIGHT);
        assertThat(newest.phases())
                .extracting(TankTest.Found::phase)
                .containsExactly(Phase.values());
        assertThat(newest.reasons().get(0)).contains("Reference orifice: 2.40 kPa");
    }
}
