package brightlantern.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.Noise;
import brightlantern.core.filter.Stretch;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.suspect.Finding;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

class TakeTest {
    private static final VehicleDescription PORTAGE = Vehicles.portage();

    /** Any bits of a double, with those that are no number among them. */
    @RepeatedTest(100)
    void chunksComeBackAsTheyWent(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        double[] t = new double[random.nextInt(50)];
        double[] y = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.137 * i;
            y[i] =
                    random.nextBoolean()
                            ? Double.longBitsToDouble(random.nextLong())
                            : random.nextGaussian() * 1000;
        }
        Take.Column back =
                TakeChunk.read(TakeChunk.write(Map.of("a", new Take.Column(t, y)))).get("a");
        assertThat(back.size()).isEqualTo(y.length);
        for (int i = 0; i < y.length; i++) {
            assertThat(back.seconds(i)).isCloseTo(t[i], within(0.0006));
            assertThat(back.value(i)).isEqualTo(y[i]);
        }
    }

    @RepeatedTest(200)
    void aDamagedChunkIsSaidToBeDamaged(RepetitionInfo nth) {
        byte[] bytes = Noise.bytes(new Random(nth.getCurrentRepetition()), 400);
        try {
            TakeChunk.read(bytes);
        } catch (IllegalArgumentException told) {
            assertThat(told).hasMessageMatching("(?s).+");
        }
    }

    @Test
    void aTornChunkIsRefused() {
        byte[] good =
                TakeChunk.write(
                        Map.of("a", new Take.Column(new double[] {0, 1}, new double[] {5, 6})));
        assertThatThrownBy(() -> TakeChunk.read(Arrays.copyOf(good, good.length / 2)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("torn");
    }

    @Test
    void aDamagedPartCostsOnlyWhatItHeld() {
        List<byte[]> chunks = new ArrayList<>();
        for (int second = 0; second < 4; second++) {
            chunks.add(
                    TakeChunk.write(
                            Map.of(
                                    "a",
                                    new Take.Column(
                                            new double[] {second, second + 0.5},
                                            new double[] {second, 10 * second}))));
        }
        byte[] bad = chunks.get(1).clone();
        bad[bad.length / 2] ^= 0x55;
        chunks.set(1, bad);
        TakeChunk.Joined joined = TakeChunk.join(chunks);
        assertThat(joined.damaged()).isEqualTo(1);
        Take.Column a = joined.columns().get("a");
        assertThat(a.size()).isEqualTo(6);
        assertThat(a.seconds(2)).isEqualTo(2);
        assertThat(a.value(5)).isEqualTo(30);
        chunks.replaceAll(c -> new byte[] {2, 7});
        assertThat(TakeChunk.join(chunks)).isEqualTo(new TakeChunk.Joined(Map.of(), 4));
    }

    /**
     * Whatever one byte is changed to, a chunk is whole or told as damaged; never something else.
     */
    @RepeatedTest(300)
    void oneWrongByteIsNeverTakenForAReading(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        double[] t = new double[40];
        double[] y = new double[40];
        for (int i = 0; i < t.length; i++) {
            t[i] = i / 8.0;
            y[i] = Math.sin(i);
        }
        Map<String, Take.Column> columns =
                Map.of("speed", new Take.Column(t, y), "load", new Take.Column(t, y));
        byte[] chunk = TakeChunk.write(columns);
        chunk[random.nextInt(chunk.length)] ^= (byte) (1 + random.nextInt(255));
        TakeChunk.Joined joined = TakeChunk.join(List.of(chunk));
        if (joined.damaged() == 0) {
            assertThat(joined.columns()).containsOnlyKeys("speed", "load");
            for (int i = 0; i < y.length; i++) {
                assertThat(joined.columns().get("speed").value(i)).isEqualTo(y[i]);
            }
        }
    }

    private static Finding told() {
        return PORTAGE.finding(PORTAGE.follows().get(0).finding()).orElseThrow();
    }

    /**
     * A climb from 5 s to 25 s; boost so many kPa behind its target, vanes so many percent short.
     */
    private static Take climb(double behind, double gap) {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        columns.put("engine.load", Columns.of(30, t -> t > 5 && t < 28 ? 88 : 20));
        columns.put("engine.speed", Columns.of(30, t -> 2600));
        columns.put("torque.limit", Columns.of(30, t -> 0));
        columns.put("vehicle.speed", Columns.of(30, t -> 62));
        columns.put("boost.target", Columns.of(30, t -> 2200));
        columns.put("boost.actual", Columns.of(30, t -> 220 - behind));
        columns.put("vane.command", Columns.of(30, t -> 90));
        columns.put("vane.position", Columns.of(30, t -> 90 - gap));
        return new Take(columns, List.of(new Take.Mark(7, "hill")));
    }

    private static TargetStudy.Verdict study(Take take, Map<String, Double> frame) {
        return TargetStudy.study(take, PORTAGE.follows().get(0), told(), PORTAGE.signals(), frame)
                .orElseThrow();
    }

    @Test
    void targetInHectopascalAndActualInKilopascalAreComparedInOneUnit() {
        TargetStudy.Verdict verdict = study(climb(35, 40), Map.of());
        assertThat(verdict.outcome()).isEqualTo("short");
        assertThat(verdict.worst()).isCloseTo(35, within(1e-9));
        assertThat(verdict.unit()).isEqualTo("kPa");
        assertThat(verdict.fromSeconds()).isCloseTo(5.1, within(0.11));
    }

    @Test
    void anActuatorThatObeysPointsElsewhereAndAFollowerIsFine() {
        assertThat(study(climb(35, 2), Map.of()).outcome()).isEqualTo("reached");
        assertThat(study(climb(5, 2), Map.of()).outcome()).isEqualTo("follows");
    }

    @Test
    void theFreezeFramesConditionsAreTimed() {
        assertThat(
                        study(climb(5, 2), Map.of("engine.speed", 2500.0, "engine.load", 90.0))
                                .frameSeconds())
                .isGreaterThan(15);
        assertThat(study(climb(5, 2), Map.of("engine.speed", 1500.0)).frameSeconds()).isZero();
    }

    @Test
    void aShortPullThatFallsBehindOutweighsALongOneThatFollows() {
        Take take = climb(0, 0);
        Map<String, Take.Column> columns = new LinkedHashMap<>(take.columns());
        columns.put("engine.load", Columns.of(60, t -> t < 25 || t > 45 && t < 53 ? 90 : 60));
        for (String steady : List.of("engine.speed", "torque.limit", "boost.target")) {
            double value = take.at(steady, 1);
            columns.put(steady, Columns.of(60, t -> value));
        }
        columns.put("boost.actual", Columns.of(60, t -> t < 45 ? 219 : 190));
        columns.put("vane.command", Columns.of(60, t -> 90));
        columns.put("vane.position", Columns.of(60, t -> t < 45 ? 89 : 50));
        Take two = new Take(columns, List.of());
        TargetStudy.Verdict verdict = study(two, Map.of());
        assertThat(verdict.outcome()).isEqualTo("short");
        assertThat(verdict.fromSeconds()).isCloseTo(45, within(0.2));
        assertThat(
                        Stretch.find(
                                two,
                                PORTAGE.follows().get(0).when(),
                                columns.get("boost.actual"),
                                0.8))
                .hasSize(2);
    }

    @Test
    void aShortPullThatFollowsProvesNothingAndSaysHowLongItWas() {
        Map<String, Take.Column> columns = new LinkedHashMap<>(climb(0, 0).columns());
        columns.put("engine.load", Columns.of(30, t -> t > 5 && t < 14 ? 90 : 20));
        Take brief = new Take(columns, List.of());
        assertThat(
                        TargetStudy.study(
                                brief,
                                PORTAGE.follows().get(0),
                                told(),
                                PORTAGE.signals(),
                                Map.of()))
                .isEmpty();
        assertThat(TargetStudy.whyNot(brief, PORTAGE.follows().get(0), PORTAGE.signals()))
                .contains("load 65 % or more")
                .contains("9 s at most; 20 s are needed");
        columns.remove("vane.position");
        assertThat(
                        TargetStudy.whyNot(
                                new Take(columns, List.of()),
                                PORTAGE.follows().get(0),
                                PORTAGE.signals()))
                .startsWith("Not recorded: Turbo vane position.");
    }

    @Test
    void noStretchNoVerdict() {
        Take flat = new Take(Map.of("boost.actual", Columns.of(30, t -> 100)), List.of());
        assertThat(
                        TargetStudy.study(
                                flat,
                                PORTAGE.follows().get(0),
                                told(),
                                PORTAGE.signals(),
                                Map.of()))
                .isEmpty();
    }

    @Test
    void csvHasUnitsMarksAndNothingFilledIn() {
        StringWriter out = new StringWriter();
        TakeCsv.write(climb(0, 0), PORTAGE.signals(), out);
        List<String> lines = out.toString().lines().toList();
        assertThat(lines.get(0))
                .startsWith("time [s],")
                .contains("Boost pressure target [kPa]")
                .endsWith(",mark");
        assertThat(lines.get(71)).startsWith("7,").endsWith(",hill");
        assertThat(lines).hasSize(301);
    }

    @Test
    void ratesAreThoseOfTheSamples() {
        assertThat(Columns.of(30, t -> 0).rate()).isCloseTo(10, within(1e-9));
        assertThat(climb(0, 0).at("engine.load", -1)).isNaN();
    }
}
