package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.standin.plant.Part;
import java.net.InetAddress;
import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

/**
 * What the robot does at a stand-in itself it does over real sockets too, and comes to the same.
 */
class OverSocketsTest {
    private static final String ID = "oriel-heron";
    private static final String PART = "W-high-right";

    private static Breaker.Broken broken(StandInVehicle v) {
        Breaker breaker = new Breaker(v);
        Part.Failure open =
                breaker.inCircuits().stream()
                        .filter(f -> f.of().equals(PART))
                        .findFirst()
                        .orElseThrow();
        return breaker.breakPart(open, 1, false).orElseThrow();
    }

    @Test
    void aBrokenWireIsNamedByModulesAndAMeterOverTheWire() throws Exception {
        InetAddress address = InetAddress.getByName("127.0.74.1");
        try (StandInVehicle v = new Yard(new Random(5)).fresh(ID)) {
            v.open(address);
            try (Reach reach = new ReachOverSockets(v, address)) {
                Robot robot = new Robot(v, new Random(6), reach);
                Robot.Ended ended =
                        robot.follow(Shipped.reasoners(ID), robot.toldAndSwept(broken(v)));
                assertThat(ended.named(v.description())).isEqualTo(PART);
                assertThat(ended.found()).hasAtLeastOneElementOfType(Evidence.Reading.class);
            }
        }
    }

    @Test
    void bothWaysReadTheSame() throws Exception {
        InetAddress address = InetAddress.getByName("127.0.74.2");
        try (StandInVehicle v = new Yard(new Random(5)).fresh(ID)) {
            v.open(address);
            broken(v);
            try (Reach wire = new ReachOverSockets(v, address);
                    Reach within = Reach.within(v, new Random(7))) {
                assertThat(wire.volts("F19")).isCloseTo(within.volts("F19"), withinVolts());
                assertThat(wire.value("body.supply"))
                        .isCloseTo(within.value("body.supply"), withinVolts());
                assertThat(wire.answers("engine")).isEqualTo(within.answers("engine")).isTrue();
                assertThat(wire.failed("body")).isEqualTo(within.failed("body"));
                Breaker breaker = new Breaker(v);
                Part.Failure dead =
                        breaker.onNetwork().stream()
                                .filter(f -> f.of().equals("dead-climate"))
                                .findFirst()
                                .orElseThrow();
                breaker.breakPart(dead, 1, true).orElseThrow();
                assertThat(wire.answers("climate")).isEqualTo(within.answers("climate")).isFalse();
                assertThat(wire.value("climate.board.supply")).isNaN();
            }
        }
    }

    private static Offset<Double> withinVolts() {
        return Offset.offset(0.15);
    }
}
