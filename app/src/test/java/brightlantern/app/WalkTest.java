package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.demo.DemoLauncher;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** Whole jobs through the real page against real stand-ins. */
class WalkTest {
    private static final String COMPLAINT = "Goes flat on long climbs, fine again after a restart";
    private static final Set<String> SYMPTOMS = Set.of("flat-on-climbs", "fine-after-restart");
    private static final int MOST_CHECKS = 6;

    @TempDir static Path data;

    private static Workshop shop;

    private Technician tech;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        shop.signIn("tech");
    }

    @BeforeEach
    void begin() {
        tech = new Technician(shop);
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    private List<String> checksUntilKnown() {
        List<String> done = new ArrayList<>();
        while (done.size() < MOST_CHECKS && !tech.accused()) {
            done.add(tech.nextCheck());
            tech.stage("trace");
        }
        return done;
    }

    @Test
    void fromComplaintToProvenRepair() throws Exception {
        String address = "127.0.72.1";
        shop.van(address, "flat on climbs", 417);
        tech.drives(address);
        tech.openJob(address, COMPLAINT, SYMPTOMS);
        tech.sweep();
        assertThat(shop.text("#answer"))
                .contains("Chase P0299-00")
                .contains("1 code need not be chased");
        List<String> checks = checksUntilKnown();
        assertThat(tech.known())
                .as("after %s", checks)
                .startsWith("Earth stud G12 corroded is the cause");

        // a replaced actuator must fail the proof
        tech.repaired("vane-actuator");
        tech.workshopDoes(address, "replace-vane-actuator");
        tech.run("vane");
        tech.stage("prove");
        assertThat(shop.text("#answer")).contains("The repair did not hold");
        shop.press("#failed");
        shop.waitForText("#answer", "Earth stud G12 corroded is the cause");

        // the mended earth must pass it
        tech.stage("prove");
        assertThat(shop.fetched("/jobs/" + tech.job() + "/prove"))
                .contains("brush stud, ring and sheet bright", "10 N·m");
        assertThat(paper("options/offer.pdf"))
                .containsSubsequence(
                        "What can be done",
                        "Earth stud G12 corroded",
                        "Lead a new earth beside it");
        tech.repaired("earth-g12");
        tech.workshopDoes(address, "clean-earth-g12");
        tech.run("vane");
        tech.run("throttle");
        tech.repeatReadings();
        tech.stage("prove");
        assertThat(shop.text("#one-drive"))
                .contains("As the freeze frame says", "Clear the codes")
                .doesNotContain("Record this drive");
        tech.clearAll();
        tech.keyOffAndOn(address);
        tech.stage("prove");
        assertThat(shop.text("#one-drive")).contains("Record this drive");
        tech.sweep();
        tech.climb();
        tech.sweep();
        tech.stage("prove");
        assertThat(shop.text("#answer")).as("%s", shop.text("main")).startsWith("Proven");
        assertThat(shop.browser.findElements(By.cssSelector("#proof tr[data-state=PROVEN]")))
                .hasSizeGreaterThanOrEqualTo(7);
        assertThat(paper("report.pdf"))
                .containsSubsequence(
                        "Report of job", "The complaint", "What was wrong", "What was done")
                .containsPattern("VIN ZZ\\w{15}, .+ Brought in \\d");
        assertThat(fetched("report.json"))
                .contains("\"format\" : \"bright-lantern-report-4\"")
                .contains("\"name\" : \"Larkspur Yard\"")
                .contains("Clean and remake earth stud G12")
                .contains("PROVEN")
                .contains("Battery resistance, learned at each start");
        assertThat(Schemas.mistakes("report", fetched("report.json"))).isEmpty();
        aPictureStandsInTheReport();
        tech.stage("prove");
        shop.press("#close");
        shop.go("/shelf");
        assertThat(shop.text("main"))
                .contains("Earth stud G12 corroded")
                .contains("Clean and remake earth stud G12")
                .contains("Earth stud G12 before it was cleaned");
        theCaseGoesToAnotherWorkshopWithItsPicture();
    }

    private void theCaseGoesToAnotherWorkshopWithItsPicture() throws Exception {
        String cases = shop.fetched("/shelf/cases.json?pictures=true");
        assertThat(Schemas.mistakes("cases", cases)).isEmpty();
        assertThat(cases).contains("\"shows\" : \"Earth stud G12 before it was cleaned\"");
        assertThat(shop.fetched("/shelf/cases.json")).doesNotContain("before it was cleaned");
        Path file = data.resolve("cases.json");
        // a picture that is none: nothing is taken
        Files.writeString(file, cases.replaceAll("(\"image\" : \")[^\"]*", "$1PGh0bWw+"));
        shop.send("#file", file.toString());
        shop.click("#take");
        shop.waitForText("main", "picture 1: it is a page");
        shop.go("/shelf");
        assertThat(shop.text("main")).doesNotContain("from Larkspur Yard");
        Files.writeString(file, cases);
        shop.send("#file", file.toString());
        shop.click("#take");
        shop.waitForText("main", "from Larkspur Yard");
        String small =
                shop.browser
                        .findElement(By.cssSelector("img[src*='/shelf/pictures/']"))
                        .getAttribute("src");
        assertThat(shop.fetched(small)).contains("JFIF");
    }

    private void aPictureStandsInTheReport() throws Exception {
        Path photo = data.resolve("stud.png");
        ImageIO.write(
                new BufferedImage(640, 480, BufferedImage.TYPE_INT_RGB), "png", photo.toFile());
        Path page = Files.writeString(data.resolve("stud.jpg"), "<!doctype html><p>no picture</p>");
        shop.go("/jobs/" + tech.job() + "/pictures");
        shop.send("#file", page.toString());
        shop.click("#keep");
        shop.waitForText("#bring", "can carry a script");
        shop.go("/jobs/" + tech.job() + "/pictures");
        shop.send("#file", photo.toString());
        shop.send("#about", "Earth stud G12 before it was cleaned");
        shop.click("#keep");
        shop.waitForText(".pictures", "before it was cleaned");
        shop.press(".pictures a");
        WebElement canvas = shop.browser.findElement(By.cssSelector("#marked svg"));
        new Actions(shop.browser)
                .moveToElement(canvas, -60, -40)
                .clickAndHold()
                .moveByOffset(50, 30)
                .release()
                .perform();
        shop.press("#keep");
        assertThat(shop.property("#marks", "value")).contains("\"shape\":\"ARROW\"");
        shop.go("/jobs/" + tech.job() + "/prove/report/file");
        assertThat(shop.text(".paper-drawing")).contains("lost: ");
        assertThat(shop.text("#instruments")).contains("Meter ");
        shop.go("/jobs/" + tech.job() + "/prove/report");
        assertThat(shop.text("main"))
                .contains("before it was cleaned", "What was shown afterwards");
        assertThat(shop.text("#strips"))
                .containsPattern(
                        "Earth stud G12.*moving -?[\\d.]+ to [\\d.]+ V [\\d.]+ V [-\\d.]+ V");
        assertThat(shop.browser.findElement(By.cssSelector("img.reported")).getAttribute("src"))
                .endsWith("/content?marked=true");
        assertThat(paper("report/file.pdf"))
                .containsSubsequence(
                        "File of job", "Pictures", "Codes before", "All that was found");
    }

    private String paper(String report) throws IOException {
        return Papers.text(shop.paper("/jobs/" + tech.job() + "/prove/" + report));
    }

    private String fetched(String report) {
        return shop.fetched("/jobs/" + tech.job() + "/prove/" + report);
    }

    @Test
    void aVanAsBuiltIsNotAccused() throws Exception {
        String address = "127.0.72.2";
        shop.van(address, StandIns.AS_BUILT, 422);
        tech.drives(address);
        tech.openJob(address, COMPLAINT, SYMPTOMS);
        tech.sweep();
        for (int i = 0; i < 4; i++) {
            tech.nextCheck();
            tech.stage("trace");
            assertThat(tech.known()).doesNotContain("is the cause");
        }
        assertThat(tech.known()).doesNotContain("point to");
    }

    @Test
    void anotherFaultLeadsToAnotherConclusion() throws Exception {
        String address = "127.0.72.3";
        StandInVehicle van = shop.van(address, "drag", "vane-motor", 1.3, 431);
        tech.openJob(address, COMPLAINT, SYMPTOMS);
        tech.sweep();
        van.hurry(20);
        tech.stage("exercise");
        shop.until("a cool turbo", b -> shop.one("#run-vane").isEnabled());
        van.hurry(1);
        List<String> checks = checksUntilKnown();
        assertThat(tech.known())
                .as("after %s: %s", checks, shop.text("main"))
                .startsWith("Turbo vane actuator worn is the cause");
    }

    /** What is broken was drawn by nobody's choice, and no suspect of that part is written. */
    @Test
    void aSurpriseIsFoundByFollowingTheCardAndToldOnceItsJobIsClosed() throws Exception {
        String address = "127.0.72.5";
        DemoLauncher.surprise(shop.app, address, 55, 433);
        tech.drives(address);
        tech.openJob(address, COMPLAINT, SYMPTOMS);
        shop.go("/seat/" + address);
        assertThat(shop.text("#truth")).contains("is broken here").doesNotContain("battery");
        tech.sweep();
        List<String> checks = new ArrayList<>();
        tech.stage("trace");
        // a cause that is named is not yet repaired while a check is worth its minutes
        while (checks.size() < 2 * MOST_CHECKS
                && !shop.text("#rail [data-next]").startsWith("Repair it")) {
            checks.add(tech.nextCheck());
            tech.stage("trace");
        }
        assertThat(tech.known())
                .as("after %s", checks)
                .startsWith("Body to battery bad, between Body metal beside G12 and Battery minus");
        tech.repaired("circuit-air-actuators-STRAP");
        tech.workshopDoes(address, "repair-circuit-air-actuators-STRAP");
        tech.run("vane");
        assertThat(shop.text("#verdicts")).contains("holds");
        tech.stage("prove");
        shop.press("[data-unproven]");
        shop.go("/seat/" + address);
        assertThat(shop.text("#truth")).startsWith("It was: Body to battery bad");
    }
}
