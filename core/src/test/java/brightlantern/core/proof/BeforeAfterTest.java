package brightlantern.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class BeforeAfterTest {
    private static final VehicleDescription VAN = Vehicles.named("tamarack-portage");
    private static final String AIR = "air-actuators";

    private static ProofRecord.DatedFinding at(int second, Evidence e) {
        return new ProofRecord.DatedFinding(
                Instant.ofEpochSecond(second),
                Place.of("probe"),
                e.key(),
                e.passed(),
                "found",
                Optional.of(e));
    }

    private static Evidence volts(String point, double volts, boolean right) {
        return new Evidence.Reading(
                AIR, point, "nothing", List.of("vane-motor"), volts, 13.8, right);
    }

    private static Evidence run(double seconds) {
        return new Evidence.Run(
                "vane", List.of("vane"), seconds, 0.01, 13.8, seconds > 0 && seconds < 0.46);
    }

    private static List<BeforeAfter> of(ProofRecord.DatedFinding... findings) {
        return BeforeAfter.of(VAN, List.of(findings), Instant.ofEpochSecond(10));
    }

    private static String earth() {
        return VAN.circuits().stream()
                .filter(c -> c.id().equals(AIR))
                .flatMap(c -> c.points().stream())
                .filter(p -> p.side().equals("earth"))
                .findFirst()
                .orElseThrow()
                .id();
    }

    @Test
    void aReadingThatFailedStandsBesideTheSameAfterwards() {
        assertThat(
                        of(
                                at(1, volts(earth(), 1.6, false)),
                                at(2, volts(earth(), 1.86, false)),
                                at(12, volts(earth(), 0.01, true))))
                .singleElement()
                .satisfies(f -> assertThat(f.before()).isEqualTo(1.86))
                .satisfies(f -> assertThat(f.after()).isEqualTo(0.01))
                .satisfies(f -> assertThat(f.holds()).isTrue())
                .satisfies(f -> assertThat(f.high()).isBetween(0.01, 0.5));
    }

    @Test
    void whatWasNeverWrongIsNotTold() {
        assertThat(of(at(1, volts(earth(), 0.01, true)), at(12, volts(earth(), 0.02, true))))
                .isEmpty();
    }

    @Test
    void whatWasNotMeasuredAgainSaysSo() {
        BeforeAfter f = of(at(1, volts(earth(), 1.86, false))).get(0);
        assertThat(f.after()).isNaN();
        assertThat(f.holds()).isFalse();
        assertThat(f.told(f.after())).isEqualTo("not measured again");
    }

    @Test
    void anActuatorThatNeverGotThereSaysNever() {
        BeforeAfter f = of(at(1, run(-1)), at(11, run(0.33))).get(0);
        assertThat(f.told(f.before())).isEqualTo("never");
        assertThat(f.told(f.after())).isEqualTo("0.33 s");
        assertThat(f.low()).isNaN();
        assertThat(f.holds()).isTrue();
    }

    /** A description may have been changed under an open job. */
    @Test
    void whatTheDescriptionKnowsNoMoreIsLeftOut() {
        assertThat(of(at(1, volts("no-such-point", 1.86, false)))).isEmpty();
        Evidence gone =
                new Evidence.Reading(
                        AIR, earth(), "nothing", List.of("no-such-motor"), 1.86, 13.8, false);
        assertThat(of(at(1, gone))).isEmpty();
    }
}
