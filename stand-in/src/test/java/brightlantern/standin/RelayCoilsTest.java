package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Part;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * A relay that gets no current through its coil does not click, and is told from burnt contacts.
 */
class RelayCoilsTest {
    private static final Random RANDOM = new Random(23);
    private static final Yard YARD = Yard.common();

    private static Breaker.Broken broken(StandInVehicle v, String part, String how) {
        Breaker breaker = new Breaker(v);
        Part.Failure failure =
                breaker.inCircuits().stream()
                        .filter(f -> f.of().equals(part) && f.name().endsWith(how))
                        .findFirst()
                        .orElseThrow();
        return breaker.breakPart(failure, 0.7, false).orElseThrow();
    }

    /** With its coil broken it stays open, and what it feeds does nothing. */
    @Test
    void aBrokenCoilLetsGo() {
        StandInVehicle v = YARD.built("oriel-heron");
        assertThat(broken(v, "K41-coil", "open").complaint()).contains("dark, low beam on");
        Circuits circuits = v.simulation().circuits().orElseThrow();
        circuits.set("K41-on", true);
        assertThat(circuits.volts("K41.out").orElseThrow()).isLessThan(1);
        // the output pulls its wire down all the same
        assertThat(circuits.volts("K41.85").orElseThrow()).isLessThan(0.1);
        v.repair("repair-circuit-K41-coil");
        assertThat(circuits.volts("K41.out").orElseThrow()).isGreaterThan(11);
        circuits.set("K41-on", false);
    }

    @ParameterizedTest(name = "{0}: {1} {2}")
    @CsvSource({
        "tamarack-portage, K41-coil, open",
        "tamarack-portage, W-K71-coil, too much resistance",
        "oriel-finch, S42-control, open",
        "velmont-cairn, XA.1-control, stays closed",
        "velmont-cairn, K44, open",
        "quillon-ember, K45-coil, open"
    })
    void whatPullsARelayIsNamed(String vehicle, String part, String how) {
        StandInVehicle v = YARD.built(vehicle);
        Breaker.Broken broken = broken(v, part, how);
        Robot robot = new Robot(v, RANDOM);
        List<Evidence> told = robot.told(broken);
        Robot.Ended ended = robot.follow(YARD.reasoners(vehicle), told);
        assertThat(
                        Robot.part(
                                YARD.vehicle(vehicle),
                                ended.ranking().standings().get(0).suspectId()))
                .as("%s after %s", ended.ranking().sentence(), ended.found())
                .isIn(YARD.vehicle(vehicle).wiring().alike(part));
    }
}
