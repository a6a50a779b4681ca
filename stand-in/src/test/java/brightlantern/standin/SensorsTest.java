package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.reason.SensorWalk;
import brightlantern.core.suspect.Suspect;
import brightlantern.standin.plant.EverydayUse;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * One figure that cannot be true, and four that may be to blame: the sensor, a wire or contact on
 * its way, the module's input, the reference of all of them. The robot does what the program
 * proposes.
 */
class SensorsTest {
    private static final Random RANDOM = new Random(61);
    private static final Yard YARD = Yard.common();

    @ParameterizedTest(name = "{0}: {2} {3}, {4}")
    @CsvSource({
        "oriel-finch, coolant-sensor, coolant-sensor, biased up, 0.2, SENSOR",
        "oriel-heron, coolant-sensor, coolant-sensor, biased down, 0.8, SENSOR",
        "tamarack-portage, rail-sensor, rail-sensor, biased up, 0.5, SENSOR",
        "velmont-cairn, feed-sensor, feed-sensor, biased up, 0.5, SENSOR",
        "stonebarrow-wl9, oil-sensor, oil-sensor, biased down, 0.3, SENSOR",
        "oriel-finch, rail-sensor, I-X1.43, misread up, 0.5, MODULE",
        "oriel-heron, oil-sensor, R-X1.13, misread down, 0.5, MODULE",
        "velmont-cairn, coolant-sensor, W-coolant-sensor, partly, 0.4, WAY",
        "oriel-finch, rail-sensor, R-X1.41, open, 0, SHARED",
    })
    void everyLiarIsToldFromTheOthers(
            String vehicle,
            String sensor,
            String part,
            String mode,
            double size,
            SensorWalk.Culprit culprit) {
        StandInVehicle v = YARD.built(vehicle);
        Breaker breaker = new Breaker(v);
        Breaker.Broken broken =
                breaker.inCircuits().stream()
                        .filter(f -> f.of().equals(part))
                        .filter(f -> f.name().contains(word(mode)))
                        .findFirst()
                        .flatMap(f -> breaker.breakPart(f, size, false))
                        .orElseThrow();
        Robot robot = new Robot(v, RANDOM);
        Robot.Ended ended = robot.follow(YARD.reasoners(vehicle), robot.told(broken));
        String lead = ended.ranking().standings().get(0).suspectId();
        assertThat(ended.ranking().sentence())
                .as("%s by %s, after %s", lead, broken.truth(), ended.found())
                .containsAnyOf("is the cause", "Things point to");
        SensorWalk walk = SensorWalk.of(v.description(), sensor).orElseThrow();
        // who is to blame is said once it is named; until then the module is not replaced
        assertThat(walk.culprit(ended.ranking()))
                .isEqualTo(ended.ranking().accused().map(a -> culprit));
        Suspect suspect = v.description().suspect(lead).orElseThrow();
        assertThat(suspect.effect().flatMap(e -> e.part())).contains(part);

        v.repair(suspect.repair().id());
        assertThat(new EverydayUse(v.simulation().circuits().orElseThrow()).used(v::report))
                .isEmpty();
    }

    private static String word(String mode) {
        return switch (mode) {
            case "biased up", "misread up" -> "too high a signal";
            case "biased down", "misread down" -> "too low a signal";
            case "partly" -> "too much resistance";
            default -> ": open";
        };
    }
}
