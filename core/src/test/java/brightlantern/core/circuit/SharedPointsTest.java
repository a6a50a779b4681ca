package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.Optional;
import java.util.Set;
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

    private static double still(SharedPoints of, Circuit circuit, String point) {
        return of.unknown(circuit, point, Set.of(), 12.5);
    }

    /** Who turns the key to start does not know whether it will: coils and injectors go on then. */
    @Test
    void anEngineThatMayTurnDrawsThroughItsEarth() {
        VehicleDescription finch = Vehicles.derived("oriel-finch");
        Circuit starter = finch.circuit("starter-feed").orElseThrow();
        SharedPoints its = new SharedPoints(finch.circuits());
        ExpectedReading key =
                new ProbeCondition(Load.NOTHING, Optional.of("K47-on"))
                        .healthy(its, starter, "G106", 14.05);
        assertThat(key.holds(0.25)).as("it runs").isTrue();
        assertThat(key.holds(0.05)).as("it stands").isTrue();
        assertThat(key.holds(2)).as("a poor earth").isFalse();
        assertThat(its.unknown(starter, "G106", Set.of("K47-on"), 12.5))
                .isGreaterThan(2 * still(its, starter, "G106"));
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
        assertThat(still(shared, brakes, own)).isZero();
        assertThat(still(shared, brakes, "BODY")).isBetween(0.05, 0.3);
        assertThat(still(shared, brakes, Circuit.PLUS)).isZero();
    }

    /** A relay that feeds both is on or off for both, and the reading says which. */
    @Test
    void whatBothSwitchIsKnown() {
        VehicleDescription finch = Vehicles.derived("oriel-finch");
        SharedPoints its = new SharedPoints(finch.circuits());
        for (Circuit c : finch.circuits()) {
            for (ProbePoint p : c.points()) {
                assertThat(still(its, c, p.id())).as(c.id() + " " + p.id()).isLessThan(0.2);
            }
        }
    }
}
