package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.ContactStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.standin.plant.EverydayUse;
import brightlantern.standin.plant.Part;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What was told is not there when somebody looks; the harness that makes it so is found. */
class ComesAndGoesTest {
    private static final Random RANDOM = new Random(67);
    private static final Yard YARD = new Yard(RANDOM);

    /** What is broken all the time stays so when the road has shaken what is loose beside it. */
    @Test
    void whatIsBrokenBesideItStaysBroken() {
        StandInVehicle v = YARD.built("oriel-finch");
        v.whole();
        var circuits = v.simulation().circuits().orElseThrow();
        circuits.fail("loose", "C-X83.1", 1);
        circuits.fail("series", "C-X83.2", 5000);
        assertThat(circuits.hands().pins("X83")).startsWith("Pin 2");
        new EverydayUse(circuits).used(v::report);
        assertThat(circuits.hands().pins("X83")).startsWith("Pin 2");
        circuits.mend("C-X83.2");
        assertThat(circuits.hands().pins("X83")).as("it holds loosely").startsWith("Pin 1");
        assertThat(circuits.hands().jumps("X83")).isTrue();
        circuits.mend("C-X83.1");
        assertThat(circuits.hands().pins("X83")).contains("clean and tight");
        assertThat(new EverydayUse(circuits).used(v::report)).isEmpty();
    }

    /** The volts of a pin are recorded while one connector after the other is moved. */
    @Test
    void aCaptureTellsWhichConnectorItGoesWith() {
        StandInVehicle v = YARD.built("oriel-heron");
        v.whole();
        var circuits = v.simulation().circuits().orElseThrow();
        circuits.fail("loose", "C-X83.1", 1);
        ContactStudy.Judgement found =
                ScopedCapture.moved(v, "C-X83.1", List.of("X83", "X84", "X83", "X84"));
        assertThat(found.sentence()).as(found.reasons() + "").contains("It goes with 'X83'.");
        assertThat(found.tells())
                .extracting(t -> t.finding() + " " + t.outcome())
                .containsExactly("move-X83 jumps", "move-X84 steady");
        circuits.mend("C-X83.1");
        assertThat(ScopedCapture.moved(v, "C-X83.1", List.of("X83", "X83")).holds()).isTrue();
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "oriel-heron, connector X83",
        "oriel-finch, connector X87",
        "velmont-cairn, connector X60",
        "tamarack-portage, connector X89",
        "stonebarrow-wl9, connector X84",
        "quillon-ember, connector X126",
        "oriel-heron, Relay K46",
        "oriel-finch, Fuse F63",
        "velmont-cairn, Wire black-white",
        "quillon-ember, Earth stud G104"
    })
    void isSoundAtRestAndFoundShaken(String vehicle, String part) {
        StandInVehicle v = YARD.built(vehicle);
        Breaker breaker = new Breaker(v);
        Part.Failure loose =
                breaker.inCircuits().stream()
                        .filter(f -> f.mode().equals("loose") && f.name().contains(", " + part))
                        .findFirst()
                        .orElseThrow();
        Breaker.Broken broken = breaker.breakPart(loose, 0, false).orElseThrow();
        Robot robot = new Robot(v, RANDOM);
        List<Evidence> told = robot.told(broken);
        Robot.Ended ended = robot.follow(YARD.reasoners(vehicle), told);
        assertThat(ended.ranking().sentence())
                .as("%s after %s", broken, ended.found())
                .contains(part.substring(0, 1).toUpperCase(Locale.ROOT) + part.substring(1))
                .contains("comes and goes");
        assertThat(ended.ranking().sureness()).isGreaterThan(0.7);

        var circuits = v.simulation().circuits().orElseThrow();
        // where no check was left it was mended on trial
        breaker.breakPart(loose, 0, false);
        assertThat(new EverydayUse(circuits).used(v::report)).as("it is broken").isNotEmpty();
        Suspect suspect =
                v.description()
                        .suspect(ended.ranking().standings().get(0).suspectId())
                        .orElseThrow();
        v.repair(suspect.repair().id());
        assertThat(new EverydayUse(circuits).used(v::report)).isEmpty();
    }
}
