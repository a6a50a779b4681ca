package brightlantern.standin.network;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.bus.BusStudy;
import brightlantern.core.capture.bus.CanFrame;
import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.WireState;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.Shipped;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Both ends of a bus before the oscilloscope: what is wrong with its wires, and where. */
class BusWiresSeenTest {
    private static final double FOREVER = Double.POSITIVE_INFINITY;
    private static final double SAMPLES_PER_BIT = 10;
    private static final double SECONDS = 0.05;

    private final VehicleDescription cairn = Shipped.library().byId("velmont-cairn").orElseThrow();

    private BusStudy.Judgement seen(String busId, WireFault... faults) {
        return seen(cairn, busId, faults);
    }

    private static BusStudy.Judgement seen(
            VehicleDescription of, String busId, WireFault... faults) {
        return without("", of, busId, faults);
    }

    /** One module is not fitted. */
    private static BusStudy.Judgement without(
            String missing, VehicleDescription of, String busId, WireFault... faults) {
        BusWires wires = new BusWires(of, new Random(3));
        for (WireFault fault : faults) {
            wires.add(fault);
        }
        BusScope scope =
                new BusScope(of, wires, m -> !m.equals(missing), () -> true, new Random(5));
        Bus bus = of.buses().stream().filter(b -> b.id().equals(busId)).findFirst().orElseThrow();
        double interval = 1 / (bus.rate().fastest() * 1000 * SAMPLES_PER_BIT);
        List<String> places = new ArrayList<>();
        for (String place : List.of("high-near", "low-near", "high-far", "low-far")) {
            places.add("can-" + busId + "-" + place);
        }
        assertThat(places).allMatch(scope::knows);
        Map<String, double[]> felt = scope.feel(places, 10, SECONDS, (int) (SECONDS / interval));
        List<Lane> lanes = new ArrayList<>();
        List<LaneRole> roles =
                List.of(LaneRole.HIGH_NEAR, LaneRole.LOW_NEAR, LaneRole.HIGH_FAR, LaneRole.LOW_FAR);
        for (int i = 0; i < roles.size(); i++) {
            lanes.add(
                    Lane.of(roles.get(i).words(), roles.get(i), "V", "", felt.get(places.get(i))));
        }
        List<BusStudy.Station> stations =
                BusStudy.stations(
                        of.network(),
                        busId,
                        of.onWire(busId).stream()
                                .map(ControlModule::id)
                                .filter(m -> !m.equals(missing))
                                .collect(Collectors.toSet()));
        return BusStudy.judge(new Capture(interval, lanes), bus.rate(), stations).orElseThrow();
    }

    private static WireFault.Broken broken(String bus, int at, WireFault.Wire wire, double ohm) {
        return new WireFault.Broken("x", bus, at, wire, ohm, FOREVER, 0);
    }

    @Test
    void soundWiresCarryEveryFrame() {
        for (Bus bus : cairn.buses()) {
            BusStudy.Judgement judgement = seen(bus.id());
            assertThat(judgement.state()).as("%s", judgement).isEqualTo(WireState.SOUND);
            assertThat(judgement.wrong()).isZero();
            assertThat(judgement.levels()).allMatch(l -> l.frames() >= 4);
            assertThat(judgement.sent()).allMatch(s -> s.odd().isEmpty());
            assertThat(judgement.reasons())
                    .anySatisfy(
                            r ->
                                    assertThat(r)
                                            .startsWith("At the far end a bit lasts ")
                                            .contains(
                                                    "%.3f µs (%<.3f are right)"
                                                            .formatted(1000.0 / bus.kbit()))
                                            .endsWith("both move alike."));
        }
    }

    /**
     * Frames with flexible data rate come through as they were sent, and a broken wire is found.
     */
    @Test
    void framesWithAFasterRateAreReadAsWell() {
        VehicleDescription ember = Shipped.library().byId("quillon-ember").orElseThrow();
        BusStudy.Judgement sound = seen(ember, "drive");
        assertThat(sound.state()).as("%s", sound.reasons()).isEqualTo(WireState.SOUND);
        assertThat(sound.wrong()).isZero();
        assertThat(sound.levels()).allMatch(l -> l.frames() >= 4);
        assertThat(sound.frames())
                .allMatch(f -> f.sound() && f.acknowledged())
                .allMatch(f -> f.fd().filter(CanFrame.Fd::faster).isPresent());
        assertThat(sound.frames().stream().map(f -> f.data().length).distinct())
                .contains(8, 12, 16, 20, 24);
        BusStudy.Judgement low = seen(ember, "drive", broken("drive", 1, WireFault.Wire.LOW, 1e6));
        assertThat(low.state()).as("%s", low.reasons()).isEqualTo(WireState.LOW_OPEN);
        assertThat(low.at()).contains(1);
    }

