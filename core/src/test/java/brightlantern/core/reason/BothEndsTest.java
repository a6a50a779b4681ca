package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class BothEndsTest {
    private static final String WIRE = "circuit-W-interlock-loop-motor";

    private final VehicleDescription ember = Vehicles.derived("quillon-ember");

    private static Evidence read(String circuit, String point, double volts) {
        return new Evidence.Reading(
                circuit, point, "nothing", List.of(), volts, 12.5, false, Map.of());
    }

    /** At the other end of the wire, with all plugged in. */
    private static void isReadAtWork(NextCheck next) {
        assertThat(reading(next).point()).isEqualTo("X253.11");
        assertThat(reading(next).moving()).isEmpty();
    }

    private static Check.Reading reading(NextCheck next) {
        return (Check.Reading) next.check();
    }

    /**
     * What is unplugged tells more at times, but nothing is lost on a wire that carries nothing.
     */
    @Test
    void whatIsLostOnAWireIsReadWhileItCarriesSomething() {
        List<Evidence> found = List.of(read("interlock", "X252.8", 9.68));
        List<NextCheck> next =
                new Reasoners(ember)
                        .of(found).nextChecks(found, 12.5).stream()
                                .filter(n -> n.check() instanceof Check.Reading)
                                .map(
                                        n ->
                                                new NextCheck(
                                                        n.check(),
                                                        BothEnds.isUnplugged(n) ? 2 : 1,
                                                        0,
                                                        0,
                                                        List::of))
                                .toList();
        assertThat(next)
                .filteredOn(BothEnds::isUnplugged)
                .anyMatch(n -> reading(n).point().equals("X253.11"));
        assertThat(BothEnds.missing(ember, WIRE, found, next))
                .hasValueSatisfying(BothEndsTest::isReadAtWork);
        assertThat(
                        BothEnds.missing(
                                ember,
                                WIRE,
                                List.of(
                                        read("interlock", "X252.8", 9.68),
                                        read("interlock", "X253.11", 3.3)),
                                next))
                .isEmpty();
    }

    @Test
    void whatWasReadWithSomethingUnpluggedIsNoEndOfAWireAtWork() {
        Evidence without =
                new Evidence.Reading(
                        "interlock",
                        "X253.11",
                        "nothing",
                        List.of("unplug-X255"),
                        9.99,
                        12.5,
                        true,
                        Map.of());
        List<Evidence> found = List.of(read("interlock", "X252.8", 9.68), without);
        List<NextCheck> next = new Reasoners(ember).of(found).nextChecks(found, 12.5);
        assertThat(BothEnds.missing(ember, WIRE, found, next))
                .hasValueSatisfying(BothEndsTest::isReadAtWork);
        // where nothing else is left to do there it counts
        assertThat(
                        BothEnds.missing(
                                ember,
                                WIRE,
                                found,
                                next.stream().filter(BothEnds::isUnplugged).toList()))
                .isEmpty();
    }

    /** Where a sensor drives its own wire no voltage tells it from one that touches the body. */
    @Test
    void aSensorIsNotDeadBeforeItsWireWasLookedAlong() {
        VehicleDescription heron = Vehicles.derived("oriel-heron");
        List<Evidence> found = new ArrayList<>();
        heron.circuit("engine-pressures").orElseThrow().points().stream()
                .filter(ProbePoint::canBeProbed)
                .forEach(p -> found.add(read("engine-pressures", p.id(), 0.1)));
        heron.suspect("circuit-oil-pressure-sensor").orElseThrow().tells().keySet().stream()
                .filter(DrawnCircuits::isLook)
                .forEach(f -> found.add(new Evidence.Outcome(f, "clean")));
        String along = DrawnCircuits.along("W-oil-pressure-sensor");
        List<NextCheck> next = new Reasoners(heron).of(found).nextChecks(found, 12.5);
        assertThat(BothEnds.missing(heron, "circuit-oil-pressure-sensor", found, next))
                .hasValueSatisfying(
                        n -> assertThat(((Check.Look) n.check()).finding()).isEqualTo(along));
        found.add(new Evidence.Outcome(along, "clean"));
        assertThat(
                        BothEnds.missing(heron, "circuit-oil-pressure-sensor", found, next)
                                .filter(
                                        n ->
                                                n.check() instanceof Check.Look l
                                                        && l.finding().equals(along)))
                .isEmpty();
    }

    /** A wire that leaks from a live one makes a sensor seem to tell wrong. */
    @Test
    void aSensorIsNotReplacedBeforeItsWireWasReadWithoutIt() {
        Suspect lies =
                ember.suspects().stream()
                        .filter(
                                s ->
                                        s.effect().orElse(null) instanceof Effect.Off o
                                                && !o.misread())
                        .findFirst()
                        .orElseThrow();
        String circuit = ((Effect.Off) lies.effect().orElseThrow()).circuit();
        Set<String> pins =
                ember.circuit(circuit).orElseThrow().points().stream()
                        .map(ProbePoint::id)
                        .collect(Collectors.toSet());
        List<Evidence> found = pins.stream().map(p -> read(circuit, p, 3.1)).toList();
        List<NextCheck> next =
                new Reasoners(ember)
                        .of(found).nextChecks(found, 12.5).stream()
                                .filter(BothEnds::isUnplugged)
                                .toList();
        NextCheck alone = BothEnds.missing(ember, lies.id(), found, next).orElseThrow();
        Check.Reading its = reading(alone);
        assertThat(its.circuit()).isEqualTo(circuit);
        List<Evidence> more = new ArrayList<>(found);
        more.add(
                new Evidence.Reading(
                        its.circuit(),
                        its.point(),
                        its.load(),
                        its.moving(),
                        5,
                        12.5,
                        true,
                        Map.of()));
        assertThat(BothEnds.missing(ember, lies.id(), more, next)).isEmpty();
    }

    /** A contact in a module's own plug is as dumb as the module. */
    @Test
    void aModuleIsNotDeadBeforeItsPlugWasOpened() {
        VehicleDescription heron = NetworkSuspects.added(Vehicles.derived("oriel-heron"));
        Suspect dead =
                heron.suspects().stream()
                        .filter(
                                s ->
                                        s.effect().orElse(null) instanceof Effect.OfElement e
                                                && e.element().equals("dead-climate"))
                        .findFirst()
                        .orElseThrow();
        Check opened =
                new Check.Look("pins-X210", "Open X210", "probe", List.of("pins-X210"), 5, "", "");
        List<NextCheck> looks = List.of(new NextCheck(opened, 0, 0, 0, List::of));
        Check.Look first =
                (Check.Look)
                        BothEnds.missing(heron, dead.id(), List.of(), looks).orElseThrow().check();
        assertThat(first.finding()).isEqualTo("pins-X210");
        assertThat(
                        BothEnds.missing(
                                heron,
                                dead.id(),
                                List.of(new Evidence.Outcome(first.finding(), "clean")),
                                looks))
                .isEmpty();
    }
}
