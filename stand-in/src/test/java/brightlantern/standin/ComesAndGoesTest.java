package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.standin.plant.EverydayUse;
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
        Breaker.Broken broken =
                breaker.inCircuits().stream()
                        .filter(f -> f.mode().equals("loose") && f.name().contains(", " + part))
                        .findFirst()
                        .flatMap(f -> breaker.breakPart(f, 0, false))
                        .orElseThrow();
        Robot robot = new Robot(v, RANDOM);
        List<Evidence> told = robot.told(broken);
        Robot.Ended ended = robot.follow(YARD.reasoners(vehicle), told);
        assertThat(ended.ranking().sentence())
                .as("%s after %s", broken, ended.found())
                .startsWith(part.substring(0, 1).toUpperCase(Locale.ROOT) + part.substring(1))
                .contains("comes and goes is the cause");

        var circuits = v.simulation().circuits().orElseThrow();
        assertThat(new EverydayUse(circuits).used(v::report)).as("nothing was mended").isNotEmpty();
        Suspect suspect =
                v.description()
                        .suspect(ended.ranking().standings().get(0).suspectId())
                        .orElseThrow();
        v.repair(suspect.repair().id());
        assertThat(new EverydayUse(circuits).used(v::report)).isEmpty();
    }
}