    /** Who is not there does not tell on which side of its plug the wire is open. */
    @Test
    void aBreakBesideAnEmptyPlugMayBeOnBothSidesOfIt() {
        List<String> body = cairn.onWire("body").stream().map(ControlModule::id).toList();
        int trailer = body.indexOf("trailer") + 1;
        for (int at : new int[] {trailer - 1, trailer}) {
            BusStudy.Judgement judgement =
                    without("trailer", cairn, "body", broken("body", at, WireFault.Wire.HIGH, 1e6));
            assertThat(judgement.at()).contains(trailer - 1);
            assertThat(judgement.upTo()).isEqualTo(trailer);
            assertThat(judgement.sentence()).doesNotContain("Trailer");
        }
        BusStudy.Judgement fitted = seen("body", broken("body", trailer, WireFault.Wire.HIGH, 1e6));
        assertThat(fitted.at()).contains(trailer);
        assertThat(fitted.upTo()).isEqualTo(trailer);
    }

    private double ohms(String busId, WireFault... faults) {
        BusWires wires = new BusWires(cairn, new Random(3));
        for (WireFault fault : faults) {
            wires.add(fault);
        }
        return wires.ohms(busId, 10);
    }

    /** 120 Ω at either end, beside the modules' own tens of kilohms (ISO 11898-2). */
    @Test
    void aMeterOnOhmsTellsResistorsWiresAndShorts() {
        String bus = "chassis";
        int last = cairn.onWire(bus).size();
        assertThat(ohms(bus)).isBetween(59.0, 62.0);
        for (int at = 0; at < last; at++) {
            assertThat(ohms(bus, broken(bus, at, WireFault.Wire.LOW, 1e6)))
                    .as("open behind station " + at)
                    .isBetween(115.0, 122.0);
        }
        assertThat(ohms(bus, broken(bus, 1, WireFault.Wire.BOTH, 10))).isBetween(61.0, 67.0);
        assertThat(ohms(bus, new WireFault.Unterminated("x", bus, last, FOREVER, 0)))
                .isBetween(115.0, 122.0);
        assertThat(ohms(bus, new WireFault.Shorted("x", bus, 3, FOREVER, 0))).isLessThan(4);
        assertThat(ohms("body", new WireFault.Shorted("x", bus, 3, FOREVER, 0)))
                .as("another bus")
                .isGreaterThan(50);
    }

    @Test
    void aBrokenWireIsNamedWithItsPlace() {
        int stations = cairn.onWire("chassis").size();
        for (int at = 0; at < stations; at++) {
            for (double ohm : new double[] {800, 1e6}) {
                BusStudy.Judgement high =
                        seen("chassis", broken("chassis", at, WireFault.Wire.HIGH, ohm));
                assertThat(high.state()).as("%s", high).isEqualTo(WireState.HIGH_OPEN);
                assertThat(high.at()).as("%s", high).isEqualTo(Optional.of(at));
                BusStudy.Judgement low =
                        seen("chassis", broken("chassis", at, WireFault.Wire.LOW, ohm));
                assertThat(low.state()).as("%s", low).isEqualTo(WireState.LOW_OPEN);
                assertThat(low.at()).isEqualTo(Optional.of(at));
            }
            BusStudy.Judgement both =
                    seen("chassis", broken("chassis", at, WireFault.Wire.BOTH, 1e6));
            assertThat(both.state()).as("%s", both).isEqualTo(WireState.BOTH_OPEN);
            assertThat(both.at()).isEqualTo(Optional.of(at));
        }
    }

    @Test
    void whatIsNoBreakIsToldApart() {
        assertThat(seen("chassis", new WireFault.Shorted("x", "chassis", 2, FOREVER, 0)).state())
                .isEqualTo(WireState.SHORTED);
        assertThat(
                        seen("chassis", new WireFault.Unterminated("x", "chassis", 0, FOREVER, 0))
                                .state())
                .isEqualTo(WireState.UNTERMINATED);
        assertThat(seen("chassis", new WireFault.Babbling("x", "steering", FOREVER, 0)).state())
                .isEqualTo(WireState.BABBLING);
        BusStudy.Judgement dead = seen("chassis", new WireFault.Dead("x", "steering", FOREVER, 0));
        assertThat(dead.state()).isEqualTo(WireState.SOUND_WITHOUT);
        assertThat(dead.reasons()).anyMatch(r -> r.contains("Steering assist"));
        assertThat(seen("body", new WireFault.Shorted("x", "chassis", 2, FOREVER, 0)).state())
                .as("another bus")
                .isEqualTo(WireState.SOUND);
    }
}
