package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.demo.DemoLauncher;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.module.UdsModule.Behaviour;
import java.nio.file.Path;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;

/** Sweep, roll call and odometer check of the other stand-ins, through the page. */
class NetworkWalkTest {
    @TempDir static Path data;

    private static Workshop shop;
    private static Technician tech;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        shop.signIn("tech");
        tech = new Technician(shop);
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    private static StandInVehicle vehicle(String address, String id, String scenario, int serial)
            throws Exception {
        return DemoLauncher.start(shop.app, address, id, scenario, serial);
    }

    private static void callTheRoll(int least) {
        shop.go("/jobs/" + tech.job() + "/sweep/roll-call");
        if (shop.has("#stop")) {
            shop.press("#stop");
        }
        shop.press("#start");
        tech.calls(least);
    }

    @Test
    void rainInTheSillLeadsToTheFloorConnectorAndItsRepairIsProven() throws Exception {
        String address = "127.0.77.1";
        StandInVehicle cairn =
                vehicle(address, "velmont-cairn", StandIns.scenarios("velmont-cairn").get(1), 521);
        tech.openJob(
                address,
                "After heavy rain: many warnings, parking brake stuck on",
                Set.of("many-warnings", "park-brake-stuck"));
        tech.sweep();
        assertThat(shop.text("#answer"))
                .contains("Look at this first")
                .contains("X31")
                .contains("need not be chased");
        assertThat(shop.text("#codes"))
                .contains("knock-on")
                .contains("Explained by the low supply at that time");
        callTheRoll(25);
        assertThat(shop.text("#answer"))
                .contains("Floor connector X31")
                .contains("under the left sill");
        String report = "/jobs/" + tech.job() + "/prove/report/file.pdf";
        assertThat(Papers.text(shop.paper(report)))
                .containsSubsequence("The networks at the first sweep", "What was done");
        assertThat(shop.browser.findElements(By.cssSelector("svg.map [data-broken]"))).hasSize(1);
        assertThat(shop.attribute("svg.map [data-module=trailer]", "data-state"))
                .isEqualTo("absent");
        assertThat(shop.text("#matrix")).contains("misses");
        shop.press("#keep");
        shop.waitForText(".notice", "Kept");
        assertThat(tech.known())
                .startsWith(
                        "Chassis bus: bad contact or break at Floor connector X31 is the cause");

        tech.repaired("wire-X31");
        cairn.repair("wire-X31");
        callTheRoll(6);
        shop.press("#stop");
        shop.until("every module there", b -> shop.text("#modules").contains("100 %"));
        tech.clearAll("Cleared 30 of 31");
        tech.keyOffAndOn(address);
        tech.sweep();
        tech.stage("prove");
        assertThat(shop.text("#answer")).contains("still to be shown");
        tech.record(32);
        tech.tried(true);
        tech.sweep();
        tech.stage("prove");
        assertThat(shop.text("#left-alone")).contains("P0562-00");
        assertThat(shop.text("#answer")).as("%s", shop.text("main")).startsWith("Proven");
    }

    @Test
    void aCairnAsBuiltIsNotAccused() throws Exception {
        String address = "127.0.77.2";
        vehicle(address, "velmont-cairn", StandIns.AS_BUILT, 522);
        tech.openJob(address, "Warnings after rain, they say", Set.of("many-warnings"));
        tech.sweep();
        assertThat(shop.text("#answer")).contains("No module holds a code");
        callTheRoll(12);
        assertThat(shop.text("#answer")).startsWith("Nothing wrong on the wire");
        shop.press("#keep");
        assertThat(tech.known()).doesNotContain("is the cause").doesNotContain("point to");
    }

    @Test
    void aModuleMayBeStruckFromTheFittedList() throws Exception {
        String address = "127.0.77.3";
        StandInVehicle finch = vehicle(address, "oriel-finch", StandIns.AS_BUILT, 523);
        finch.module("telematics").behave(UdsModule.Behaviour.SILENT);
        tech.openJob(address, "The horn is silent at times", Set.of());
        callTheRoll(10);
        shop.until(
                "silent",
                b -> shop.attribute("[data-module=telematics]", "data-state").equals("silent"));
        shop.choose("#module", "telematics");
        shop.choose("#fitted", "false");
        shop.press("#correct-fitted");
        shop.waitForText(".error", "with a reason only");
        shop.choose("#module", "telematics");
        shop.choose("#fitted", "false");
        shop.type("#reason", "plug hangs free, never had one");
        shop.press("#correct-fitted");
        shop.waitForText(".notice", "was corrected");
        assertThat(shop.text("body")).contains("never had one (tech)");
        assertThat(shop.attribute("[data-module=telematics]", "data-state")).isEqualTo("absent");
        whatWasSaidInWordsIsCodedLater();
    }

    private void whatWasSaidInWordsIsCodedLater() {
        tech.stage("intake");
        assertThat(shop.text("#meant")).contains("Horn");
        shop.press("#keep-meant");
        shop.waitForText(".error", "expected one or more");
        shop.click("#meant [type=checkbox]");
        shop.press("#keep-meant");
        shop.waitForText(".notice", "Kept, and weighed");
        shop.waitForText("#rail", "Told: High horn");
    }

