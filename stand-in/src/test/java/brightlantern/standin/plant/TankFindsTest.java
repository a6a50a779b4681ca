package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.take.Take;
import brightlantern.core.tank.TankTest;
import brightlantern.core.tank.TankTest.Outcome;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The leak test's verdict against random tank systems; their truth is known here alone. */
class TankFindsTest {
    private static final TankTest.Spec SPEC = new TankTest.Spec(0.5, 2.2, 5);
    private static final double SAMPLE_SECONDS = 0.2;
    private static final double LIMIT_MM = 0.5;

    /** A hole so near to the limit may rightly be told as either. */
    private static final double NEAR_MM = 0.05;

    private static TankTest.Verdict test(TankSystem.Make make, long seed) {
        TankSystem tank = new TankSystem(make, "tank", seed);
        Map<String, List<double[]>> samples = new TreeMap<>();
        tank.begin();
        for (double t = 0; tank.testing() || t < 1; t += SAMPLE_SECONDS) {
            tank.advance(SAMPLE_SECONDS);
            double now = t;
            tank.sensors()
                    .forEach(
                            (id, s) ->
                                    samples.computeIfAbsent(id, i -> new ArrayList<>())
                                            .add(new double[] {now, s.getAsDouble()}));
        }
        return TankTest.judge(take(samples), SPEC);
    }

    private static Take take(Map<String, List<double[]>> samples) {
        Map<String, Take.Column> columns = new TreeMap<>();
        samples.forEach(
                (id, s) ->
                        columns.put(
                                id,
                                new Take.Column(
                                        s.stream().mapToDouble(p -> p[0]).toArray(),
                                        s.stream().mapToDouble(p -> p[1]).toArray())));
        return new Take(columns, List.of());
    }

    private record Truth(TankSystem.Make make, Outcome outcome) {}

    private static Truth random(Random r) {
        double litres = 6 + 50 * r.nextDouble();
        double flow = 12.6 * (1 + 0.04 * r.nextGaussian());
        double vapour = 0.3 * r.nextDouble();
        double offset = 0.03 * r.nextGaussian();
        double hole = 0;
        double purgeHole = 0;
        double reference = LIMIT_MM;
        boolean shut = false;
        boolean vent = false;
        Outcome outcome = Outcome.TIGHT;
        switch (r.nextInt(9)) {
            case 0 -> {
                shut = true;
                outcome = Outcome.PURGE_SHUT;
            }
            case 1 -> {
                purgeHole = 2 + 0.4 * r.nextDouble();
                outcome = Outcome.PURGE_OPEN;
            }
            case 2 -> {
                vent = true;
                outcome = Outcome.VENT_OPEN;
            }
            case 3 -> {
                flow *= 0.25 + 0.25 * r.nextDouble();
                outcome = Outcome.PUMP_WEAK;
            }
            case 4 -> {
                flow *= 0.05 * r.nextDouble();
                outcome = Outcome.PUMP_DEAD;
            }
            case 5 -> {
                reference = 0.1 + 0.1 * r.nextDouble();
                outcome = Outcome.REFERENCE_BLOCKED;
            }
            default -> {
                hole = 2 * r.nextDouble();
                outcome = hole > LIMIT_MM ? Outcome.LEAK : Outcome.TIGHT;
            }
        }
        return new Truth(
                new TankSystem.Make(
                        litres, flow, 5, reference, hole, purgeHole, shut, vent, vapour, offset),
                outcome);
    }

    @Test
    void randomVehiclesAreJudgedRight() {
        Random r = new Random(20);
        int right = 0;
        int all = 300;
        Map<String, Integer> table = new TreeMap<>();
        List<Double> sizes = new ArrayList<>();
        for (int i = 0; i < all; i++) {
            Truth truth = random(r);
            TankTest.Verdict verdict = test(truth.make(), i);
            boolean near =
                    Math.abs(truth.make().holeMm() - LIMIT_MM) < NEAR_MM
                            && List.of(Outcome.TIGHT, Outcome.LEAK).contains(verdict.outcome());
            right += near || verdict.outcome() == truth.outcome() ? 1 : 0;
            table.merge(
                    truth.outcome().id() + " told as " + verdict.outcome().id(), 1, Integer::sum);
            if (verdict.outcome() == Outcome.LEAK && truth.outcome() == Outcome.LEAK) {
                sizes.add(Math.abs(verdict.hole() - truth.make().holeMm()));
            }
            assertThat(truth.make().holeMm() >= 2 * LIMIT_MM && verdict.outcome() == Outcome.TIGHT)
                    .as("a hole of %.2f mm told as tight", truth.make().holeMm())
                    .isFalse();
        }
        System.out.println("of " + all + " tank systems " + right + " judged right");
        table.forEach((what, n) -> System.out.println("of those: " + what + " " + n));
        assertThat(sizes.stream().mapToDouble(d -> d).average().orElse(9))
                .as("mean error of a hole's size, mm")
                .isLessThan(0.08);
        assertThat(right).isGreaterThanOrEqualTo(all * 95 / 100);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5})
    void healthyOnesAreTightAndTheLeakingPurgeValveIsALeak(int seed) {
        TankSystem.Make healthy = TankSystem.Make.healthy(new Random(seed));
        assertThat(test(healthy, seed).outcome()).isEqualTo(Outcome.TIGHT);
        TankTest.Verdict leaking = test(healthy.purgeHole(1.4), seed);
        assertThat(leaking.outcome()).isEqualTo(Outcome.LEAK);
        assertThat(leaking.hole()).isBetween(1.2, 1.6);
        assertThat(leaking.phases())
                .extracting(TankTest.Found::phase)
                .containsExactly(TankTest.Phase.values());
    }

    @Test
    void whatDidNotRunWholeOrLacksAValueIsNotJudged() {
        Take empty = new Take(Map.of(), List.of());
        assertThat(TankTest.judge(empty, SPEC).outcome()).isEqualTo(Outcome.CANNOT_TELL);
        assertThat(TankTest.judge(empty, SPEC).reasons().get(0)).contains("leak.pressure");
        Map<String, List<double[]>> half = new TreeMap<>();
        for (String id : TankTest.VALUES) {
            half.put(id, List.of(new double[] {0, 0}, new double[] {2, 0}, new double[] {4, 0}));
        }
        assertThat(TankTest.judge(take(half), SPEC).reasons().get(0))
                .contains("'reference orifice' is missing");
        TankSystem.Make off = new TankSystem.Make(20, 12.6, 5, 0.5, 0, 0, false, false, 0, 0.8);
        assertThat(test(off, 1).reasons().get(0)).contains("sensor");
    }
}
