package brightlantern.app;

import brightlantern.app.demo.DemoLauncher;
import brightlantern.app.demo.DemoRecording;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.module.UdsModule.Behaviour;
import brightlantern.standin.plant.Driver;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Cookie;

/**
 * Takes the pictures in docs/screenshots anew, and records the demo's finished jobs; run by {@code
 * ./lantern screenshots}, not with the tests.
 */
class Screenshots {
    private static final Path FOLDER = Path.of("../docs/screenshots");
    private static final Path RECORDED = Path.of("src/main/resources/demo/recorded.jsonl.gz");
    private static final String ADDRESS = "127.0.22.4";
    private static final String SISTER = "127.0.22.5";

    @TempDir Path data;

    private Workshop shop;

    private void shot(String name) throws IOException {
        shop.screenshot(FOLDER.resolve(name + ".png"));
    }

    @Test
    void takeAll() throws Exception {
        shop = new Workshop(data);
        try {
            StandInVehicle van = shop.van(ADDRESS, "flat on climbs", 409);
            Technician tech = new Technician(shop);
            tech.drives(ADDRESS);
            shop.signIn("tech");
            tech.openJob(
                    ADDRESS,
                    "Goes flat on long climbs, fine again after a restart",
                    Set.of("flat-on-climbs", "fine-after-restart"));
            tech.sweep();
            shot("sweep");
            van.module("glow").behave(Behaviour.SILENT);
            tech.sweep();
            dark(true);
            tech.stage("sweep");
            shot("sweep-silent-dark");
            dark(false);
            van.module("glow").behave(Behaviour.NORMAL);
            tech.sweep();
            tech.stage("intake");
            shot("intake");
            tech.run("vane");
            tech.stage("exercise");
            shop.waitForText("#gates-vane", "all open");
            shot("exercise");
            tech.run("throttle");
            tech.probe("G12", "c-nothing-vane-motor");
            shop.go("/jobs/" + tech.job() + "/probe?circuit=air-actuators&point=G12");
            shot("probe");
            tech.stage("trace");
            shot("trace");
            tech.climb();
            shop.go("/jobs/" + tech.job() + "/watch/takes/1");
            shop.one("html[data-drawn]");
            shot("take");
            tech.repaired("earth-g12");
            tech.workshopDoes(ADDRESS, "clean-earth-g12");
            tech.run("vane");
            tech.run("throttle");
            tech.probe("G12", "c-nothing-vane-motor");
            tech.clearAll();
            tech.keyOffAndOn(ADDRESS);
            tech.sweep();
            tech.climb();
            tech.sweep();
            tech.seat(ADDRESS, "crank");
            shop.waitForText("#d-engine", "running");
            shop.press("#drive-CLIMB");
            shop.until("speed", b -> Integer.parseInt(shop.text("#d-speed")) > 55);
            shot("seat");
            tech.stage("watch");
            shop.until(
                    "half a minute of values",
                    b -> {
                        Object seconds = b.executeScript("return performance.now() / 1000;");
                        return ((Number) seconds).doubleValue() > 25 ? true : null;
                    });
            shot("watch");
            tech.seat(ADDRESS, "drive-STAND");
            tech.stage("prove");
            shot("prove-proven");
            shop.go("/jobs/" + tech.job() + "/prove/report");
            shot("report");
            tech.stage("prove");
            shop.press("#close");
            shop.go("/shelf");
            shot("shelf");
            network(tech);
            leaveOneOpen(tech);
            shop.app.getBean(DemoRecording.class).write(RECORDED);
        } finally {
            shop.close();
        }
    }

    /** The Cairn's broken wire and the Heron's mileage. */
    private void network(Technician tech) throws Exception {
        DemoLauncher.start(
                shop.app,
                "127.0.22.6",
                "velmont-cairn",
                StandIns.scenarios("velmont-cairn").get(1),
                451);
        tech.openJob(
                "127.0.22.6",
                "After heavy rain: many warnings, parking brake stuck on",
                Set.of("many-warnings", "park-brake-stuck"));
        tech.sweep();
        shop.go("/jobs/" + tech.job() + "/sweep/roll-call");
        shop.press("#start");
        tech.calls(30);
        shot("roll-call");
        shop.press("#keep");
        captured(tech, "bus-chassis", "wire is broken", () -> {});
        shot("capture-bus");
        DemoLauncher.start(
                shop.app,
                "127.0.22.7",
                "oriel-heron",
                StandIns.scenarios("oriel-heron").get(1),
                452);
        StandInVehicle finch =
                DemoLauncher.start(
                        shop.app,
                        "127.0.22.8",
                        "oriel-finch",
                        StandIns.scenarios("oriel-finch").get(1),
                        453);
        tech.openJob(
                "127.0.22.8",
                "Rough idle, and hard to start after filling up",
                Set.of("rough-idle"));
        tech.sweep();
        trims(tech, finch);
        tech.openJob("127.0.22.7", "Is the mileage true?", Set.of("buying"));
        tech.sweep();
        shop.press("#odometer");
        shop.press("#check");
        shop.waitForText("#answer", "Set back");
        shot("odometer");
        cylinders(tech);
    }

