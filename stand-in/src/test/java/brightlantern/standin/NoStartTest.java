package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * An engine does what its circuits let it do, says what is told of that, and the break is found.
 */
class NoStartTest {
    private static final Random RANDOM = new Random(83);
    private static final Yard YARD = Yard.common();

    private static String starts(StandInVehicle v) {
        v.driver(v.simulation().driver().key(0));
        v.live(2);
        v.driver(v.simulation().driver().key(2));
        v.live(1);
        v.simulation().crank();
        v.live(0.4);
        String turns = v.simulation().reading("engine.state").orElseThrow() == 1 ? "turns" : "";
        v.live(4);
        return v.simulation().running() ? "runs" : turns;
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "oriel-heron, F47, '', no-crank, Fuse F47",
        "oriel-finch, W-crank-sensor, turns, no-start, Wire green 0.5",
        "quillon-ember, K45, turns, no-start, Relay K45",
        "stonebarrow-wl9, F45, turns, no-start, Fuse F45",
        "velmont-cairn, F50, turns, no-start, Fuse F50",
        "velmont-cairn, coil-2, runs, shakes, Ignition coil 2",
        "oriel-heron, W-injector-coil-3, runs, shakes, Wire red-green"
    })
    void doesWhatItsCircuitsLetIt(
            String vehicle, String part, String does, String symptom, String named) {
        StandInVehicle v = YARD.built(vehicle);
        v.whole();
        assertThat(starts(v)).isEqualTo("runs");
        Breaker breaker = new Breaker(v);
        Breaker.Broken broken =
                breaker.inCircuits().stream()
                        .filter(f -> f.mode().equals("series") && f.of().equals(part))
                        .findFirst()
                        .flatMap(f -> breaker.breakPart(f, 1, false))
                        .orElseThrow();
        assertThat(broken.symptoms()).as("%s", broken).first().isEqualTo(symptom);
        v.live(3);
        // one that runs needs no starter
        assertThat(v.simulation().running()).isEqualTo(!does.equals("turns"));
        assertThat(starts(v)).isEqualTo(does);

        Robot robot = new Robot(v, RANDOM);
        // what the driver says first is all that anybody codes
        List<Evidence> told =
                robot.told(
                        new Breaker.Broken(
                                part, broken.truth(), broken.complaint(), List.of(symptom)));
        Robot.Ended ended = robot.follow(YARD.reasoners(vehicle), told);
        assertThat(ended.ranking().sentence())
                .as("%s after %s", broken, ended.found())
                .contains(named)
                .contains("is the cause");
        var lead = ended.ranking().standings().get(0).suspectId();
        v.repair(v.description().suspect(lead).orElseThrow().repair().id());
        assertThat(starts(v)).isEqualTo("runs");
    }
}
