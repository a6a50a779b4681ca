package brightlantern.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.page.JobPages;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Who may know whom. The wall around the fault scenarios matters most. */
class WallsTest {
    private static final JavaClasses ALL =
            new ClassFileImporter()
                    .withImportOption(new ImportOption.DoNotIncludeTests())
                    .importPackages("brightlantern");

    @Test
    void coreKnowsNobody() {
        noClasses()
                .that()
                .resideInAPackage("brightlantern.core..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "brightlantern.wire..",
                        "brightlantern.standin..",
                        "brightlantern.app..",
                        "org.springframework..",
                        "java.net..",
                        "java.sql..")
                .check(ALL);
    }

    @Test
    void wireKnowsNobody() {
        noClasses()
                .that()
                .resideInAPackage("brightlantern.wire..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "brightlantern.core..", "brightlantern.standin..", "brightlantern.app..")
                .check(ALL);
    }

    @Test
    void onlyTheDemoLauncherKnowsStandIns() {
        noClasses()
                .that()
                .resideInAPackage("brightlantern.app..")
                .and()
                .haveNameNotMatching("brightlantern\\.app\\.demo\\.Demo(Launcher|Seat).*")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("brightlantern.standin..")
                .check(ALL);
        noClasses()
                .that()
                .resideInAPackage("brightlantern.standin..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("brightlantern.app..")
                .check(ALL);
    }

    @Test
    void stagesDoNotReachAcross() {
        for (String stage : JobPages.STAGES) {
            String[] others =
                    JobPages.STAGES.stream()
                            .filter(s -> !s.equals(stage))
                            .map(s -> "brightlantern.app." + s + "..")
                            .toArray(String[]::new);
            noClasses()
                    .that()
                    .resideInAPackage("brightlantern.app." + stage + "..")
                    .should()
                    .dependOnClassesThat()
                    .resideInAnyPackage(others)
                    .check(ALL);
        }
    }

    /** Whoever reads a package must be able to begin somewhere. */
    @Test
    void packagesAreFreeOfCircles() {
        for (String module : new String[] {"core", "wire", "standin", "app"}) {
            SlicesRuleDefinition.slices()
                    .matching("brightlantern." + module + ".(**)")
                    .should()
                    .beFreeOfCycles()
                    .check(ALL);
        }
    }

    /** What carries UDS is chosen in one place; another way to a vehicle changes nothing else. */
    @Test
    void onlyTheLinksKnowWhatCarriesTheRequests() {
        noClasses()
                .that()
                .resideInAPackage("brightlantern.app..")
                .and()
                .doNotHaveSimpleName("VehicleLinks")
                .or()
                .resideInAnyPackage("brightlantern.wire.uds..", "brightlantern.wire.transport..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("brightlantern.wire.doip..")
                .check(ALL);
    }

    /** A controller that is longer serves two things. */
    @Test
    void controllersAreShort() throws IOException {
        try (Stream<Path> files = Files.walk(Path.of("src/main/java"))) {
            for (Path file : files.filter(f -> f.toString().endsWith("Controller.java")).toList()) {
                assertThat(Files.readAllLines(file))
                        .as(file.toString())
                        .hasSizeLessThanOrEqualTo(200);
            }
        }
    }

    @Test
    void templatesStylesAndScriptsHaveShortLines() throws IOException {
        try (Stream<Path> files = Files.walk(Path.of("src/main/resources"))) {
            for (Path file :
                    files.filter(f -> f.toString().matches(".*\\.(html|css|js)")).toList()) {
                assertThat(Files.readAllLines(file))
                        .as(file.toString())
                        .allMatch(line -> line.length() <= 120);
            }
        }
    }
}
