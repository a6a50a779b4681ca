package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.circuit.Shorts;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.Breaker;
import brightlantern.standin.Shipped;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Any part of a stand-in's circuits can break, it shows by physics, and its repair mends it. */
class CircuitsTest {
    static Stream<String> vehicles() {
        return Shipped.library().descriptions().stream().map(VehicleDescription::id);
    }

    private static StandInVehicle vehicle(String id) {
        VehicleDescription d = Shipped.derived(id);
        return StandIns.of(d, StandIns.AS_BUILT, 417);
    }

    private static Part.Failure failure(StandInVehicle v, String part) {
        return new Breaker(v)
                .breakable().stream().filter(f -> f.of().equals(part)).findFirst().orElseThrow();
    }

    private static String seen(Circuits c, String name) {
        return c.seen().stream()
                .filter(s -> s.name().equals(name))
                .map(Circuits.Seen::state)
                .findFirst()
                .orElse("nothing");
    }

    @ParameterizedTest
    @MethodSource("vehicles")
    void worksAsBuiltAndEveryBreakIsNoticed(String id) {
        StandInVehicle v = vehicle(id);
        Circuits c = v.simulation().circuits().orElseThrow();
        assertThat(
                        new EverydayUse(c)
                                .used(
                                        (module, code, failed) ->
                                                assertThat(failed).as(code).isFalse()))
                .isEmpty();
        Random random = new Random(id.hashCode());
        for (int i = 0; i < 12; i++) {
            Breaker.Broken broken =
                    new Breaker(v).breakSomething(new Breaker(v).inCircuits(), random, false);
            assertThat(broken.complaint()).isNotBlank();
            new Breaker(v).breakable().forEach(f -> c.mend(f.of()));
            assertThat(new EverydayUse(c).used((module, code, failed) -> {}))
                    .as(broken.truth())
                    .isEmpty();
        }
    }

    @Test
    void aBurntLampIsDarkItsNeighbourIsNotAndItsModuleSaysSo() {
        StandInVehicle v = vehicle("oriel-heron");
        Circuits c = v.simulation().circuits().orElseThrow();
        Optional<Breaker.Broken> broken =
                new Breaker(v).breakPart(failure(v, "low-left"), 0, false);
        assertThat(broken.orElseThrow().complaint()).contains("Left low beam dark", "low beam on");
        assertThat(v.module("body").memory().failed(0x90A113)).isTrue();
        assertThat(seen(c, "Left low beam")).isEqualTo("nothing");
        c.set("K41-on", true);
        assertThat(seen(c, "Left low beam")).isEqualTo("dark");
        assertThat(seen(c, "Right low beam")).isEqualTo("bright");
        // a lamp that draws nothing loses only what the other one draws through the shared wire
        assertThat(c.volts("X30.2").orElseThrow()).isCloseTo(v.reading("body.supply"), within(0.6));
        assertThat(c.volts("X30.5").orElseThrow()).isCloseTo(0, within(0.05));
        v.repair("repair-circuit-low-left");
        assertThat(seen(c, "Left low beam")).isEqualTo("bright");
    }

    /** A new fuse blows again; a lamp in its place finds the body, and eyes find the wire. */
    @Test
    void aWireThatTouchesTheBodyBlowsItsFuseUntilItIsMended() {
        StandInVehicle v = vehicle("oriel-heron");
        Circuits c = v.simulation().circuits().orElseThrow();
        Part.Failure failure =
                new Breaker(v)
                        .inCircuits().stream()
                                .filter(f -> f.mode().equals("shorted"))
                                .filter(f -> f.name().contains("Brake lamps"))
                                .findFirst()
                                .orElseThrow();
        assertThat(c.hands().behind("F64")).isEqualTo(Shorts.Glow.DARK);
        Breaker.Broken broken = new Breaker(v).breakPart(failure, 0, false).orElseThrow();
        assertThat(broken.complaint()).contains("brake lamp");
        assertThat(c.hands().behind("F64")).isNotEqualTo(Shorts.Glow.DARK);
        assertThat(c.hands().behind("F65")).isEqualTo(Shorts.Glow.DARK);
        assertThat(c.hands().along(failure.of())).isEqualTo(Along.RUBBED);
        v.repair("repair-circuit-F64");
        assertThat(new EverydayUse(c).used((m, code, failed) -> {}))
                .as("a new fuse alone")
                .isNotEmpty();
        v.repair("repair-circuit-" + failure.of() + "-shorted");
        assertThat(new EverydayUse(c).used((m, code, failed) -> {})).isEmpty();
        assertThat(c.hands().along(failure.of())).isEqualTo(Along.CLEAN);
        assertThatThrownBy(() -> c.hands().behind("F999")).hasMessageContaining("F999");
        assertThatThrownBy(() -> c.hands().along("W-none")).hasMessageContaining("W-none");
    }

    @Test
    void aSensorWithoutItsWireTellsTheEndOfItsRange() {
        StandInVehicle v = vehicle("oriel-finch");
        Circuits c = v.simulation().circuits().orElseThrow();
        double before = v.reading("coolant");
        assertThat(before).isBetween(0.0, 120.0);
        c.set("unplug-X83", true);
        assertThat(v.reading("coolant")).isEqualTo(-40, within(2.0));
        assertThat(c.volts("X83.1").orElseThrow()).isCloseTo(5, within(0.05));
        v.live(3);
        assertThat(v.module("engine").memory().failed(0x011815)).isTrue();
        c.set("unplug-X83", false);
        assertThat(v.reading("coolant")).isCloseTo(before, within(2.0));
    }

    /** What several circuits share is fed by the supply of now, not by what each saw last. */
    @Test
    void aSharedPointFollowsTheSupply() {
        StandInVehicle v = vehicle("oriel-finch");
        Circuits c = v.simulation().circuits().orElseThrow();
        for (int i = 0; i < 2; i++) {
            v.simulation().driver(Driver.away().key(2));
            v.live(2);
            assertThat(c.volts("FBE").orElseThrow())
                    .isCloseTo(v.reading("body.supply"), within(0.2));
            v.simulation().crank();
            v.live(20);
            assertThat(v.reading("body.supply")).isGreaterThan(13.5);
            assertThat(c.volts("FBE").orElseThrow())
                    .isCloseTo(v.reading("body.supply"), within(0.2));
            v.simulation().driver(Driver.away());
            v.live(5);
        }
    }

    @Test
    void whatIsNotThereIsTold() {
        Circuits c = vehicle("oriel-finch").simulation().circuits().orElseThrow();
        assertThat(c.volts("X999.1")).isEmpty();
        assertThatThrownBy(() -> c.set("K999-on", true)).hasMessageContaining("K999-on");
        assertThatThrownBy(() -> c.fail("series", "K999", 1)).hasMessageContaining("K999");
        assertThatThrownBy(() -> c.hands().pins("X999")).hasMessageContaining("X999");
        assertThat(c.hands().pins("X83")).contains("clean");
        c.fail("series", "C-X83.1", 1e6);
        assertThat(c.hands().pins("X83")).isEqualTo("Pin 1 of X83 is corroded or loose.");
    }
}
