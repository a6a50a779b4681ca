package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.code.Dtc;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.NetworkReasoner;
import brightlantern.core.network.RollCall;
import brightlantern.core.reason.CircuitSuspects;
import brightlantern.core.suspect.Effect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import brightlantern.core.vehicle.Vin;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.plant.Driver;
import brightlantern.wire.Bytes;
import brightlantern.wire.uds.DtcAnswers;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The vehicles of the demo's world, as built and in their scenarios, asked module by module. */
class StandInsTest {
    private static final int STORED = 0x2F;

    private static VehicleDescription description(String id) throws Exception {
        VehicleLibrary library = Shipped.library();
        assertThat(library.mistakes()).isEmpty();
        return library.byId(id).orElseThrow();
    }

    private static Set<String> fitted(VehicleDescription d) {
        return d.modules().stream()
                .filter(m -> m.option().isEmpty())
                .map(ControlModule::id)
                .collect(Collectors.toSet());
    }

    /** Codes that a module tells; empty when it does not answer. */
    private static List<String> codes(StandInVehicle vehicle, String module) throws Exception {
        UdsModule asked = vehicle.module(module);
        List<UdsModule.Reply> replies = asked.handle(Bytes.of(0x19, 0x02, STORED));
        if (replies.isEmpty()) {
            return List.of();
        }
        return DtcAnswers.list(replies.get(replies.size() - 1).data()).stream()
                .map(e -> new Dtc(e.dtc()).toString())
                .toList();
    }

    private static Map<String, List<String>> sweep(StandInVehicle vehicle) throws Exception {
        Map<String, List<String>> all = new HashMap<>();
        for (ControlModule m : vehicle.description().modules()) {
            if (vehicle.module(m.id()) != null) {
                List<String> codes = new ArrayList<>();
                // a flickering module is asked again, as a sweep does
                for (int i = 0; i < 20 && codes.isEmpty(); i++) {
                    codes.addAll(codes(vehicle, m.id()));
                    vehicle.live(0.3);
                }
                all.put(m.id(), codes);
            }
        }
        return all;
    }

    @ParameterizedTest
    @CsvSource({
        "oriel-finch,18",
        "velmont-cairn,31",
        "quillon-ember,42",
        "stonebarrow-wl9,9",
        "oriel-heron,16"
    })
    void asBuiltEveryFittedModuleAnswersAndHoldsNoCode(String id, int modules) throws Exception {
        VehicleDescription d = description(id);
        assertThat(d.modules()).hasSize(modules);
        StandInVehicle vehicle = StandIns.of(d, StandIns.AS_BUILT, 612);
        for (String module : fitted(d)) {
            assertThat(vehicle.module(module).handle(Bytes.of(0x3E, 0x00))).as(module).hasSize(1);
            assertThat(codes(vehicle, module)).as(module).isEmpty();
        }
        assertThat(d.fits(new Vin(vehicle.vin()))).isTrue();
        assertThat(new Vin(vehicle.vin()).checkDigitHolds()).isTrue();
    }

    /** Repairs of other parts change nothing. */
    @ParameterizedTest
    @CsvSource({
        "oriel-finch,purge-valve",
        "quillon-ember,sense-lead",
        "stonebarrow-wl9,valve-5",
        "tamarack-portage,G12"
    })
    void aScenarioSetsCodesAndItsRepairAloneEndsThem(String id, String repair) throws Exception {
        StandInVehicle vehicle = StandIns.of(description(id), StandIns.scenarios(id).get(1), 613);
        String mends = repairOf(vehicle, repair);
        vehicle.repairs().keySet().stream().filter(r -> !r.equals(mends)).forEach(vehicle::repair);
        assertThat(failing(vehicle)).isNotEmpty();
        vehicle.repair(mends);
        assertThat(failing(vehicle)).isEmpty();
    }

    /** The id of a repair, or of the repair of what stands at a place of a circuit. */
    private static String repairOf(StandInVehicle vehicle, String repair) {
        return vehicle.description().suspects().stream()
                .filter(
                        s ->
                                s.effect().orElse(null) instanceof Effect.Series e
                                        && e.of().equals(repair))
                .map(s -> s.repair().id())
                .findFirst()
                .orElse(repair);
    }

    /** Codes after a clear, a start and a drive up a hill; a plug that is open stays told. */
    private static List<String> failing(StandInVehicle vehicle) throws Exception {
        vehicle.description().modules().stream()
                .flatMap(m -> Optional.ofNullable(vehicle.module(m.id())).stream())
                .forEach(m -> m.handle(Bytes.of(0x14, 0xFF, 0xFF, 0xFF)));
        vehicle.simulation().driver(Driver.away().key(2));
        vehicle.simulation().crank();
        vehicle.live(40);
        vehicle.simulation().driver(vehicle.simulation().driver().drive(Driver.Program.CLIMB));
        vehicle.live(60);
        vehicle.simulation().driver(vehicle.simulation().driver().drive(Driver.Program.STAND));
        return sweep(vehicle).values().stream().flatMap(List::stream).toList();
    }

