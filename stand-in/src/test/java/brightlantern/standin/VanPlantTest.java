package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The van's own circuits and its charge-air hose: broken, found by what is proposed, mended. */
class VanPlantTest {
    private static final Random RANDOM = new Random(83);
    private static final Yard YARD = Yard.common();

    @ParameterizedTest(name = "{0}")
    @CsvSource({"G12, 0.4", "W14, 0.9", "K3, 0.5", "vane-motor, 0.9", "boost-hose, 0.5"})
    void itsFaultIsNamedAndItsRepairCuresIt(String part, double size) {
        StandInVehicle v = YARD.built("tamarack-portage");
        Breaker breaker = new Breaker(v);
        Breaker.Broken broken =
                breaker.inPlant().stream()
                        .filter(f -> f.of().equals(part))
                        .findFirst()
                        .flatMap(f -> breaker.breakPart(f, size, false))
                        .orElseThrow();
        assertThat(broken.complaint()).isEqualTo("It goes flat on long climbs.");
        Robot robot = new Robot(v, RANDOM);
        Robot.Ended ended = robot.follow(YARD.reasoners("tamarack-portage"), robot.told(broken));
        String lead = ended.ranking().lead().suspectId();
        assertThat(Robot.part(v.description(), lead))
                .as("%s after %s", ended.ranking().sentence(), ended.found())
                .isEqualTo(part);
        assertThat(ended.ranking().accused()).as(ended.ranking().sentence()).isPresent();

        v.repair(v.description().suspect(lead).orElseThrow().repair().id());
        v.module("engine").memory().clear();
        StandIns.hill(v);
        assertThat(v.stored()).isEmpty();
    }
}
