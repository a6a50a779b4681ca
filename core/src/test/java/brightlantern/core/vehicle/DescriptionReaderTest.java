package brightlantern.core.vehicle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.suspect.FindingOutcome;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DescriptionReaderTest {
    @TempDir Path folder;

    private Path van;

    @BeforeEach
    void copy() throws IOException {
        Path source = Path.of("../vehicles");
        van = copied(source.resolve("tamarack-portage"), "portage");
        copied(source.resolve("shared"), "shared");
    }

    private Path copied(Path source, String name) throws IOException {
        Path target = Files.createDirectory(folder.resolve(name));
        try (var files = Files.list(source)) {
            for (Path file : files.toList()) {
                Files.copy(file, target.resolve(file.getFileName()));
            }
        }
        return target;
    }

    private void change(String file, String from, String to) throws IOException {
        String text = Files.readString(van.resolve(file));
        assertThat(text).contains(from);
        Files.writeString(van.resolve(file), text.replace(from, to));
    }

    private int line(String file, String part) throws IOException {
        return Files.readAllLines(van.resolve(file)).stream()
                        .map(l -> l.contains(part))
                        .toList()
                        .indexOf(true)
                + 1;
    }

    private void fails(String... parts) throws IOException {
        DescriptionReader reader = new DescriptionReader();
        var mistakes =
                assertThatThrownBy(() -> reader.read(van)).isInstanceOf(DescriptionException.class);
        for (String part : parts) {
            mistakes.hasMessageContaining(part);
        }
    }

    @Test
    void whatShipsIsWholeAndSound() throws IOException {
        VehicleDescription d = new DescriptionReader().read(van);
        assertThat(d.modules()).hasSize(14);
        assertThat(d.buses()).hasSize(3);
        assertThat(d.suspects()).allSatisfy(s -> assertThat(s.repair().name()).isNotBlank());
    }

    @Test
    void aMisspeltKeyIsToldWithFileAndLine() throws IOException {
        change("codes.yaml", "weight: 0.8, family: boost}", "wieght: 0.8, family: boost}");
        fails("portage/codes.yaml:" + line("codes.yaml", "wieght"), "weight");
    }

    @Test
    void aReferenceToNothingIsToldWithFileAndLine() throws IOException {
        change("codes.yaml", "module: glow", "module: toaster");
        fails("codes.yaml:" + line("codes.yaml", "toaster"), "expected a module, found 'toaster'");
    }

    @Test
    void aWrongTypeAndBrokenYamlAreTold() throws IOException {
        change("vehicle.yaml", "kbit: 500", "kbit: fast");
        fails("vehicle.yaml:" + line("vehicle.yaml", "kbit: fast"), "integer");
        Files.writeString(van.resolve("vehicle.yaml"), "name: [\n");
        fails("vehicle.yaml:", "not YAML");
    }

    @Test
    void probabilitiesMustAddUp() throws IOException {
        change(
                "suspects.yaml",
                "climb: {follows: 0.12, short: 0.83",
                "climb: {follows: 0.12, short: 0.93");
        fails("suspects.yaml:", "add up to");
    }

    @Test
    void aBadDescriptionDoesNotHideTheGoodOnes() throws IOException {
        Path second = Files.createDirectory(folder.resolve("broken"));
        Files.writeString(second.resolve("vehicle.yaml"), "name: 7\n");
        VehicleLibrary library = VehicleLibrary.read(folder);
        assertThat(library.descriptions()).hasSize(1);
        assertThat(library.mistakes())
                .isNotEmpty()
                .allMatch(m -> m.startsWith("broken/vehicle.yaml:"));
    }

    @Test
    void oneItemStandsForManyAndCountsItsIdentifiersOn() throws IOException {
        VehicleDescription d = new DescriptionReader().read(van);
        assertThat(d.value("deviation.4").orElseThrow())
                .satisfies(
                        v -> {
                            assertThat(v.name()).isEqualTo("Running speed deviation, cylinder 4");
                            assertThat(v.did())
                                    .isEqualTo(d.value("deviation.1").orElseThrow().did() + 3);
                        });
        assertThat(d.value("deviation.5")).isEmpty();
        assertThat(d.modules())
                .allSatisfy(m -> assertThat(d.value(m.id() + ".board.supply")).isPresent());
        assertThat(d.finding("cylinders").orElseThrow().outcomes())
                .extracting(FindingOutcome::id)
                .containsExactly("even", "weak-1", "weak-2", "weak-3", "weak-4", "uneven");
    }

    @Test
    void aSharedFileThatIsMissingOrWrongIsNamedWithItsLine() throws IOException {
        change("vehicle.yaml", "shares: [every-module,", "shares: [each-module,");
        fails(
                "portage/vehicle.yaml:" + line("vehicle.yaml", "shares:"),
                "found 'each-module', which is not there");
        change("vehicle.yaml", "shares: [each-module,", "shares: [every-module,");
        Path shared = folder.resolve("shared/engine.yaml");
        Files.writeString(
                shared,
                Files.readString(shared)
                        .replace("module: engine, did: 0x2030", "module: motor, did: 0x2030"));
        fails("shared/engine.yaml:3", "expected a module, found 'motor'");
    }

    @Test
    void cylindersWithoutTheirOrderAreAMistake() throws IOException {
        String text = Files.readString(van.resolve("vehicle.yaml"));
        Files.writeString(
                van.resolve("vehicle.yaml"), text.substring(0, text.indexOf("cylinders:")));
        fails("shared/engine.yaml:", "expected the section 'cylinders'");
    }

    @Test
    void modulesAreToldByName() {
        VehicleDescription portage = Vehicles.portage();
        int engine = portage.module("engine").orElseThrow().address();
        String address = "%04X".formatted(engine);
        assertThat(portage.named("Module " + address + " asked for more time"))
                .isEqualTo("Engine (module " + address + ") asked for more time");
        assertThat(portage.named("no module at " + address + ", nor Module FFFF"))
                .isEqualTo("no module at " + address + ", nor Module FFFF");
    }

    @Test
    void aMistakeInANetlistNamesThePartAndThePoint() throws IOException {
        change("circuits.yaml", "from: X21.2, to: S14", "from: X21.1, to: S14");
        fails("portage", "vane-motor has no earth", "X21.2");
    }

    @Test
    void wiresAloneBetweenTheBatteryPolesAreAShort() throws IOException {
        change("circuits.yaml", "from: X21.2, to: S14", "from: S11, to: S14");
        fails("portage", "a short: nothing but wires lies between the battery poles");
    }

    @Test
    void aPinThatIsUsedTwiceIsTold() throws IOException {
        change("wiring.yaml", "plug: X121, pins: [1, 2]", "plug: X120, pins: [1, 2]");
        fails("portage/wiring.yaml", "pin 1 of X120 is used twice");
    }

    @Test
    void anEarthThatNobodyDescribedIsTold() throws IOException {
        change("wiring.yaml", "pins: [1, 2], earth: G104", "pins: [1, 2], earth: G904");
        fails("portage/wiring.yaml:", "expected an earth stud, found 'G904'");
    }

    /** {@code -Dschema.write=true} publishes it anew. */
    @Test
    void thePublishedSchemaIsComposedOfItsSlices() throws IOException {
        Path published = Path.of("../vehicles/description.schema.json");
        if (Boolean.getBoolean("schema.write")) {
            Files.writeString(published, DescriptionSchema.composed());
        }
        assertThat(Files.readString(published)).isEqualTo(DescriptionSchema.composed());
    }
}
