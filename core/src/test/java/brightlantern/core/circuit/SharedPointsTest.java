package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What other circuits draw through the body moves what is read there, told or not. */
class SharedPointsTest {
    private final VehicleDescription heron = Vehicles.derived("oriel-heron");
    private final SharedPoints shared = new SharedPoints(heron.circuits());
    private final Circuit brakes = heron.circuit("brake-lamps").orElseThrow();
    private final ProbeCondition rest = new ProbeCondition(Load.NOTHING, Optional.empty());

    private ExpectedReading at(String point) {
        return rest.healthy(shared, brakes, point, 14.05);
    }

    @Test
    void aRunningEngineDoesNotMakeABodyLookBad() {
        // pump, coils and injectors of a running engine lose so much on a sound strap
        assertThat(at("BODY").holds(0.086)).isTrue();
        assertThat(at("BODY").holds(0.8)).as("a strap of a few hundredths of an ohm").isFalse();
    }

    @Test
    void whatNobodyElseUsesIsReadAsSharpAsBefore() {
        String own =
                brakes.points().stream()
                        .map(ProbePoint::id)
                        .filter(p -> p.startsWith("X51."))
                        .findFirst()
                        .orElseThrow();
        assertThat(shared.unknown(brakes, own)).isZero();
        assertThat(shared.unknown(brakes, "BODY")).isBetween(0.05, 0.3);
        assertThat(shared.unknown(brakes, Circuit.PLUS)).isZero();
    }

    /** A relay that feeds both is on or off for both, and the reading says which. */
    @Test
    void whatBothSwitchIsKnown() {
        VehicleDescription finch = Vehicles.derived("oriel-finch");
        SharedPoints its = new SharedPoints(finch.circuits());
        for (Circuit c : finch.circuits()) {
            for (ProbePoint p : c.points()) {
                assertThat(its.unknown(c, p.id())).as(c.id() + " " + p.id()).isLessThan(0.2);
            }
        }
    }
}
