package brightlantern.core.procedure;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.procedure.library.ProcedureReader;
import brightlantern.core.suspect.Check;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Procedures as they are described, and what a mistake in one is told as. */
class ProcedureReaderTest {
    private static final Path VEHICLES = Path.of("../vehicles");
    private static final int GENERIC_PLANS = 12;

    @TempDir Path folder;

    static List<Procedure> of(String vehicle) throws IOException {
        ProcedureReader.Result read = new ProcedureReader(VEHICLES).read(Vehicles.named(vehicle));
        assertThat(read.mistakes()).isEmpty();
        return read.procedures();
    }

    static Procedure named(String vehicle, String id) throws IOException {
        return of(vehicle).stream().filter(p -> p.id().equals(id)).findFirst().orElseThrow();
    }

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void everyVehicleHasTheGenericPlansAndNoMistakes(String vehicle) throws IOException {
        assertThat(of(vehicle))
                .filteredOn(p -> p.kind() == Procedure.Kind.PLAN)
                .hasSizeGreaterThanOrEqualTo(GENERIC_PLANS);
    }

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void aCheckTakesTheMinutesOfTheProcedureItLeadsTo(String vehicle) throws IOException {
        for (Check check : Vehicles.named(vehicle).checks()) {
            String path = check.place().path();
            // Driving two at once takes longer than driving one, which is the procedure.
            if (check instanceof Check.Run || !path.startsWith("exercise/procedures/")) {
                continue;
            }
            String id = path.substring("exercise/procedures/".length());
            of(vehicle).stream()
                    .filter(p -> p.id().equals(id))
                    .forEach(
                            p ->
                                    assertThat(check.minutes())
                                            .as(check.name())
                                            .isEqualTo(p.minutes()));
        }
    }

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void everyStepForAPersonSaysWhatWhyAndWhatToExpect(String vehicle) throws IOException {
        for (Procedure p : of(vehicle)) {
            assertThat(p.why()).as(p.name()).isNotBlank();
            for (Step step : p.steps()) {
                boolean person =
                        step.act() instanceof Act.Tell
                                || step.act() instanceof Act.Ask
                                || step.act() instanceof Act.Wait;
                if (person) {
                    assertThat(step.says()).as("%s, %s", p.name(), step.id()).isNotBlank();
                    assertThat(step.why()).as("%s, %s", p.name(), step.id()).isNotBlank();
                    assertThat(step.expect()).as("%s, %s", p.name(), step.id()).isNotBlank();
                }
            }
        }
    }

    @Test
    void stepsForEachCylinderGoRoundInFiringOrder() throws IOException {
        Procedure cutOut = named("stonebarrow-wl9", "cut-out");
        List<String> cuts =
                cutOut.steps().stream().map(Step::id).filter(s -> s.startsWith("cut-")).toList();
        assertThat(cuts).containsExactly("cut-1", "cut-5", "cut-3", "cut-6", "cut-2", "cut-4");
        assertThat(cutOut.step("on-1").exits().get(0).to()).isEqualTo("rest-1");
        assertThat(cutOut.step("rest-1").exits().get(0).to()).isEqualTo("off-5");
        assertThat(cutOut.output("injector-3").orElseThrow().did()).isEqualTo(0x3103);
    }

    /** The mistakes that a procedure with these steps has. */
    private List<String> mistakes(String steps) throws IOException {
        Path its = folder.resolve("quillon-ember").resolve("procedures");
        Files.createDirectories(its);
        for (String file : List.of("procedure.schema.json")) {
            Files.copy(VEHICLES.resolve(file), folder.resolve(file));
        }
        Files.copy(
                VEHICLES.resolve("quillon-ember/procedures/equipment.yaml"),
                its.resolve("equipment.yaml"));
        Files.writeString(
                its.resolve("mine.yaml"),
                "name: Mine\nkind: routine\nwhy: To see.\nminutes: 1\nsteps:\n"
                        + steps.strip().replace(";  - ", "\n- "));
        VehicleDescription ember = Vehicles.named("quillon-ember");
        return new ProcedureReader(folder).read(ember).mistakes();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "  - {id: a, wait: coolant > 70 °C, late: b};  - {id: b, conclude: Done.} | mine.yaml:6 | a wait without one never ends",
                "  - {id: a, tell: Go., next: c};  - {id: b, tell: Never.};  - {id: c, conclude: Done.} | mine.yaml:7 | can never be reached",
                "  - {id: a, routine: balance, how: start};  - {id: c, conclude: Done.} | mine.yaml:6 | needs a way back",
                "  - {id: a, tell: Go.} | mine.yaml:6 | a procedure ends with 'conclude'",
                "  - {id: a, tell: Go., next: z};  - {id: c, conclude: Done.} | mine.yaml:6 | 'z', which is not there",
                "  - {id: a, command: toaster, to: 5};  - {id: c, conclude: Done.} | mine.yaml:6 | expected an output, found 'toaster'",
                "  - {id: a, read: [toast]};  - {id: c, conclude: Done.} | mine.yaml:6 | expected a value, found 'toast'",
                "  - {id: a, wait: coolant > 70 V, seconds: 5, late: c};  - {id: c, conclude: Done.} | mine.yaml:6 | not in V",
                "  - {id: a, read: [coolant], next: a};  - {id: c, conclude: Done.} | mine.yaml:6 | without end",
                "  - {id: a, tell: Go., ask: 'What?'};  - {id: c, conclude: Done.} | mine.yaml:6 | found ask and tell",
                "  - {id: a};  - {id: c, conclude: Done.} | mine.yaml:6 | found none",
                "  - {id: a, tell: Go., colour: red};  - {id: c, conclude: Done.} | mine.yaml:6 | colour",
                "  - {id: a, tell: Go.};  - {id: a, conclude: Done.} | mine.yaml:7 | stands twice",
                "  - {id: a, ask: 'How much?'};  - {id: c, conclude: Done.} | mine.yaml:6 | expected 'choices' or a 'number'",
                "  - {id: a, study: tea, next: c};  - {id: c, conclude: Done.} | mine.yaml:6 | there is no study 'tea'",
                "  - {id: c, conclude: Done., tells: {compressor: sings}} | mine.yaml:6 | expected a finding with this outcome"
            })
    void aMistakeNamesFileLineAndWhatWasExpected(String steps, String place, String told)
            throws IOException {
        assertThat(mistakes(steps)).anySatisfy(m -> assertThat(m).contains(place).contains(told));
    }
}
