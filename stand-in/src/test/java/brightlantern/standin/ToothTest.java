package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.capture.ToothStudy;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the oscilloscope sees at the sensors of crank and camshaft of an engine that idles. */
class ToothTest {
    private static final Map<String, String> SEEN =
            Map.of(
                    "chain-off",
                    "early",
                    "chain-long",
                    "late",
                    "wheel-tooth",
                    "tooth",
                    "wheel-bent",
                    "runout");

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage", "oriel-finch", "velmont-cairn"})
    void eachFaultIsReadInTheMarksAndAHealthyEngineIsNotAccused(String id) {
        StandInVehicle vehicle = StandIns.of(Shipped.derived(id), StandIns.AS_BUILT, 741);
        ToothStudy.Judgement whole = ScopedCapture.toothed(vehicle).orElseThrow();
        assertThat(whole.outcome()).as("%s", whole).isEqualTo("right");
        SEEN.forEach(
                (failure, outcome) -> {
                    Mechanics.Failing failing = vehicle.simulation().damage().failing(failure);
                    double size = failing.least();
                    vehicle.simulation().damage().fail(failing, size);
                    ToothStudy.Judgement seen = ScopedCapture.toothed(vehicle).orElseThrow();
                    assertThat(seen.outcome()).as("%s %s", failure, seen).isEqualTo(outcome);
                    if (failure.startsWith("chain")) {
                        assertThat(seen.late()).isCloseTo(whole.late() + size, within(0.5));
                    } else if (outcome.equals("tooth")) {
                        assertThat(seen.lost()).containsExactly((int) size);
                    } else {
                        assertThat(seen.runout()).isCloseTo(size, within(0.01));
                    }
                    vehicle.repair(failing.repair());
                });
        assertThat(ScopedCapture.toothed(vehicle).orElseThrow().outcome())
                .as("mended")
                .isEqualTo("right");
    }

    @ParameterizedTest
    @ValueSource(strings = {"oriel-finch", "stonebarrow-wl9"})
    void aWeakCylinderIsNoBentWheelAndShowsInWhatItAdds(String id) {
        StandInVehicle vehicle = StandIns.of(Shipped.derived(id), StandIns.AS_BUILT, 743);
        Mechanics.Failing failing = vehicle.simulation().damage().failing("injector-2");
        vehicle.simulation().damage().fail(failing, failing.least());
        vehicle.live(30);
        ToothStudy.Judgement seen = ScopedCapture.toothed(vehicle).orElseThrow();

        assertThat(seen.outcome()).as("%s", seen).isEqualTo("right");
        assertThat(seen.gains().get(1))
                .as("%s", seen)
                .isLessThan(-3)
                .isEqualTo(seen.gains().stream().mapToDouble(g -> g).min().orElseThrow());
        assertThat(seen.own()).as("its module sees the same").hasSameSizeAs(seen.gains());
        for (int k = 0; k < seen.own().size(); k++) {
            assertThat(seen.own().get(k))
                    .as("%s", seen)
                    .isCloseTo(seen.gains().get(k), within(8.0));
        }
    }
}
