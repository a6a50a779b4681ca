package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class BothEndsTest {
    private static final String WIRE = "circuit-W-interlock-loop-motor";

    private final VehicleDescription ember = Vehicles.derived("quillon-ember");

    private static Evidence read(String point, double volts) {
        return new Evidence.Reading(
                "interlock", point, "nothing", List.of(), volts, 12.5, false, Map.of());
    }

    private static Check.Reading reading(NextCheck next) {
        return (Check.Reading) next.check();
    }

    /**
     * What is unplugged tells more at times, but nothing is lost on a wire that carries nothing.
     */
    @Test
    void whatIsLostOnAWireIsReadWhileItCarriesSomething() {
        List<Evidence> found = List.of(read("X252.8", 9.68));
        List<NextCheck> next =
                new Reasoners(ember)
                        .of(found).nextChecks(found, 12.5).stream()
                                .filter(n -> n.check() instanceof Check.Reading)
                                .map(
                                        n ->
                                                new NextCheck(
                                                        n.check(),
                                                        BothEnds.isUnplugged(n) ? 2 : 1,
                                                        0,
                                                        0,
                                                        List::of))
                                .toList();
        assertThat(next)
                .filteredOn(BothEnds::isUnplugged)
                .anyMatch(n -> reading(n).point().equals("X253.11"));
        assertThat(BothEnds.missing(ember, WIRE, found, next))
                .hasValueSatisfying(
                        n -> {
                            assertThat(reading(n).point()).isEqualTo("X253.11");
                            assertThat(reading(n).moving()).isEmpty();
                        });
        assertThat(
                        BothEnds.missing(
                                ember,
                                WIRE,
                                List.of(read("X252.8", 9.68), read("X253.11", 3.3)),
                                next))
                .isEmpty();
    }
}