    @Test
    void aChimeTellsOfTheEndOnAnotherPageOfTheJobToo() throws Exception {
        String address = "127.0.77.9";
        StandInVehicle finch =
                vehicle(address, "oriel-finch", StandIns.scenarios("oriel-finch").get(1), 562);
        // one module is slow, so that there is time to go elsewhere
        finch.module("engine").behave(Behaviour.LATE);
        tech.openJob(address, "Rough idle, with a chime", Set.of("rough-idle"));
        tech.stage("sweep");
        shop.click("#chime");
        shop.press("#start");
        tech.stage("watch");
        finch.module("engine").behave(Behaviour.NORMAL);
        shop.until(
                "the end told on another page",
                b ->
                        Boolean.TRUE.equals(
                                        b.executeScript(
                                                "return document.body.dataset.sweepDone === 'yes'"))
                                ? true
                                : null);
        tech.stage("sweep");
        assertThat(shop.one("#chime").isSelected()).isTrue();
        assertThat(shop.text("#answer")).contains("Chase P0496-00");
    }

    @Test
    void theHeronWasSetBackAndItsSisterWasNot() throws Exception {
        String address = "127.0.77.4";
        vehicle(address, "oriel-heron", StandIns.scenarios("oriel-heron").get(1), 524);
        tech.openJob(address, "Is the mileage true?", Set.of("buying"));
        tech.sweep();
        shop.press("#odometer");
        shop.press("#check");
        shop.waitForText("#answer", "Set back by about 5");
        assertThat(shop.text("#records"))
                .contains("came from another vehicle")
                .contains("more than the odometer shows");
        assertThat(tech.known()).startsWith("Odometer set back is the cause");
        String report = "/jobs/" + tech.job() + "/sweep/odometer/report.";
        assertThat(Papers.text(shop.paper(report + "pdf")))
                .containsSubsequence("Set back by about 5", "came from another vehicle");
        String data = shop.fetched(report + "json");
        assertThat(data).contains("\"sentence\" : \"Set back by about 5");
        assertThat(Schemas.mistakes("odometer", data)).isEmpty();

        String sister = "127.0.77.5";
        vehicle(sister, "oriel-heron", StandIns.AS_BUILT, 525);
        tech.openJob(sister, "Is the mileage true?", Set.of("buying"));
        shop.go("/jobs/" + tech.job() + "/sweep/odometer");
        assertThat(shop.fetched("/jobs/" + tech.job() + "/sweep/odometer/report.json"))
                .contains("has no odometer check to report");
        shop.press("#check");
        shop.waitForText("#answer", "fit all that counts by itself");
        assertThat(tech.known()).doesNotContain("is the cause");
    }

    @Test
    void whatComesBackFirstIsToldAndSweepsLeaveAsFiles() throws Exception {
        String address = "127.0.77.6";
        StandInVehicle finch =
                vehicle(address, "oriel-finch", StandIns.scenarios("oriel-finch").get(1), 526);
        tech.openJob(address, "Rough idle", Set.of("rough-idle"));
        tech.sweep();
        assertThat(shop.text("#answer")).startsWith("Chase P0496-00").contains("2 codes are");
        assertThat(fetched("csv"))
                .startsWith("module,code,meaning,part,status,times,why")
                .contains("Tank system,P0496-00")
                .contains("knock-on");
        assertThat(fetched("text")).startsWith("Sweep\nOriel Finch, VIN ZZFNC");
        assertThat(Schemas.mistakes("sweep", fetched("json"))).isEmpty();
        assertThat(Papers.text(shop.paper("/jobs/" + tech.job() + "/sweep/export/pdf")))
                .contains("P0496-00");
        assertThat(fetched("docx")).contains("Expected csv, text, json or pdf");

        tech.clearAll("Cleared 17 of 18");
        shop.go("/jobs/" + tech.job() + "/sweep/come-back");
        shop.waitForText("#answer", "turn the key off");
        tech.keyOffAndOn(address);
        shop.go("/jobs/" + tech.job() + "/sweep/come-back");
        shop.press("#listen");
        finch.simulation().crank();
        shop.waitForText("#answer", "First back: P0496-00");
        shop.until("the others", b -> shop.text("#back").contains("P0133-00"));
        shop.press("#stop");
        shop.waitForText("#answer", "First back was P0496-00");
        tech.sweep();
        assertThat(shop.text("#comparison")).contains("P0496-00");
        assertThat(fetched("csv?before=" + shop.attribute("#before-id", "data-id")))
                .startsWith("change,module,code,meaning,detail");
        String compared = fetched("json?before=" + shop.attribute("#before-id", "data-id"));
        assertThat(compared).contains("\"comparison\"");
        assertThat(Schemas.mistakes("sweep", compared)).isEmpty();
    }

    private static String fetched(String kind) {
        return shop.fetched("/jobs/" + tech.job() + "/sweep/export/" + kind);
    }
}
