package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.DepartureStudy;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.reason.Ranking;
import brightlantern.core.suspect.Evidence;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A count that is wrong, and its twin in which a coil really fails: told by who left first. */
class LeavesFirstTest {
    private static final Random RANDOM = new Random(71);
    private static final Yard YARD = Yard.common();

    @ParameterizedTest(name = "{0}")
    @CsvSource({"unlearned-2, count", "coil-hot-3, coil"})
    void whoLeavesFirstIsNearestToTheCause(String failure, String outcome) {
        StandInVehicle v = YARD.built("oriel-finch");
        Breaker breaker = new Breaker(v);
        Breaker.Broken broken =
                breaker.mechanical().stream()
                        .filter(f -> f.of().equals(failure))
                        .findFirst()
                        .flatMap(f -> breaker.breakPart(f, 0.4, false))
                        .orElseThrow();
        DepartureStudy.Judgement judgement = ScopedCapture.leaving(v).orElseThrow();
        assertThat(judgement.outcome()).as("%s", judgement).isEqualTo(outcome);
        // the module stopped the injector in both; it is the last to leave
        List<DepartureStudy.Departure> order = judgement.order();
        assertThat(order.get(order.size() - 1).role()).isEqualTo(LaneRole.INJECTOR);

        Robot robot = new Robot(v, RANDOM);
        Robot.Ended ended = robot.follow(YARD.reasoners("oriel-finch"), robot.told(broken));
        assertThat(ended.ranking().standings().get(0).suspectId())
                .as("%s after %s", ended.ranking().sentence(), ended.found())
                .isEqualTo(failure);
        // to learn the crank costs little: it may be done on trial before all is sure
        assertThat(ended.ranking().sureness())
                .as("%s after %s", ended.ranking().standings().subList(0, 4), ended.found())
                .isGreaterThan(Ranking.POINTED_AT);
        assertThat(ended.found()).contains(new Evidence.Outcome("left-first", outcome));
    }

    @Test
    void whereNothingIsWrongNoneLeaves() {
        StandInVehicle v = YARD.built("oriel-finch");
        v.whole();
        DepartureStudy.Judgement judgement = ScopedCapture.leaving(v).orElseThrow();
        assertThat(judgement.holds()).as("%s", judgement).isTrue();
        assertThat(judgement.reasons()).hasSize(3);
    }
}
