package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.network.Bus;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What healthy captures look like: the studies themselves find nothing wrong in them. */
class ExpectedCaptureTest {
    private static Capture expected(CapturePlan plan, Cylinders its) {
        return ExpectedCapture.of(plan, Optional.of(its), Optional.empty()).orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage", "oriel-finch", "stonebarrow-wl9"})
    void anEngineHasAPulseForEachCylinder(String id) {
        Cylinders its = Vehicles.named(id).cylinders().orElseThrow();
        Capture cranking = expected(CrankedPlans.cranking(its), its);
        // a firing in each of two cycles, and as many compressions in them as there are cylinders
        assertThat(
                        Pulses.of(
                                        cranking.lane(LaneRole.FIRST_CYLINDER).orElseThrow(),
                                        cranking.interval())
                                .orElseThrow()
                                .rises())
                .hasSize(2);
        assertThat(
                        Pulses.of(
                                        cranking.lane(LaneRole.STARTER_CURRENT).orElseThrow(),
                                        cranking.interval())
                                .orElseThrow()
                                .rises()
                                .size())
                .isBetween(2 * its.order().size() - 1, 2 * its.order().size());
        Capture pressure = expected(CrankedPlans.pressure(its.order().get(1), "the plug"), its);
        assertThat(pressure.lanes().get(0).most())
                .isCloseTo(101.3 * Math.pow(its.ratio(), 1.3), within(300.0));
    }

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage", "oriel-finch"})
    void whatIsExpectedHolds(String id) {
        VehicleDescription d = Vehicles.named(id);
        Cylinders its = d.cylinders().orElseThrow();
        assertThat(
                        StartingStudy.judge(expected(CrankedPlans.starting(), its))
                                .orElseThrow()
                                .holds())
                .isTrue();
        Bus bus = d.buses().get(0);
        Capture wires =
                ExpectedCapture.of(
                                CapturePlans.bus(bus, "here", "there"),
                                Optional.of(its),
                                Optional.of(bus))
                        .orElseThrow();
        assertThat(wires.lane(LaneRole.HIGH_NEAR).orElseThrow().most())
                .isCloseTo(3.5, within(0.01));
        assertThat(wires.lane(LaneRole.LOW_FAR).orElseThrow().least()).isCloseTo(1.5, within(0.01));
    }

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage"})
    void aPointIsToldByItsSheet(String id) {
        VehicleDescription d = Vehicles.named(id);
        assertThat(
                        ExpectedCapture.of(
                                CapturePlans.point(
                                        d.circuits().get(0), d.circuits().get(0).points().get(0)),
                                d.cylinders(),
                                Optional.empty()))
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage", "oriel-finch", "stonebarrow-wl9", "velmont-cairn"})
    void lanesAreToldWithThePointThatIsReachedSoonest(String id) {
        VehicleDescription d = Vehicles.derived(id);
        Cylinders its = d.cylinders().orElseThrow();
        CapturePlan teeth = CapturePlaces.of(CapturePlans.teeth(its), d.circuits());
        assertThat(teeth.lanes())
                .allSatisfy(
                        l ->
                                assertThat(l.told())
                                        .matches(
                                                "signal wire of .*: soonest at .*, .* \\(\\d+ min\\)"));
        CapturePlan currents = CapturePlaces.of(CapturePlans.currents(its, false), d.circuits());
        assertThat(currents.lanes()).allSatisfy(l -> assertThat(l.told()).contains("soonest at"));
        CapturePlan ripple = CapturePlaces.of(CapturePlans.ripple(), d.circuits());
        assertThat(ripple.lanes()).isEqualTo(CapturePlans.ripple().lanes());
    }
}
