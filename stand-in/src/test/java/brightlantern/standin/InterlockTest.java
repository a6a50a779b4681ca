package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Where a loop through plugs is open, no plug of the high voltage is opened to find it. */
class InterlockTest {
    private static final Random RANDOM = new Random(5);
    private static final Yard YARD = Yard.common();

    @ParameterizedTest
    @ValueSource(strings = {"B-loop-compressor", "W-interlock-loop-heater", "C-X252.8"})
    void whatOpensTheLoopIsNamed(String part) {
        StandInVehicle v = YARD.built("quillon-ember");
        Breaker breaker = new Breaker(v);
        Part.Failure failure =
                breaker.inCircuits().stream()
                        .filter(f -> f.of().equals(part) && f.name().endsWith("open"))
                        .findFirst()
                        .orElseThrow();
        Breaker.Broken broken = breaker.breakPart(failure, 1, false).orElseThrow();
        Robot robot = new Robot(v, RANDOM);
        List<Evidence> told = new ArrayList<>(robot.told(broken));
        assertThat(told).contains(new Evidence.CodeSeen("P0A0A-13", true));
        told.add(robot.listened());
        Robot.Ended ended = robot.follow(YARD.reasoners("quillon-ember"), told);
        String lead = ended.ranking().standings().get(0).suspectId();
        assertThat(Robot.part(YARD.vehicle("quillon-ember"), lead))
                .as("%s after %s", ended.ranking().sentence(), ended.found())
                .isIn(YARD.vehicle("quillon-ember").wiring().alike(part));
        assertThat(ended.found().stream().filter(e -> e instanceof Evidence.Outcome))
                .extracting(e -> ((Evidence.Outcome) e).findingId())
                .noneMatch(f -> f.contains("B-loop"));
    }
}
