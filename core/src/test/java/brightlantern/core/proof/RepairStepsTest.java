package brightlantern.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.reason.Reasoners;
import brightlantern.core.suspect.Afterwards;
import brightlantern.core.suspect.RepairStep;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** How repairs are done, on all described vehicles. */
class RepairStepsTest {
    @Test
    void whatIsDescribedStandsAndTheRestFollowsFromTheKindOfPart() {
        VehicleDescription portage = Vehicles.derived("tamarack-portage");
        assertThat(steps(portage, "earth-g12"))
                .extracting(RepairStep::tightened)
                .contains("10 N·m");
        List<RepairStep> wire =
                portage.suspects().stream()
                        .filter(Reasoners::isDerived)
                        .filter(s -> s.id().matches("circuit-W-.*[0-9]"))
                        .findFirst()
                        .map(s -> RepairSteps.of(s, portage.circuits()))
                        .orElseThrow();
        assertThat(
                        RepairSteps.reached(
                                portage.suspect("circuit-brake-left").orElseThrow(),
                                portage.circuits()))
                .get()
                .satisfies(p -> assertThat(p.place()).isNotEmpty())
                .satisfies(p -> assertThat(p.minutes()).isPositive());
        assertThat(wire).anyMatch(s -> s.what().contains("same section"));
        assertThat(new RepairStep("Head", 40, 180, "").tightened())
                .isEqualTo("40 N·m and 180° further");
        assertThat(RepairStep.of("Look", "").tightened()).isEmpty();
    }

    @Test
    void ofNearlyEveryRepairItIsToldHow() {
        for (String id : Vehicles.all().toList()) {
            VehicleDescription d = Vehicles.derived(id);
            List<String> untold =
                    d.suspects().stream()
                            .filter(s -> !s.repair().told())
                            .filter(s -> RepairSteps.of(s, d.circuits()).isEmpty())
                            .map(Suspect::id)
                            .toList();
            assertThat(untold).as(id).hasSizeLessThan(d.suspects().size() / 100);
        }
    }

    private static List<RepairStep> steps(VehicleDescription d, String suspect) {
        return RepairSteps.of(d.suspect(suspect).orElseThrow(), d.circuits());
    }

    /** A procedure that is named wrong would be told in words for ever, and never linked. */
    @Test
    void everyProcedureThatIsNamedIsThereInSomeVehicle() throws Exception {
        Set<String> named = new TreeSet<>();
        Vehicles.all()
                .flatMap(id -> Vehicles.named(id).suspects().stream())
                .map(Suspect::repair)
                .flatMap(r -> r.afterwards().stream())
                .map(Afterwards::procedure)
                .filter(p -> !p.isEmpty())
                .forEach(named::add);
        List<String> there = new ArrayList<>();
        try (Stream<Path> files = Files.walk(Path.of("../vehicles"))) {
            there.addAll(
                    files.filter(f -> f.getParent().endsWith("procedures"))
                            .map(f -> f.getFileName().toString().replace(".yaml", ""))
                            .collect(Collectors.toSet()));
        }
        assertThat(named).isNotEmpty().allMatch(there::contains, "in " + there);
    }
}
