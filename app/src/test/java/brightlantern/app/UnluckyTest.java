package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.job.CommandLog;
import brightlantern.app.link.VehicleLinks;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.module.UdsModule.Behaviour;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.chrome.ChromeDriver;

/**
 * Wrong input, wires that break, people who are in each other's way: a clear message, nothing lost,
 * and work goes on.
 */
class UnluckyTest {
    private static final String ADDRESS = "127.0.73.1";

    @TempDir static Path data;

    private static Workshop shop;
    private static StandInVehicle van;
    private static Technician tech;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        van = shop.van(ADDRESS, "flat on climbs", 417);
        shop.signIn("tech");
        tech = new Technician(shop);
        tech.drives(ADDRESS);
        tech.openJob(ADDRESS, "Goes flat on climbs", Set.of("flat-on-climbs"));
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    @Test
    void silentLateAndLyingModulesAreToldAndAskedAgain() {
        van.module("glow").behave(Behaviour.SILENT);
        van.module("audio").behave(Behaviour.NONSENSE);
        van.module("dosing").behave(Behaviour.REFUSING);
        van.module("climate").behave(Behaviour.LATE);
        tech.sweep();
        assertThat(shop.text("#answer"))
                .contains("1 module is silent")
                .contains("could not be read");
        assertThat(shop.text("#now"))
                .contains("conditions are not right")
                .contains("Chase P0299-00");
        List.of("glow", "audio", "dosing", "climate")
                .forEach(m -> van.module(m).behave(Behaviour.NORMAL));
        shop.click("#resume");
        shop.until(
                "all modules",
                b ->
                        !shop.has("#stop")
                                && !shop.text("#answer").contains("silent")
                                && !shop.text("#answer").contains("read."));
    }

    @Test
    void aSweepCutInTheMiddleKeepsWhatItHadAndTheNextOneWorks() {
        tech.stage("sweep");
        shop.click("#start");
        van.gateway().cut();
        shop.until("the end", b -> !shop.has("#stop") && shop.has("#start"));
        tech.sweep();
        assertThat(shop.text("#answer")).contains("Chase P0299-00");
    }

    @Test
    void aShutGateSaysWhyAndTheServerRefusesToo() {
        tech.seat(ADDRESS, "key-on", "crank");
        shop.waitForText("#d-engine", "running");
        tech.stage("exercise");
        shop.waitForText("#gates-vane", "Stop the engine");
        assertThat(shop.isEnabled("#run-vane")).isFalse();
        shop.browser.executeScript("document.getElementById('run-vane').form.submit()");
        shop.waitForText(".error[role=alert]", "Gate shut: Engine speed");
        assertThat(van.simulation().plant().driver().key()).isEqualTo(2);
        tech.seat(ADDRESS, "key-off", "key-on");
    }

    @Test
    void theOutputGoesBackWhenThePageGoesAwayAndWhenTheWireIsCut() {
        tech.seat(ADDRESS, "key-off", "key-on");
        tech.stage("exercise");
        tech.coolDown("vane");
        shop.press("#run-vane");
        shop.one("#stop-run");
        String run = shop.browser.getCurrentUrl();
        shop.go("/shelf");
        shop.until(
                "given back",
                b ->
                        shop.app.getBean(CommandLog.class).newest(1).stream()
                                .anyMatch(l -> l.what().contains("given back")));
        shop.browser.get(run);
        shop.waitForText("#ended", "The page went away");

        tech.stage("exercise");
        shop.until("open gates", b -> shop.one("#run-vane").isEnabled());
        shop.press("#run-vane");
        shop.until("moving", b -> van.reading("vane.position") > 70);
        van.gateway().cut();
        shop.until("its own position", b -> van.reading("vane.position") < 30);
        shop.until(
                "told",
                b ->
                        shop.text("#run").contains("lost")
                                || shop.text("#run").contains("connection"));
        tech.run("vane");
        assertThat(shop.text("#verdicts")).contains("slow");
    }

    @Test
    void onePersonCommandsAtATimeAndOthersSeeWho() {
        van.simulation().plant().driver(van.simulation().plant().driver().key(2));
        var link = shop.app.getBean(VehicleLinks.class).link(ADDRESS);
        link.lease().claim("lead");
        try {
            tech.stage("exercise");
            shop.waitForText("[data-head=commander]", "lead commands this vehicle now");
            tech.coolDown("vane");
            shop.until("open gates", b -> shop.one("#run-vane").isEnabled());
            shop.press("#run-vane");
            shop.waitForText(".error[role=alert]", "lead is commanding this vehicle now");
        } finally {
            link.lease().release("lead");
        }
    }

    @Test
    void lettersWhereAReadingShouldBeAndReadingsByHand() {
        shop.go("/jobs/" + tech.job() + "/probe?point=G12");
        shop.unfold("details");
        shop.type("#volts", "about two");
        shop.click("#typed");
        shop.waitForText(
                ".error[role=alert]",
                "Reading: expected a number in V, such as 0.047 or 47 mV, found 'about two'");
        assertThat(shop.property("#volts", "value")).isEqualTo("about two");
        shop.type("#volts", "-2.1");
        shop.click("#typed");
        shop.waitForText("#doubt", "Are the leads swapped?");
        assertThat(shop.text("#rail")).as("not kept").doesNotContain("-2.1");
        shop.click("#keep-doubted");
        shop.waitForText("#rail", "(asked about, and kept)");
        for (String[] reading : new String[][] {{"nothing", "0.01"}, {"bulb", "3,40"}}) {
            shop.go("/jobs/" + tech.job() + "/probe?point=G12");
            shop.unfold("details");
            shop.choose("#typed-condition", reading[0]);
            shop.type("#supply", "12.5");
            // Enter does what the field asks for, and moves nothing
            shop.type("#volts", reading[1] + Keys.ENTER);
            shop.waitForText("#readings", reading[1].replace(',', '.'));
            // the next figure goes into the field and is no key of a stage
            shop.until(
                    "the field again",
                    b -> "volts".equals(b.executeScript("return document.activeElement.id")));
        }
        assertThat(shop.text("main")).containsPattern("about 0\\.8\\d Ω hide");
        shop.press("#hold");
        assertThat(shop.text("#held"))
                .containsPattern(
                        "^Earth stud G12.*: -?\\d\\.\\d\\d to \\d\\.\\d\\d V over 3 s, .*V of it alternates");
    }

