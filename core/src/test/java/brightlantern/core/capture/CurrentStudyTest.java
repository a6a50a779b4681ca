package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Ramps of coils, made by their formula. */
class CurrentStudyTest {
    private static final double INTERVAL = 2e-5;
    private static final double SECONDS = 1;
    private static final double TURN = 0.02;
    private static final double ON_FOR = 0.002;
    private static final double TAU = 0.0007;
    private static final List<Integer> ORDER = List.of(1, 3, 4, 2);

    private static final Map<String, Double> MADE_FOR =
            Map.of(
                    "injector-coil-1", 1.0,
                    "injector-coil-2", 1.0,
                    "injector-coil-3", 1.0,
                    "injector-coil-4", 1.0);

    private final CurrentStudy study = new CurrentStudy(ORDER, MADE_FOR);

    /** One pulse after the other, each with so many times what it is made for. */
    private static double[] feed(double... share) {
        double[] all = new double[(int) (SECONDS / INTERVAL)];
        for (int i = 0; i < all.length; i++) {
            double t = i * INTERVAL + 0.7 * TURN;
            int k = (int) Math.floor(t / TURN) % ORDER.size();
            double since = t - Math.floor(t / TURN) * TURN;
            double its = share[ORDER.get(k) - 1];
            all[i] = since < ON_FOR && its > 0 ? its * (1 - Math.exp(-since / (TAU * its))) : 0;
        }
        return all;
    }

    private static Capture capture(double interval, double[]... lanes) {
        List<Lane> all = new ArrayList<>();
        List<LaneRole> roles = List.of(LaneRole.INJECTORS, LaneRole.INJECTOR);
        for (int i = 0; i < lanes.length; i++) {
            LaneRole role = roles.get(i);
            all.add(Lane.of(role.words(), role, role.unit(), "", lanes[i]));
        }
        return new Capture(interval, all);
    }

    private static Capture of(double... share) {
        return capture(INTERVAL, feed(share), feed(share[0], 0, 0, 0));
    }

    private List<String> bands(Capture capture) {
        return study.judge(capture).orElseThrow().drawn().stream()
                .map(CurrentStudy.Drawn::band)
                .toList();
    }

    @Test
    void ampsAndTimeConstantAreThoseOfTheFormula() {
        CurrentStudy.Judgement judgement = study.judge(of(1.2, 1.2, 1.2, 1.2)).orElseThrow();
        assertThat(judgement.holds()).isTrue();
        assertThat(judgement.tells()).hasSize(4).allMatch(t -> t.outcome().equals("right"));
        assertThat(judgement.drawn())
                .allSatisfy(
                        d -> {
                            CurrentRamp ramp = d.ramp().orElseThrow();
                            assertThat(ramp.amps()).isBetween(1.19, 1.21);
                            assertThat(ramp.rises()).isBetween(1.18 * TAU, 1.22 * TAU);
                            assertThat(ramp.moves()).isNaN();
                        });
    }

    @Test
    void eachIsNamedByTheOrderOfFiring() {
        assertThat(bands(of(1.2, 0.7, 1.2, 1.2)))
                .containsExactly("right", "little", "right", "right");
        assertThat(bands(of(1.2, 1.2, 0, 1.2))).containsExactly("right", "right", "none", "right");
        assertThat(bands(of(1.2, 1.2, 1.2, 1.8)))
                .containsExactly("right", "right", "right", "much");
        // the first one's own clamp shows nothing then: its gap tells where the turn begins
        assertThat(bands(of(0, 1.2, 1.2, 0.6))).containsExactly("none", "right", "right", "little");
    }

    @Test
    void whatAllLackIsToldByWhatTheyAreMadeFor() {
        assertThat(bands(of(0.6, 0.6, 0.6, 0.6))).containsOnly("little");
        CurrentStudy.Judgement unknown =
                new CurrentStudy(ORDER, Map.of()).judge(of(0.6, 0.6, 0.6, 0.6)).orElseThrow();
        assertThat(unknown.holds()).isTrue();
        assertThat(unknown.tells()).as("only held against each other").isEmpty();
    }

    @Test
    void aClampTheWrongWayRoundIsTurnedOver() {
        double[] turned = Arrays.stream(feed(1.2, 0.7, 1.2, 1.2)).map(a -> -a).toArray();
        CurrentStudy.Judgement judgement =
                study.judge(capture(INTERVAL, turned, feed(1.2, 0, 0, 0))).orElseThrow();
        assertThat(judgement.sentence()).startsWith("Injector 2 draws 0.70 A where 1.20 A");
        assertThat(judgement.reasons()).anyMatch(r -> r.contains("wrong way round"));
    }

    @Test
    void whatCannotBeReadSaysWhy() {
        double[] flat = new double[(int) (SECONDS / INTERVAL)];
        double[] all = feed(1.2, 1.2, 1.2, 1.2);
        assertThat(study.whyNot(capture(2e-4, all, all)).orElseThrow())
                .contains("a sample every 200 µs", "every 50 µs or faster");
        assertThat(study.whyNot(capture(INTERVAL, all)).orElseThrow())
                .contains("a clamp round the wire of cylinder 1 alone");
        assertThat(study.whyNot(capture(INTERVAL, flat, flat)).orElseThrow())
                .contains("the engine did not run");
        assertThat(study.whyNot(capture(INTERVAL, all, flat)).orElseThrow())
                .contains("the clamp at cylinder 1 shows no current");
        assertThat(study.judge(capture(INTERVAL, flat, flat))).isEmpty();
    }
}
