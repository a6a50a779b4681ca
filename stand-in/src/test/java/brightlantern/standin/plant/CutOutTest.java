package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.cylinder.CutOut;
import brightlantern.core.cylinder.SignalWheel;
import brightlantern.core.take.Stay;
import brightlantern.core.take.Take;
import brightlantern.standin.StandIns;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Cylinders of the plant's crank switched off one after another, at idle. */
class CutOutTest {
    private static final String SPEED = "engine.speed";
    private static final double STEP = 0.01;

    private static CutOut.Verdict verdict(String vehicle, int seed, int leaking, int rounds) {
        EngineSpec spec = StandIns.engine(vehicle);
        PlainPlant plant = new PlainPlant(1000, 20, 36, 105);
        Crank crank = new Crank(spec, new SignalWheel(60, 2, 90, List.of(0.0)), seed);
        if (leaking > 0) {
            crank.leak(leaking, 12);
        }
        plant.driver(Driver.away().key(2));
        plant.crank();
        List<double[]> rows = new ArrayList<>();
        List<Stay> stays = new ArrayList<>();
        double t = run(plant, crank, rows, 0, 12);
        for (int r = 0; r < rounds; r++) {
            for (int n : spec.order()) {
                double from = t;
                crank.off(n, true);
                t = run(plant, crank, rows, t, 2.2);
                crank.off(n, false);
                stays.add(new Stay(CutOut.CUT + n, from, t));
                t = run(plant, crank, rows, t, 5);
            }
        }
        Take.Column speed =
                new Take.Column(
                        rows.stream().mapToDouble(x -> x[0]).toArray(),
                        rows.stream().mapToDouble(x -> x[1]).toArray());
        return CutOut.judge(new Take(Map.of(SPEED, speed), List.of()), SPEED, "", stays);
    }

    private static double run(
            PlainPlant plant, Crank crank, List<double[]> rows, double from, double seconds) {
        double t = from;
        for (int i = 0; i < Math.round(seconds / STEP); i++) {
            plant.step(STEP);
            crank.step(plant, STEP);
            t += STEP;
            if (i % 10 == 0) {
                rows.add(new double[] {t, plant.rpm() + crank.droop()});
            }
        }
        return t;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8})
    void theLeakingCylinderIsHardlyMissedAndAHealthyEngineMissesEach(int seed) {
        CutOut.Verdict leaking = verdict("stonebarrow-wl9", seed, 5, 2);
        assertThat(leaking.outcome()).as(leaking.reasons().toString()).isEqualTo("weak-5");
        CutOut.Verdict healthy = verdict("stonebarrow-wl9", seed, 0, 2);
        assertThat(healthy.outcome()).as(healthy.reasons().toString()).isEqualTo("even");
        assertThat(healthy.passes()).contains(true);
        CutOut.Verdict petrol = verdict("oriel-finch", seed, 0, 2);
        assertThat(petrol.outcome()).as(petrol.reasons().toString()).isEqualTo("even");
    }
}
