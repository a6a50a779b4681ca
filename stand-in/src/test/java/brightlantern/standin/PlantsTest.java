package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.study.map.Axis;
import brightlantern.core.study.map.OperatingMap;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import brightlantern.standin.plant.CellPack;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EngineSpec;
import brightlantern.standin.plant.InjectionRail;
import brightlantern.standin.plant.PlainPlant;
import brightlantern.standin.plant.Spark;
import java.util.ArrayList;
import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Plants that are worth watching: enough values, all of them alive and sane however one drives. */
class PlantsTest {
    private static final int ENGINE_VALUES = 60;
    private static final int LARGE_VALUES = 400;

    private static VehicleDescription description(String id) throws Exception {
        VehicleLibrary library = Shipped.library();
        assertThat(library.mistakes()).isEmpty();
        return library.byId(id).orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "oriel-finch",
                "velmont-cairn",
                "quillon-ember",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void everyValueIsFiniteInEveryProgramAndFitsItsBytes(String id) throws Exception {
        VehicleDescription d = description(id);
        assertThat(d.values().stream().filter(v -> v.module().equals("engine")).count())
                .isGreaterThanOrEqualTo(ENGINE_VALUES);
        for (String scenario : StandIns.scenarios(id)) {
            StandInVehicle vehicle = StandIns.of(d, scenario, 512);
            VehicleSimulation simulation = vehicle.simulation();
            simulation.crank();
            for (Driver.Program program : Driver.Program.values()) {
                simulation.driver(simulation.driver().drive(program));
                vehicle.live(25);
                for (Value value : d.values()) {
                    double read = simulation.reading(value.id()).orElseThrow();
                    assertThat(read).as("%s in %s", value.id(), program).isFinite();
                    double carried = Scaling.physical(value, Scaling.raw(value, read));
                    assertThat(carried)
                            .as("%s in %s as its bytes carry it", value.id(), program)
                            .isCloseTo(
                                    read,
                                    Offset.offset(
                                            value.isState() ? 0 : 0.51 * value.scale() + 1e-6));
                }
            }
        }
    }

    @Test
    void aLargeVehicleHasHundredsOfValues() throws Exception {
        assertThat(description("quillon-ember").values()).hasSizeGreaterThanOrEqualTo(LARGE_VALUES);
        assertThat(description("tamarack-portage").values())
                .filteredOn(v -> v.module().equals("engine"))
                .hasSizeGreaterThanOrEqualTo(ENGINE_VALUES);
    }

    @Test
    void theBadSenseLeadFollowsTheCurrentAndNotTheCharge() {
        CellPack pack = new CellPack(3).badLead(37, 40);
        Driven driven = new Driven(new PlainPlant(1000, 10), pack);
        driven.start(Driver.Program.STAND, 30);
        double resting = lag(driven.record(cells(), 5));
        driven.drive(Driver.Program.PULL, 10);
        double pulling = lag(driven.record(cells(), 5));
        driven.drive(Driver.Program.STAND, 60);
        double again = lag(driven.record(cells(), 5));
        assertThat(pulling).isGreaterThan(0.02);
        assertThat(resting).isLessThan(0.02);
        assertThat(again).isLessThan(0.02);
    }

    private static List<String> cells() {
        return List.of("cell.36", "cell.37", "cell.38");
    }

    private static double lag(Take take) {
        return (take.at("cell.36", 2) + take.at("cell.38", 2)) / 2 - take.at("cell.37", 2);
    }

    @Test
    void aWornPumpMeetsItsTargetWithoutHeadroomBeforeItMissesIt() {
        EngineSpec spec = StandIns.engine("stonebarrow-wl9");
        double[] duty = new double[3];
        double[] missing = new double[3];
        double[] shares = {1, 0.55, 0.3};
        for (int i = 0; i < shares.length; i++) {
            Driven driven =
                    new Driven(
                            new PlainPlant(1000, 10), new InjectionRail(spec, 1).worn(shares[i]));
            driven.start(Driver.Program.CLIMB, 40);
            Take take = driven.record(List.of("rail.target", "rail.pressure", "rail.duty"), 5);
            duty[i] = take.at("rail.duty", 4);
            missing[i] = take.at("rail.target", 4) - take.at("rail.pressure", 4) / 1000;
        }
        assertThat(missing[0]).isLessThan(2);
        assertThat(missing[1]).isLessThan(2);
        assertThat(duty[1]).isGreaterThan(duty[0] + 10);
        assertThat(missing[2]).isGreaterThan(5);
        assertThat(duty[2]).isGreaterThan(90);
    }

    @Test
    void aMapOfTwentyDrivesAgreesWithThePlantsOwnTable() {
        EngineSpec spec = StandIns.engine("oriel-finch");
        List<OperatingMap.Drive> drives = new ArrayList<>();
        Driver.Program[] how = {
            Driver.Program.STOP_AND_GO,
            Driver.Program.PULL,
            Driver.Program.CRUISE,
            Driver.Program.OVERRUN,
            Driver.Program.CLIMB
        };
        List<String> ids = List.of("engine.speed", "engine.load", "ignition.wanted");
        for (int drive = 0; drive < 20; drive++) {
            Driven driven = new Driven(new PlainPlant(1000, 10), new Spark(spec, drive));
            driven.start(how[drive % how.length], 5 + drive);
            drives.add(
                    OperatingMap.Drive.of(
                            driven.record(ids, 120), ids.get(0), ids.get(1), ids.get(2), 0.5));
        }
        Axis speeds = Axis.typed("engine.speed", "700 1000 1400 1800 2200 2600 3000 3400");
        Axis loads = Axis.typed("engine.load", "0 8 16 24 32 45 60 75 101");
        OperatingMap map = OperatingMap.of("ignition.wanted", speeds, loads, drives);
        int judged = 0;
        int agree = 0;
        for (int c = 0; c < speeds.cells(); c++) {
            for (int r = 0; r < loads.cells(); r++) {
                OperatingMap.Cell cell = map.cell(c, r);
                if (cell.visits() < 4) {
                    continue;
                }
                judged++;
                double table = Spark.table(cell.atX(), cell.atY());
                agree += Math.abs(cell.mean() - table) <= Math.max(cell.within(), 0.2) ? 1 : 0;
            }
        }
        assertThat(judged).isGreaterThan(15);
        assertThat(agree).isGreaterThanOrEqualTo((int) Math.ceil(0.95 * judged));
    }
}