    @Test
    void aMeterThatIsNotThereIsTold() {
        shop.go("/jobs/" + tech.job() + "/probe?point=G12");
        shop.type("[name=meter]", "127.0.73.99:5025");
        shop.one("[name=meter]").submit();
        shop.click("#read");
        shop.waitForText(".error[role=alert]", "No instrument answers at 127.0.73.99:5025");
        shop.type("[name=meter]", ADDRESS + ":5025");
        shop.one("[name=meter]").submit();
    }

    @Test
    void aReadingIsTakenWithoutAHand() {
        shop.go("/jobs/" + tech.job() + "/probe?point=FB");
        shop.press("#hands-free");
        assertThat(shop.has(".error[role=alert]:not([hidden])")).as(shop.text("main")).isFalse();
        // it goes on to the next point by itself
        shop.waitForText("#rail", "hands free");
    }

    @Test
    void aWrongVinAndAnUnknownVehicleAreTold() {
        shop.go("/jobs/new/vehicle?address=127.0.73.9&vin=ZZTPG22D9M1000417");
        shop.waitForText("main", "Check digit is wrong: expected 2, found 9");
        shop.go("/jobs/new/vehicle?address=127.0.73.9&vin=ZZXAA00A0A0000000");
        shop.waitForText(".answer", "No description fits");
        shop.go("/jobs/new?address=no.such.host.invalid");
        shop.waitForText(".error", "'no.such.host.invalid' is not known");
    }

    @Test
    void aVehicleWithItsKeyOffSaysWhatToDo() {
        tech.seat(ADDRESS, "key-off");
        shop.go("/jobs/new/vehicle?address=" + ADDRESS + "&vin=" + van.vin());
        shop.waitForText(".error", "Turn the key on");
        tech.seat(ADDRESS, "key-on");
    }

    @Test
    void clearingNeedsAKeptSweepAndIsLogged() {
        tech.openJob(ADDRESS, "Second visit", Set.of());
        shop.go("/jobs/" + tech.job() + "/sweep/clear");
        shop.waitForText(".error", "Keep a whole sweep first");
        assertThat(shop.has("#clear-now")).isFalse();
    }

    @Test
    void liveValuesComeFiveTimesASecondAndATakeIsKept() {
        tech.stage("watch");
        shop.until(
                "values at 5 Hz or more",
                b -> {
                    String rate = shop.text("tr[data-value='boost.actual'] [data-rate]");
                    return !rate.isEmpty() && Integer.parseInt(rate) >= 5 ? true : null;
                });
        shop.type("#find", "limp");
        assertThat(shop.browser.findElements(By.cssSelector("#found form:not([hidden])")))
                .hasSize(1);
        shop.type("#take-name", "standing");
        shop.click("#take-start");
        shop.click("#mark");
        shop.waitForText("#mark", "Marked");
        van.gateway().cut();
        shop.until("values again", b -> shop.has("#troubles[hidden]"));
        shop.click("#take-stop");
        shop.waitForText(".answer", "No stretch");
        shop.until("a drawn take", b -> shop.has("html[data-drawn]"));
        String csv =
                (String)
                        shop.browser.executeAsyncScript(
                                "const done = arguments[0]; fetch(location.pathname + '/csv?layout=ONE_TIME').then(r => r.text()).then(done)");
        assertThat(csv)
                .startsWith("time [s],")
                .contains("Boost pressure target [kPa]")
                .contains("mark");
        assertThat(csv.lines().count()).isGreaterThan(5);
    }

    @Test
    void nobodyComesInWithoutSigningInNorWithoutAToken() throws Exception {
        ChromeDriver stranger = Workshop.openBrowser();
        try {
            stranger.get(shop.browser.getCurrentUrl());
            assertThat(stranger.getCurrentUrl()).contains("/sign-in");
        } finally {
            stranger.quit();
        }
        tech.stage("intake");
        Object status =
                shop.browser.executeAsyncScript(
                        "const done = arguments[0]; fetch('/jobs/1/sweep/start', {method: 'POST'}).then(r => done(r.status))");
        assertThat(((Number) status).intValue()).isEqualTo(403);
        shop.go("/accounts");
        shop.waitForText("main", "Your role may not do this");
    }

    @Test
    void everyMainPageOfALiveVehicleCanBeReadByEverybody() {
        tech.openJob(ADDRESS, "Third visit", Set.of("flat-on-climbs"));
        tech.sweep();
        // those that look otherwise while a vehicle answers; the others are read with every page
        for (String page : List.of("sweep/roll-call", "watch", "exercise", "trace")) {
            tech.stage(page);
            assertThat(Looks.wrong(shop)).isEmpty();
        }
        shop.go("/seat/" + ADDRESS);
        assertThat(Looks.wrong(shop)).isEmpty();
    }
}
