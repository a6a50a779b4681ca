package brightlantern.core.study.trim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.take.Columns;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TrimStudyTest {
    private static final VehicleDescription FINCH = Vehicles.named("oriel-finch");
    private static final TrimSet BANK = FINCH.trims().get(0);

    /** Half a minute of idle, then as long under load, with these trims. */
    private static Take take(double idleShort, double idleLong, double loadShort, double loadLong) {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        columns.put("engine.speed", Columns.of(60, t -> t < 30 ? 800 : 2400));
        columns.put("vehicle.speed", Columns.of(60, t -> t < 30 ? 0 : 80));
        columns.put("coolant", Columns.of(60, t -> 90));
        columns.put("engine.load", Columns.of(60, t -> t < 30 ? 2 : 40));
        columns.put("trim.short", Columns.of(60, t -> t < 30 ? idleShort : loadShort));
        columns.put("trim.long", Columns.of(60, t -> t < 30 ? idleLong : loadLong));
        return new Take(columns, List.of());
    }

    @ParameterizedTest
    @CsvSource({
        "1, 1, -1, 2, normal",
        "12, 0, 1, 0, lean-idle",
        "0, 12, 0, 1, lean-idle",
        "6, 6, 0, 0, lean-idle",
        "1, 0, 5, 9, lean-load",
        "10, 4, 9, 5, lean-all",
        "-12, -3, 0, 1, rich-idle",
        "-2, 0, -9, -9, rich-all"
    })
    void thePatternOverTheRegimesTellsWhereToLook(
            double idleShort, double idleLong, double loadShort, double loadLong, String outcome) {
        TrimStudy.Verdict verdict =
                TrimStudy.study(take(idleShort, idleLong, loadShort, loadLong), BANK).orElseThrow();
        assertThat(verdict.outcome()).isEqualTo(outcome);
        assertThat(verdict.idle())
                .isCloseTo(100 * ((1 + idleShort / 100) * (1 + idleLong / 100) - 1), within(0.01));
        assertThat(verdict.reasons()).hasSizeGreaterThanOrEqualTo(2);
    }

    @Test
    void neitherTrimAloneShowsWhatBothTogetherDo() {
        TrimStudy.Verdict verdict = TrimStudy.study(take(5, 5, 0, 0), BANK).orElseThrow();
        assertThat(verdict.outcome()).isEqualTo(TrimStudy.LEAN_IDLE);
        assertThat(verdict.regimes().get(0).shortTerm()).isLessThan(BANK.lean());
        assertThat(verdict.regimes().get(0).longTerm()).isLessThan(BANK.lean());
    }

    @Test
    void whatIsMissingOrTooShortIsNamed() {
        Take whole = take(1, 1, 1, 1);
        Map<String, Take.Column> columns = new LinkedHashMap<>(whole.columns());
        columns.put("engine.load", Columns.of(60, t -> 2));
        Take idleOnly = new Take(columns, List.of());
        assertThat(TrimStudy.study(idleOnly, BANK)).isEmpty();
        assertThat(TrimStudy.whyNot(idleOnly, BANK, FINCH.signals()))
                .contains("Under load (load 25 to 95 %")
                .contains("less than 12 s");
        columns.remove("trim.long");
        assertThat(TrimStudy.whyNot(new Take(columns, List.of()), BANK, FINCH.signals()))
                .startsWith("Not recorded: Long-term fuel trim");
        columns.put("trim.long", Columns.of(60, t -> Double.NaN));
        assertThat(TrimStudy.study(new Take(columns, List.of()), BANK)).isEmpty();
    }

    @Test
    void vapourAfterFillingUpMakesTheMixtureRicher() {
        assertThat(TrimStudy.refuelled(11, -6)).isEqualTo("richer");
        assertThat(TrimStudy.refuelled(11, 10)).isEqualTo("as-before");
        assertThat(TrimStudy.refuelled(0, 6)).as("leaner is not richer").isEqualTo("as-before");
    }

    /** Exactly the law that it assumes: L takes S over with τ = 60 s, towards 12 %. */
    @Test
    void theCreepByHand() {
        double[] t = new double[400];
        double[] s = new double[400];
        double[] l = new double[400];
        for (int i = 0; i < 400; i++) {
            t[i] = i * 0.1;
            s[i] = 12 * Math.exp(-t[i] / 60);
            l[i] = 12 - s[i];
        }
        TrimCreep creep = TrimCreep.fit(t, s, l).orElseThrow();
        assertThat(creep.settled()).isCloseTo(12, within(0.5));
        assertThat(creep.tau()).isCloseTo(60, within(1.0));
        double left = creep.settled() - creep.now();
        assertThat(creep.secondsLeft()).isCloseTo(60 * Math.log(left), within(3.0));
        assertThat(creep.over()).isFalse();
    }

    @Test
    void theSettledTrimIsForetoldFromTheFirstThirdOverFiftyNoisyRuns() {
        Random random = new Random(20261123);
        double worst = 0;
        for (int run = 0; run < 50; run++) {
            double goal = -15 + 30 * random.nextDouble();
            double tau = 40 + 120 * random.nextDouble();
            // a creep is as good as over after three time constants
            int n = (int) (tau / 0.1);
            double[] t = new double[n];
            double[] s = new double[n];
            double[] l = new double[n];
            double learned = 0;
            for (int i = 0; i < n; i++) {
                t[i] = i * 0.1;
                double wanted = 100 * ((1 + goal / 100) / (1 + learned / 100) - 1);
                s[i] = wanted * (1 - Math.exp(-t[i] / 0.8)) + random.nextGaussian();
                learned += s[i] * 0.1 / tau;
                l[i] = learned + 0.1 * random.nextGaussian();
            }
            TrimCreep creep = TrimCreep.fit(t, s, l).orElseThrow();
            worst = Math.max(worst, Math.abs(creep.settled() - goal));
        }
        System.out.printf(
                "settled trim foretold from the first third, 50 runs: worst %.2f points%n", worst);
        assertThat(worst).isLessThan(1.0);
    }

    @Test
    void tooFewReadingsForetellNothing() {
        assertThat(TrimCreep.fit(new double[5], new double[5], new double[5])).isEmpty();
        double[] nan = new double[100];
        Arrays.fill(nan, Double.NaN);
        assertThat(TrimCreep.fit(new double[100], nan, nan)).isEmpty();
    }
}
