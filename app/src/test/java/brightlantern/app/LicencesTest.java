package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** The shipped list of licences speaks of the very versions that are shipped. */
class LicencesTest {
    @Test
    void everyVersionOnTheListIsTheOneInUse() throws IOException {
        Set<String> used =
                Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                        .map(jar -> Path.of(jar).getFileName().toString())
                        .collect(Collectors.toSet());
        List<String[]> listed =
                Files.readAllLines(Path.of("src/main/resources/static/licences.txt")).stream()
                        .filter(line -> line.contains("  |  "))
                        .map(line -> line.split("  \\|  "))
                        .toList();
        assertThat(listed).hasSizeGreaterThan(80).allMatch(l -> l.length == 3 && !l[2].isBlank());
        assertThat(listed)
                .extracting(l -> l[0].split(":")[1] + "-" + l[0].split(":")[2] + ".jar")
                .allSatisfy(jar -> assertThat(used).contains(jar));
    }
}
