package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.network.ControlModule;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * One module sends without an end and nobody else comes to his turn: ohms are right, both ends look
 * the same, and only its plug tells which one it is.
 */
class HeldBusTest {
    private static final String ID = "oriel-finch";
    private static final String BUS = "body";

    private final Yard yard = Yard.common();

    static Stream<String> modules() {
        return Shipped.vehicle(ID).onWire(BUS).stream().map(ControlModule::id);
    }

    private static Breaker.Broken held(StandInVehicle v, String module) {
        Breaker breaker = new Breaker(v);
        return breaker.breakPart(
                        breaker.onNetwork().stream()
                                .filter(f -> f.of().equals("babbling-" + module))
                                .findFirst()
                                .orElseThrow(),
                        0.5,
                        false)
                .orElseThrow();
    }

    @ParameterizedTest
    @MethodSource("modules")
    void theModuleThatHoldsItIsNamed(String module) {
        StandInVehicle v = yard.built(ID);
        Robot robot = new Robot(v, new Random(9));
        List<Evidence> told = new ArrayList<>(robot.told(held(v, module)));
        told.add(robot.listened());
        Robot.Ended ended = robot.follow(yard.reasoners(ID), told);
        assertThat(ended.ranking().accused().orElseThrow().suspectId())
                .isEqualTo(NetworkSuspects.PREFIX + "babbling-" + module);
        assertThat(ended.checks()).isLessThanOrEqualTo(4);
    }

    @Test
    void whoPullsThePlugsIsToldWhatHappens() {
        StandInVehicle v = yard.built(ID);
        assertThat(v.tools().names()).containsKey("pulled-" + BUS);
        assertThat(v.tools().measure("pulled-" + BUS)).startsWith("Nothing changes");
        held(v, "cluster");
        assertThat(v.tools().measure("pulled-" + BUS))
                .isEqualTo("The others answer again without the plug of: Instrument cluster.");
    }
}