    /** Half a minute of warm idle and as much of a drive, in time three times hurried. */
    private void trims(Technician tech, StandInVehicle finch) throws Exception {
        finch.simulation().crank();
        finch.hurry(20);
        Garage.until("a warm engine", () -> finch.simulation().reading("coolant").orElse(0.0) > 80);
        finch.hurry(3);
        tech.stage("watch");
        shop.type("#take-name", "warm idle, then a drive");
        shop.press("#take-start");
        Garage.untilRecorded(shop.app, tech.job(), "idle");
        finch.driver(finch.simulation().driver().drive(Driver.Program.CRUISE));
        Garage.untilRecorded(shop.app, tech.job(), "load");
        shop.press("#take-stop");
        shop.one("html[data-drawn]");
        map(tech, finch);
        finch.driver(finch.simulation().driver().drive(Driver.Program.STAND));
    }

    /** Ignition angle over speed and load, from a drive in town and pulls. */
    private void map(Technician tech, StandInVehicle finch) throws Exception {
        tech.stage("watch");
        for (String id : List.of("ignition.angle", "intake.pressure")) {
            shop.type("#find", id);
            shop.press("#found form:has(input[value='" + id + "']) button");
        }
        shop.type("#take-name", "town and pulls");
        shop.press("#take-start");
        for (Driver.Program program :
                List.of(Driver.Program.STOP_AND_GO, Driver.Program.PULL, Driver.Program.OVERRUN)) {
            finch.driver(finch.simulation().driver().drive(program));
            Garage.pause(16_000);
        }
        shop.press("#take-stop");
        shop.press("#studies");
        shop.choose("#z", "ignition.angle");
        shop.choose("#x", "engine.speed");
        shop.choose("#y", "engine.load");
        shop.click("#path");
        shop.press("#study");
        shop.browser.executeScript("document.getElementById('map').scrollIntoView({block: 'end'})");
        shot("map");
    }

    /** The loader's weak cylinder, and its fuel system as a picture. */
    private void cylinders(Technician tech) throws Exception {
        StandInVehicle loader =
                DemoLauncher.start(
                        shop.app,
                        "127.0.22.9",
                        "stonebarrow-wl9",
                        StandIns.scenarios("stonebarrow-wl9").get(1),
                        454);
        tech.openJob(
                "127.0.22.9",
                "Shakes, lost power, filter will not burn off",
                Set.of("shakes", "no-power"));
        tech.sweep();
        loader.simulation().crank();
        Garage.until("the engine", () -> loader.simulation().running());
        tech.stage("watch");
        shop.type("#take-name", "idle");
        shop.press("#take-start");
        Garage.pause(14_000);
        shop.press("#take-stop");
        shop.one("html[data-drawn]");
        tech.stage("exercise");
        shop.press("a[href$='/procedures/cut-out']");
        shop.press("#begin");
        shop.waitForText("#instruction", "is off; reading");
        shot("procedure");
        shop.press("#stop-run");
        loader.driver(Driver.away());
        loader.driver(Driver.away().key(2));
        captured(
                tech,
                "cranking",
                "valve of cylinder",
                () -> {
                    shop.waitForText("#recording", "waits: crank now");
                    loader.simulation().act("crank-only");
                });
        shop.browser.executeScript(
                "document.getElementById('closer').click(); document.getElementById('closer').click()");
        shot("capture");
        loader.simulation().crank();
        Garage.until("the engine", () -> loader.simulation().running());
        tech.stage("watch");
        dark(true);
        shop.press("#view-fuel");
        shop.until(
                "readings in their places",
                b ->
                        b.findElement(By.cssSelector("[data-show='rail.pressure']"))
                                .getText()
                                .matches("\\d+\\.\\d"));
        shot("system-dark");
        dark(false);
    }

    /** Records by a plan until it shows what is wrong; a bad contact may be good for a moment. */
    private void captured(Technician tech, String plan, String shows, Runnable meanwhile) {
        do {
            shop.go("/jobs/" + tech.job() + "/probe/captures?plan=" + plan);
            shop.press("#record");
            meanwhile.run();
            shop.press("#look");
            shop.one("#capture[data-ready]");
        } while (!shop.text("#read").contains(shows));
    }

    /** A second job for the demo: its van is as it was built, and nothing is proven yet. */
    private void leaveOneOpen(Technician tech) throws Exception {
        shop.van(SISTER, StandIns.AS_BUILT, 431);
        tech.drives(SISTER);
        tech.openJob(SISTER, "Feels slow with a full load on the hill", Set.of("flat-on-climbs"));
        tech.sweep();
        tech.run("vane");
        tech.run("throttle");
    }

    private void dark(boolean on) {
        if (on) {
            shop.browser.manage().addCookie(new Cookie("theme", "dark"));
        } else {
            shop.browser.manage().deleteCookieNamed("theme");
        }
    }
}
