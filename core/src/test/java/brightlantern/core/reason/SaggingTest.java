package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import org.junit.jupiter.api.Test;

/** An alternator that gives nothing lets the supply run down, and slows every motor with it. */
class SaggingTest {
    private static Suspect alternator(VehicleDescription d) {
        return d.suspect("alternator").orElseThrow();
    }

    @Test
    void whatASlowMotorBringsItBringsInItsShareOfTheVehicles() {
        VehicleDescription d = Vehicles.derived("tamarack-portage");
        double share = ((Effect.Sags) alternator(d).effect().orElseThrow()).share();
        // the vane alone, or the throttle alone, or both
        double either = 1 - (1 - share * 0.75) * (1 - share * 0.3);
        assertThat(alternator(d).codes().get("P0299-00")).isCloseTo(either, within(1e-12));
        assertThat(alternator(d).symptoms()).containsKeys("charge-lamp", "flat-on-climbs");
        assertThat(alternator(d).tells().get("climb").values().stream().mapToDouble(p -> p).sum())
                .as("outcomes of a climb")
                .isCloseTo(1, within(0.02));
    }

    @Test
    void whereNoMotorIsWatchedItChangesNothing() {
        assertThat(alternator(Vehicles.derived("oriel-heron")))
                .isEqualTo(alternator(Vehicles.named("oriel-heron")));
    }
}
