package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What {@code ./lantern check} says. */
class DescriptionCheckTest {
    private static final Path VEHICLES = Path.of("../vehicles");

    @TempDir Path folder;

    private static String checked(Path vehicles, boolean sound) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        assertThat(
                        DescriptionCheck.run(
                                vehicles, new PrintStream(out, true, StandardCharsets.UTF_8)))
                .isEqualTo(sound);
        return out.toString(StandardCharsets.UTF_8);
    }

    @Test
    void whatShipsIsSoundAndEachVehicleHasALine() throws IOException {
        String said = checked(VEHICLES, true);
        assertThat(said.lines())
                .hasSize(6)
                .allMatch(
                        l ->
                                l.matches(
                                        "[a-z0-9-]+: components \\d+, connectors \\d+, pins \\d+, sensors \\d+,"
                                                + " suspects \\d+, checks \\d+, symptoms \\d+, codes \\d+"));
        assertThat(parts(said, "tamarack-portage")).isGreaterThanOrEqualTo(250);
        assertThat(parts(said, "oriel-finch")).isGreaterThanOrEqualTo(200);
        assertThat(parts(said, "velmont-cairn")).isGreaterThanOrEqualTo(350);
        assertThat(parts(said, "quillon-ember")).isGreaterThanOrEqualTo(400);
        assertThat(parts(said, "stonebarrow-wl9")).isGreaterThanOrEqualTo(150);
        assertThat(parts(said, "oriel-heron")).isGreaterThanOrEqualTo(200);
    }

    private static int parts(String said, String vehicle) {
        String line =
                said.lines().filter(l -> l.startsWith(vehicle + ":")).findFirst().orElseThrow();
        return Integer.parseInt(line.replaceAll(".*components (\\d+).*", "$1"));
    }

    @Test
    void aMistakeIsToldWithItsFileAndTheOthersGoOn() throws IOException {
        copy("oriel-heron");
        copy("oriel-finch");
        copy("shared");
        Path wiring = folder.resolve("oriel-heron/wiring.yaml");
        Files.writeString(wiring, Files.readString(wiring).replace("id: G103", "id: G193"));
        assertThat(checked(folder, false))
                .contains("oriel-finch: components")
                .contains("expected an earth stud, found 'G103'")
                .doesNotContain("oriel-heron: components");
    }

    private void copy(String name) throws IOException {
        Path from = VEHICLES.resolve(name);
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : files.toList()) {
                Path to = folder.resolve(name).resolve(from.relativize(file).toString());
                if (Files.isDirectory(file)) {
                    Files.createDirectories(to);
                } else {
                    Files.copy(file, to);
                }
            }
        }
    }
}