    @Test
    void aPartThatCannotBreakSoIsTold() throws Exception {
        VehicleSimulation finch =
                StandIns.of(description("oriel-finch"), StandIns.AS_BUILT, 615).simulation();
        assertThatThrownBy(() -> finch.fail("mixture", "explodes", "", 1))
                .hasMessageContaining("Mixture cannot break by 'explodes'");
        assertThatThrownBy(() -> finch.fail("wings", "bent", "", 1))
                .hasMessageContaining("There is no part 'wings' in oriel-finch");
        assertThatThrownBy(() -> StandIns.of(description("oriel-finch"), "stolen", 1))
                .hasMessageContaining("expected one of [as built, rough idle after filling up]");
    }

    @Test
    void theCairnLeadsToItsFloorConnectorFromCodesAloneAndSurelyAfterRollCall() throws Exception {
        VehicleDescription d = description("velmont-cairn");
        StandInVehicle vehicle = StandIns.of(d, "warnings after rain", 614);
        Map<String, List<String>> swept = sweep(vehicle);
        long count = swept.values().stream().mapToLong(List::size).sum();
        assertThat(count).isBetween(18L, 34L);
        assertThat(swept.values().stream().flatMap(List::stream).filter(c -> c.equals("B1318-00")))
                .isNotEmpty();
        Set<RollCall.Miss> misses = new HashSet<>();
        swept.forEach(
                (module, codes) ->
                        codes.forEach(
                                code ->
                                        d.code(module, code)
                                                .filter(c -> !c.misses().isEmpty())
                                                .ifPresent(
                                                        c ->
                                                                misses.add(
                                                                        new RollCall.Miss(
                                                                                module,
                                                                                c.misses())))));
        NetworkReasoner reasoner = new NetworkReasoner(d.network());
        NetworkReasoner.Ranking fromCodes =
                reasoner.rank(new RollCall(Map.of(), swept.keySet(), misses), fitted(d));
        assertThat(fromCodes.standings().subList(0, 3))
                .extracting(NetworkReasoner.Standing::id)
                .contains("X31");

        Map<String, RollCall.Tally> calls = new HashMap<>();
        int rounds = 30;
        for (int round = 0; round < rounds; round++) {
            for (String module : fitted(d)) {
                boolean answered = !vehicle.module(module).handle(Bytes.of(0x3E, 0x00)).isEmpty();
                RollCall.Tally before = calls.getOrDefault(module, new RollCall.Tally(0, 0));
                calls.put(
                        module,
                        new RollCall.Tally(
                                before.asked() + 1, before.answered() + (answered ? 1 : 0)));
            }
            vehicle.live(0.5);
        }
        NetworkReasoner.Ranking ranking =
                reasoner.rank(new RollCall(calls, swept.keySet(), misses), fitted(d));
        assertThat(ranking.lead().id()).isEqualTo("X31");
        assertThat(ranking.lead().sureness()).isGreaterThan(0.9);
        assertThat(ranking.sentence()).contains("X31").contains("under the left sill");

        vehicle.repair("wire-X31");
        for (String module : fitted(d)) {
            assertThat(vehicle.module(module).handle(Bytes.of(0x3E, 0x00))).hasSize(1);
        }
    }

    @Test
    void anUnknownScenarioIsTold() throws Exception {
        VehicleDescription d = description("oriel-finch");
        assertThatThrownBy(() -> StandIns.of(d, "no such", 1))
                .hasMessageContaining("expected one of [as built, rough idle");
    }

    /** Whatever is drawn, a long climb shows it; its own repair ends it and no other does. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void aSurpriseIsMendedByItsOwnRepairAlone(long seed) throws Exception {
        VehicleDescription d = CircuitSuspects.added(description("tamarack-portage"));
        StandIns.Surprise surprise = StandIns.surprise(d, seed, 620);
        String place = surprise.failure().of();
        String mends =
                place.equals("boost-hose")
                        ? "boost-hose"
                        : d.suspects().stream()
                                .filter(
                                        s ->
                                                s.effect().stream()
                                                        .anyMatch(
                                                                e ->
                                                                        e.toString()
                                                                                .contains(
                                                                                        "of="
                                                                                                + place
                                                                                                + ",")))
                                .map(s -> s.repair().id())
                                .findFirst()
                                .orElseThrow();
        String repair =
                place.equals("boost-hose") ? d.suspect(mends).orElseThrow().repair().id() : mends;
        StandInVehicle van = surprise.vehicle();
        assertThat(lag(van)).as(surprise.truth()).isGreaterThan(22);
        van.repairs().keySet().stream().filter(r -> !r.equals(repair)).forEach(van::repair);
        assertThat(lag(van)).as(surprise.truth() + ", others mended").isGreaterThan(22);
        van.repair(repair);
        assertThat(lag(van)).as(surprise.truth() + ", mended").isLessThan(20);
    }

    /** Largest lag of boost behind its target on a climb of a minute, kPa. */
    private static double lag(StandInVehicle van) {
        VehicleSimulation s = van.simulation();
        s.driver(Driver.away());
        van.live(3);
        s.driver(Driver.away().key(2));
        van.live(2);
        s.crank();
        van.live(4);
        s.driver(s.driver().drive(Driver.Program.CLIMB));
        van.live(15);
        double worst = 0;
        for (int i = 0; i < 450; i++) {
            van.live(0.1);
            worst =
                    Math.max(
                            worst,
                            s.reading("boost.target").orElseThrow() / 10
                                    - s.reading("boost.actual").orElseThrow());
        }
        return worst;
    }
}
