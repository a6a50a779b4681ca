package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.StartingStudy;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the oscilloscope sees at the battery of an engine that idles, and of one that starts. */
class RippleTest {
    private static final Map<String, String> SEEN =
            Map.of("alternator-diode", "gap", "alternator", "none");

    private static final Map<String, String> LOST =
            Map.of(
                    "plus-cable", "plus false",
                    "engine-earth", "earth false",
                    "battery-aged", "even false");

    @ParameterizedTest
    @ValueSource(
            strings = {
                "tamarack-portage",
                "oriel-finch",
                "velmont-cairn",
                "quillon-ember",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void aLostDiodeIsAGapAndADeadAlternatorPulsesNot(String id) {
        StandInVehicle vehicle = StandIns.of(Shipped.derived(id), StandIns.AS_BUILT, 733);
        assertThat(ScopedCapture.rippled(vehicle).outcome()).isEqualTo("even");
        SEEN.forEach(
                (failure, outcome) -> {
                    Mechanics.Failing failing = vehicle.simulation().damage().failing(failure);
                    vehicle.simulation().damage().fail(failing, failing.most());
                    assertThat(ScopedCapture.rippled(vehicle).outcome())
                            .as(failure)
                            .isEqualTo(outcome);
                    vehicle.repair(failing.repair());
                });
        assertThat(ScopedCapture.rippled(vehicle).outcome()).as("mended").isEqualTo("even");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "tamarack-portage",
                "oriel-finch",
                "velmont-cairn",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void whatACableLosesAtAStartIsTold(String id) {
        StandInVehicle vehicle = StandIns.of(Shipped.derived(id), StandIns.AS_BUILT, 733);
        assertThat(started(vehicle)).isEqualTo("even true");
        LOST.forEach(
                (failure, told) -> {
                    Mechanics.Failing failing = vehicle.simulation().damage().failing(failure);
                    vehicle.simulation().damage().fail(failing, failing.least());
                    assertThat(started(vehicle)).as(failure).isEqualTo(told);
                    vehicle.repair(failing.repair());
                });
        assertThat(started(vehicle)).as("mended").isEqualTo("even true");
    }

    private static String started(StandInVehicle vehicle) {
        StartingStudy.Judgement its = ScopedCapture.started(vehicle).orElseThrow();
        return its.outcome() + " " + its.holds();
    }
}
