package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the oscilloscope sees at the battery of an engine that idles. */
class RippleTest {
    private static final Map<String, String> SEEN =
            Map.of("alternator-diode", "gap", "alternator", "none");

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
}
