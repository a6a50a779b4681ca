package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.standin.plant.Boards;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A module that is silent for want of supply or earth is told from one that is dead. */
class FedModulesTest {
    private static final Random RANDOM = new Random(17);
    private static final Yard YARD = Yard.common();

    private static Breaker.Broken broken(Breaker breaker, String part, String how) {
        Part.Failure failure =
                breaker.breakable().stream()
                        .filter(f -> f.of().equals(part) && f.name().endsWith(how))
                        .findFirst()
                        .orElseThrow();
        return breaker.breakPart(failure, 0.8, false).orElseThrow();
    }

    private static Robot.Ended followed(StandInVehicle v, String vehicle, Breaker.Broken broken) {
        Robot robot = new Robot(v, RANDOM);
        List<Evidence> told = new ArrayList<>(robot.told(broken));
        told.add(robot.listened());
        return robot.follow(YARD.reasoners(vehicle), told);
    }

    @ParameterizedTest(name = "{0}: {1} {2}")
    @CsvSource({
        "tamarack-portage, F11, too much resistance",
        "oriel-finch, E-module-climate, too much resistance",
        "oriel-finch, G05, open",
        "velmont-cairn, W-module-camera, too much resistance",
        "velmont-cairn, C-X204.30, comes and goes",
        "quillon-ember, W-supply-f12, blows Fuse F12 10 A",
        "quillon-ember, dead-camera, dead",
        "stonebarrow-wl9, F08, comes and goes",
        "stonebarrow-wl9, dead-lever, dead"
    })
    void whatFeedsAModuleIsNamed(String vehicle, String part, String how) {
        StandInVehicle v = YARD.built(vehicle);
        Breaker.Broken broken = broken(new Breaker(v), part, how);
        Robot.Ended ended = followed(v, vehicle, broken);
        String lead = ended.ranking().standings().get(0).suspectId();
        assertThat(
                        part.startsWith("dead-")
                                ? lead.replaceFirst("^wire-", "")
                                : Robot.part(YARD.vehicle(vehicle), lead))
                .as("%s after %s", ended.ranking().sentence(), ended.found())
                .isIn(YARD.vehicle(vehicle).wiring().alike(part));
        v.repair(YARD.vehicle(vehicle).suspect(lead).orElseThrow().repair().id());
        v.live(3);
        assertThat(((Evidence.Heard) new Robot(v, RANDOM).listened()).call().calls().values())
                .as("all answer once it is mended")
                .allMatch(t -> t.answered() == t.asked());
    }

    /**
     * A cable that would leave lamps and starter dead too is no likely cause where none is told.
     */
    @Test
    void aBusIsNotTakenForACable() {
        StandInVehicle v = YARD.built("oriel-heron");
        Breaker.Broken broken = broken(new Breaker(v), "gap-drive-1", "");
        Robot robot = new Robot(v, RANDOM);
        List<Evidence> told = new ArrayList<>(robot.told(broken));
        told.add(robot.listened());
        assertThat(YARD.reasoners("oriel-heron").of(told).rank(told).standings())
                .filteredOn(s -> s.suspectId().equals("circuit-W10"))
                .allMatch(s -> s.sureness() < 0.2);
    }

    /** What is lost on the way arrives neither at the module nor at the meter. */
    @Test
    void aModuleTellsWhatArrivesAtItsPins() {
        StandInVehicle v = YARD.built("oriel-finch");
        String supply = Boards.supplyOf("body");
        double before = v.reading(supply);
        v.simulation().fail(VehicleSimulation.CIRCUITS, "series", "F17", 2);
        v.live(1);
        double after = v.reading(supply);
        assertThat(before - after).isBetween(1.0, 5.0);
        assertThat(v.simulation().volts("F17").orElseThrow()).isCloseTo(after, Offset.offset(0.4));
        assertThat(v.wires().alive("body", v.simulation().seconds())).isTrue();
        v.simulation().fail(VehicleSimulation.CIRCUITS, "series", "F17", 40);
        assertThat(v.wires().alive("body", v.simulation().seconds())).isFalse();
        assertThat(v.wires().alive("cluster", v.simulation().seconds())).isTrue();
    }
}
