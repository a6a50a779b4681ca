package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The posterior, the planner and the words know mechanisms only: one of the test's own will do. */
class MechanismTest {
    private static final VehicleDescription LOADER = Vehicles.named("stonebarrow-wl9");
    private static final String FIRST = LOADER.suspects().get(0).id();

    /** Weighs outcomes of any finding: ten times likelier under the first suspect. */
    private static final class Nose implements Mechanism {
        @Override
        public boolean weighs(Evidence piece) {
            return piece instanceof Evidence.Outcome;
        }

        @Override
        public double[] logLikelihoods(Evidence piece, Hypotheses under) {
            return under.each(h -> h.suspectId().equals(FIRST) ? Math.log(10) : 0);
        }

        @Override
        public List<Check> checks(List<Evidence> known) {
            return List.of(
                    new Check.Look(
                            "smell", "Smell", "trace", List.of("smell"), 2, "It smells.", ""));
        }

        @Override
        public Optional<Forecast> forecast(
                Check check, Hypotheses under, double[] weights, double supplyVolts) {
            return Optional.of(
                    new Forecast() {
                        @Override
                        public Outcomes outcomes() {
                            return Outcomes.of(
                                    List.of(
                                            under.each(h -> h.suspectId().equals(FIRST) ? 1 : 0),
                                            under.each(h -> h.suspectId().equals(FIRST) ? 0 : 1)));
                        }

                        @Override
                        public List<String> expectations() {
                            return List.of("It smells");
                        }
                    });
        }
    }

    private final Reasoner reasoner = new Reasoner(LOADER, List.of(new Nose()));

    @Test
    void aNewWayOfShowingIsWeighedByBayesRule() {
        Ranking untold = reasoner.rank(List.of());
        double before = untold.of(FIRST).orElseThrow().sureness();
        // what does not explain the smell is not what is sought
        double beside =
                Stream.of("nothing-broken", "something-else")
                        .mapToDouble(id -> untold.of(id).orElseThrow().sureness())
                        .sum();
        Ranking after = reasoner.rank(List.of(new Evidence.Outcome("smell", "yes")));
        assertThat(after.of(FIRST).orElseThrow().sureness())
                .isCloseTo(10 * before / (10 * before + beside), within(1e-12));
        assertThat(after.of(FIRST).orElseThrow().contributions())
                .singleElement()
                .satisfies(c -> assertThat(c.log10Odds()).isCloseTo(1, within(1e-9)));
    }

    /**
     * A check that tells one suspect from all others brings the entropy of that question; it takes
     * two minutes, and two aside.
     */
    @Test
    void aCertainCheckBringsTheEntropyOfItsQuestion() {
        double p = reasoner.rank(List.of()).of(FIRST).orElseThrow().sureness();
        double entropy = -(p * Math.log(p) + (1 - p) * Math.log(1 - p)) / Math.log(2);
        assertThat(reasoner.nextChecks(List.of(), 12.4))
                .singleElement()
                .satisfies(
                        c -> {
                            assertThat(c.bits()).isCloseTo(entropy, within(1e-9));
                            assertThat(c.bitsPerMinute()).isCloseTo(entropy / 4, within(1e-9));
                        });
    }

    @Test
    void evidenceThatNobodyWeighsIsNamed() {
        assertThatThrownBy(() -> reasoner.rank(List.of(new Evidence.CodeSeen("P0001-00", true))))
                .hasMessageContaining("code P0001-00");
    }
}
