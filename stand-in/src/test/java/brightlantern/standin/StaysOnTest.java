package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.suspect.Evidence;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EverydayUse;
import brightlantern.standin.plant.Part;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What switches and stays closed is found, though nothing is missing anywhere. */
class StaysOnTest {
    private static final Random RANDOM = new Random(71);
    private static final Yard YARD = Yard.common();

    private static Breaker.Broken broken(StandInVehicle v, String mode, String of) {
        Breaker breaker = new Breaker(v);
        Part.Failure failure =
                breaker.inCircuits().stream()
                        .filter(f -> f.mode().equals(mode) && f.of().equals(of))
                        .findFirst()
                        .orElseThrow();
        return breaker.breakPart(failure, 1, false).orElseThrow();
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "tamarack-portage, K44",
        "oriel-finch, S64",
        "velmont-cairn, K41",
        "quillon-ember, S76",
        "oriel-heron, K46"
    })
    void whatStaysClosedIsNamed(String vehicle, String part) {
        StandInVehicle v = YARD.built(vehicle);
        Breaker.Broken broken = broken(v, "stuck", part);
        assertThat(broken.complaint()).contains("when switched off still on");
        Robot robot = new Robot(v, RANDOM);
        List<Evidence> told = robot.told(broken);
        Robot.Ended ended = robot.follow(YARD.reasoners(vehicle), told);
        assertThat(ended.ranking().sentence())
                .as("%s after %s", broken, ended.found())
                .contains(part + " stays closed");
        Circuits circuits = v.simulation().circuits().orElseThrow();
        // a cheap part may have been mended on trial
        broken(v, "stuck", part);
        assertThat(new EverydayUse(circuits).used(v::report)).as("it is broken").isNotEmpty();
        v.repair(
                v.description()
                        .suspect(ended.ranking().standings().get(0).suspectId())
                        .orElseThrow()
                        .repair()
                        .id());
        assertThat(new EverydayUse(circuits).used(v::report)).isEmpty();
    }

    /** A meter on ohms tells the part from all that leads to it. */
    @Test
    void aPartAloneTellsWhetherItIsWhole() {
        StandInVehicle v = YARD.built("oriel-finch");
        String lamp = "gauge-brake-left-ohms";
        String whole = v.tools().measure(lamp);
        assertThat(whole).matches("Your meter reads [0-9.]+ Ω\\.");
        broken(v, "series", "W-brake-left");
        assertThat(v.tools().measure(lamp)).as("its wire is open").isEqualTo(whole);
        broken(v, "series", "brake-left");
        assertThat(v.tools().measure(lamp)).contains("overload");
        assertThatThrownBy(() -> v.tools().measure("gauge-none")).hasMessageContaining("none");
    }

    /** What lives on a lead from the battery lacks what should come; what stays dead does not. */
    @Test
    void aLeadFromTheBatteryPartsSupplyFromEarth() {
        String fed = "gauge-brake-left-fed";
        assertThat(YARD.built("oriel-finch").tools().measure(fed)).isEqualTo("It: bright.");
        for (String wire : List.of("W-brake-left", "E-brake-left", "brake-left")) {
            StandInVehicle v = YARD.built("oriel-finch");
            broken(v, "series", wire);
            assertThat(v.tools().measure(fed))
                    .as(wire)
                    .isEqualTo(wire.startsWith("W-") ? "It: bright." : "It: dark.");
            assertThat(v.stored()).as("nobody's module looks while it is fed").isEmpty();
        }
        assertThat(YARD.built("oriel-finch").tools().names().keySet())
                .as("an injector is never held open")
                .noneMatch(id -> id.contains("injector") && id.endsWith("-fed"));
    }

    /** While modules send nobody reads ohms between their wires. */
    @Test
    void theWiresOfABusAreMeasuredWhileAllSleep() {
        StandInVehicle v = YARD.built("velmont-cairn");
        v.driver(Driver.away().key(2));
        assertThat(v.tools().measure("wires-chassis")).contains("Turn the key off");
        v.driver(Driver.away().key(0));
        assertThat(v.tools().measure("wires-chassis"))
                .matches("Your meter reads (59|6[01])[.\\d]* Ω\\.");
    }
}
