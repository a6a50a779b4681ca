package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.job.Takes;
import brightlantern.core.take.Take;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.plant.Driver;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.interactions.Actions;

/** Watching in the browser: live values, takes, playback, logs from elsewhere, and each study. */
class WatchTest {
    private static final String LOADER = "127.0.79.1";
    private static final String HATCH = "127.0.79.2";

    @TempDir static Path data;
    private static Workshop shop;
    private static StandInVehicle loader;
    private static StandInVehicle hatch;

    @TempDir Path files;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        shop.signIn("tech");
        loader = Garage.standIn("stonebarrow-wl9", true, LOADER);
        hatch = Garage.standIn("oriel-finch", false, HATCH);
    }

    @AfterAll
    static void close() {
        loader.close();
        hatch.close();
        shop.close();
    }

    private static long job(StandInVehicle vehicle, String address, Set<String> symptoms) {
        return Garage.job(shop.app, vehicle, vehicle.description().id(), address, symptoms);
    }

    private static Takes takes() {
        return shop.app.getBean(Takes.class);
    }

    /** Waits until the newest take of a job holds so many seconds. */
    private static void recorded(long job, double seconds) {
        Garage.until(
                seconds + " s of a take",
                () -> {
                    // reading a take is work, and it is the recorder that is waited for
                    Garage.pause(300);
                    return !takes().of(job).isEmpty()
                            && takes().read(takes().of(job).get(0).id()).lengthSeconds() > seconds;
                });
    }

    private static void choose(String... ids) {
        for (String id : ids) {
            shop.type("#find", id);
            shop.press("#found form:has(input[value='" + id + "']) button");
        }
    }

    private static void start(StandInVehicle vehicle) {
        vehicle.simulation().crank();
        Garage.until("the engine", () -> vehicle.simulation().running());
    }

    private static void stop(StandInVehicle vehicle) {
        vehicle.driver(Driver.away().key(2));
    }

    @Test
    void theWeakCylinderIsFoundPlayedBackAndSentAround() throws Exception {
        long job = job(loader, LOADER, Set.of("shakes"));
        String watch = "/jobs/" + job + "/watch";
        start(loader);
        shop.go(watch);
        shop.choose("#list", "cylinders");
        shop.press("#use-list");
        assertThat(shop.browser.findElements(By.cssSelector("#values tbody tr")))
                .hasSizeGreaterThan(10);
        assertThat(shop.text("#cost")).contains("Hz");
        shop.press("#view-big");
        shop.until(
                "a big number",
                b ->
                        !b.findElement(By.cssSelector("[data-show='engine.speed']"))
                                .getText()
                                .matches("–|0"));
        shop.press("#view-fuel");
        shop.until(
                "the rail's pressure in its place",
                b ->
                        b.findElement(By.cssSelector("[data-show='rail.pressure']"))
                                .getText()
                                .matches("\\d+\\.\\d"));
        shop.press("#view-lanes");
        shop.until("lanes", b -> !b.findElements(By.cssSelector(".lane .stats")).isEmpty());

        shop.type("#take-name", "it shook");
        shop.press("#take-start");
        recorded(job, 1);
        shop.press("#take-redo");
        recorded(job, 11);
        shop.click("#mark");
        shop.waitForText("#mark", "Marked");
        shop.press("#take-stop");
        assertThat(shop.text(".answer")).isEqualTo("Cylinder 5 contributes less than the others.");
        assertThat(shop.text("#cylinders")).contains("stands out").contains("Misfires");
        assertThat(shop.text("#rail")).contains("Exhaust valve of cylinder 5 leaks");
        List<Takes.TakeHead> heads = takes().of(job);
        assertThat(heads).hasSize(2);
        assertThat(heads.get(1).setAside()).isTrue();
        assertThat(heads.get(0).name()).isEqualTo("take 2, it shook");
        shop.until("the picture", b -> shop.has("[data-drawn=yes]"));

        // wheel and playback
        Number before =
                (Number)
                        shop.browser.executeScript(
                                "const d = document.getElementById('lanes').dataset; return d.to - d.from");
        shop.browser.executeScript(
                "const o = document.querySelector('.u-over'); const b = o.getBoundingClientRect();"
                        + "o.dispatchEvent(new WheelEvent('wheel', {deltaY: -400, clientX: b.left + b.width / 2, clientY: b.top + 5, bubbles: true, cancelable: true}))");
        shop.until(
                "a closer look",
                b ->
                        ((Number)
                                                b.executeScript(
                                                        "const d = document.getElementById('lanes').dataset; return d.to - d.from"))
                                        .doubleValue()
                                < before.doubleValue());
        shop.until(
                "what the visible part comes to",
                b ->
                        b.findElements(By.cssSelector(".lane .stats")).stream()
                                .anyMatch(
                                        e ->
                                                e.getText()
                                                        .matches(
                                                                "(?s).*\\d … -?\\d[0-9.]* … -?\\d.*")));
        shop.press("#view-big");
        shop.choose("#speed", "16");
        shop.click("#play");
        shop.until(
                "the end of playback",
                b ->
                        b.findElement(By.id("play")).getText().equals("Play")
                                && !b.findElement(By.id("at-text")).getText().equals("0.0 s"));
        assertThat(shop.text("[data-show='engine.speed']")).matches("\\d{3,4}");

        // out as CSV and as MDF, and in again
        long take = heads.get(0).id();
        Take whole = takes().read(take);
        for (String kind : List.of("csv", "mf4")) {
            Path file = files.resolve("shaking." + kind);
            Files.write(file, fetched(watch + "/takes/" + take + "/" + kind));
            shop.go(watch + "/import");
            shop.send("#file", file.toString());
            shop.press("#look");
            if (kind.equals("csv")) {
                assertThat(shop.text(".answer")).contains("shaking.csv");
                assertThat(shop.text("#columns")).contains("times, as seconds").contains("marks");
                assertThat(shop.one("#columns [name^=to-]").getSize().getWidth())
                        .as("room for the name of a value")
                        .isGreaterThan(150);
                assertThat(
                                (Long)
                                        shop.browser.executeScript(
                                                "return document.documentElement.scrollWidth - innerWidth"))
                        .isLessThanOrEqualTo(1);
                assertThat(Looks.wrong(shop)).isEmpty();
                shop.press("#take-it");
            }
            assertThat(shop.text(".notice")).startsWith("Everything was read");
            assertThat(shop.text(".answer"))
                    .as("%s: %s", kind, shop.text("main"))
                    .isEqualTo("Cylinder 5 contributes less than the others.");
            Take back = takes().read(takes().of(job).get(0).id());
            assertThat(back.columns().keySet())
                    .containsExactlyInAnyOrderElementsOf(whole.columns().keySet());
            assertThat(back.columns().get("deviation.5").size())
                    .isEqualTo(whole.columns().get("deviation.5").size());
            assertThat(back.marks()).hasSize(1);
        }
        Path none = files.resolve("none.csv");
        Files.writeString(none, "only words\nand no numbers\n");
        shop.go(watch + "/import");
        shop.send("#file", none.toString());
        shop.click("#look");
        shop.waitForText(".error[role=alert]:not([hidden])", "none.csv: No line of numbers");
        stop(loader);
    }

    private static byte[] fetched(String path) {
        String text =
                (String)
                        shop.browser.executeAsyncScript(
                                "const done = arguments[1]; fetch(arguments[0]).then(r => r.arrayBuffer()).then(b => {"
                                        + " let s = ''; for (const x of new Uint8Array(b)) s += String.fromCharCode(x); done(btoa(s)); })",
                                path);
        return Base64.getDecoder().decode(text);
    }

    @Test
    void aTakeWaitsForItsConditionAndStudiesReadIt() throws Exception {
        long job = job(hatch, HATCH, Set.of());
        String watch = "/jobs/" + job + "/watch";
        start(hatch);
        hatch.hurry(4);
        shop.go(watch);
        choose(
                "ignition.angle",
                "ignition.wanted",
                "intake.pressure",
                "throttle.target",
                "throttle.actual");

        // a list is kept and used again
        shop.unfold("details:has(#list-name)");
        shop.type("#list-name", "spark");
        shop.press("#keep-list");
        assertThat(shop.text(".notice")).contains("'spark' was kept");
        assertThat(shop.text("#list")).contains("spark");

        // a condition that is not understood is shown at its place
        shop.unfold("details:has(#from)");
        shop.type("#from", "vehicle.sped > 20 km/h");
        shop.press("#take-start");
        assertThat(shop.text(".error")).contains("^ expected a value of this vehicle");

        shop.unfold("details:has(#from)");
        shop.type("#from", "vehicle.speed > 20 km/h");
        shop.type("#before", "3");
        shop.type("#until", "vehicle.speed < 5 km/h");
        shop.press("#take-start");
        shop.waitForText("#recorder-says", "Waits: starts when vehicle.speed > 20 km/h");
        assertThat(takes().of(job)).isEmpty();
        hatch.driver(hatch.simulation().driver().drive(Driver.Program.PULL));
        shop.waitForText("#recorder-says", "Recording");
        recorded(job, 20);
        hatch.driver(hatch.simulation().driver().drive(Driver.Program.STAND));
        Garage.until("its end", () -> takes().of(job).get(0).ended().isPresent());
        Takes.TakeHead head = takes().of(job).get(0);
        Take take = takes().read(head.id());
        assertThat(take.marks())
                .extracting(Take.Mark::text)
                .containsExactly("started by its condition", "stopped by its condition");
        assertThat(take.marks().get(0).seconds()).isEqualTo(3);
        Take.Column speed = take.columns().get("vehicle.speed");
        assertThat(speed.seconds(0)).as("time before the trigger").isLessThan(2.9);
        assertThat(speed.value(0)).isLessThan(20);
        assertThat(take.at("vehicle.speed", take.lengthSeconds())).isLessThan(20);

        lookOn(watch);
        studies(watch, head.id());
        reaction(watch, head.id());
        experiment(watch);
        units(watch, head.id());
        stop(hatch);
        hatch.hurry(1);
    }

    /** While the program looks on, the vehicle moves off: engine speed follows the throttle. */
    private void lookOn(String watch) throws Exception {
        shop.go(watch);
        shop.unfold("details:has(#look-on)");
        shop.choose("#command", "throttle.target");
        shop.choose("#answers", "throttle.actual");
        shop.type("#seconds", "8");
        Thread driver =
                new Thread(
                        () -> {
                            Garage.pause(3500);
                            hatch.driver(hatch.simulation().driver().drive(Driver.Program.CLIMB));
                        });
        driver.start();
        shop.press("#look-on");
        driver.join();
        assertThat(shop.text(".notice"))
                .contains("Throttle position after Throttle target: It moved");
        hatch.driver(hatch.simulation().driver().drive(Driver.Program.STAND));
    }

    private void studies(String watch, long take) {
        shop.go(watch + "/studies?take=" + take);
        shop.choose("#z", "ignition.wanted");
        shop.choose("#x", "engine.speed");
        shop.choose("#y", "engine.load");
        shop.press("#study");
        assertThat(shop.text("#answer")).startsWith("Ignition angle wanted runs from");
        assertThat(shop.browser.findElements(By.cssSelector("#map td.tone"))).hasSizeGreaterThan(4);
        shop.type("#map-name", "as it was");
        shop.press("#keep-map");
        shop.go(
                watch
                        + "/studies?kind=map&take="
                        + take
                        + "&z=ignition.wanted&x=engine.speed&y=engine.load&minus=1");
        assertThat(shop.text("#answer")).contains("in 0 cells by more");
        shop.type("#xEdges", "800 2000 1500");
        shop.press("#study");
        assertThat(shop.text("#trouble")).contains("Breakpoint 3");

        shop.go(
                watch
                        + "/studies?kind=scatter&take="
                        + take
                        + "&x=throttle.target&y=throttle.actual&z=engine.speed");
        assertThat(shop.text("#answer")).startsWith("Throttle position changes by");
        assertThat(shop.browser.findElements(By.cssSelector("#scatter circle")))
                .hasSizeGreaterThan(100);
        shop.choose("#verdict", "holds");
        shop.press("#keep-finding");
        assertThat(shop.text("#rail")).contains("Throttle position changes by");

        shop.go(
                watch
                        + "/studies?kind=overlay&before="
                        + take
                        + "&after="
                        + take
                        + "&z=intake.pressure&x=engine.speed&when=engine.load+%3E+60+%25");
        assertThat(shop.text("#answer")).contains("changed by 0.00 kPa on the mean");
        shop.go(
                watch
                        + "/studies?kind=overlay&before="
                        + take
                        + "&after="
                        + take
                        + "&z=intake.pressure&when=engine.load+%3E+200+%25");
        assertThat(shop.text("#trouble")).contains("never held");
    }

    private void reaction(String watch, long take) {
        shop.go(watch + "/takes/" + take);
        shop.choose("#command", "throttle.target");
        shop.choose("#answers", "throttle.actual");
        shop.press("#check-reaction");
        assertThat(shop.text("#reaction")).contains("It moved after").contains("the same way");
        shop.press("#keep-reaction");
        assertThat(shop.text("#rail")).contains("Throttle position after Throttle target");
        shop.type("#note", "second gear");
        shop.click("#aside");
        shop.press("#keep-note");
        assertThat(shop.text("main")).contains("second gear").contains("kept apart");
    }

    private void experiment(String watch) {
        shop.go(watch + "/experiment");
        shop.type("#name", "supply against gauge");
        shop.type("#inputName", "gauge, V");
        shop.choose("#answer", "engine.supply");
        shop.type("#settle", "0.1");
        shop.press("#begin");
        assertThat(shop.text(".error")).contains("Settling time: expected 0.5 to 30");
        shop.type("#name", "supply against gauge");
        shop.choose("#answer", "engine.supply");
        shop.type("#settle", "1");
        shop.press("#begin");
        shop.type("#typed", "14.1");
        shop.press("#read");
        shop.type("#typed", "13");
        shop.press("#read");
        assertThat(shop.browser.findElements(By.cssSelector("#readings tbody tr"))).hasSize(2);
        assertThat(shop.text("#answer")).contains("a third reading tells how sure");
    }

    private void units(String watch, long take) {
        shop.go("/units");
        shop.choose("#unit-pressure", "psi");
        shop.choose("#unit-temperature", "°F");
        shop.press("#keep-units");
        shop.go(watch + "/takes/" + take + "?view=big");
        assertThat(shop.text("main")).contains("psi").doesNotContain("kPa");
        // what a gate wants is told in the same unit as what is there
        shop.go(watch.replace("/watch", "/exercise/procedures/learn-crank"));
        assertThat(shop.text("#gates-begin")).contains("coolant above 140 °F").doesNotContain("°C");
        shop.go("/units");
        shop.choose("#unit-pressure", "");
        shop.choose("#unit-temperature", "");
        shop.press("#keep-units");
    }

    @Test
    void thePagesAreReachableByEverybody() {
        long job = job(hatch, HATCH, Set.of());
        // the others are looked at with all pages
        for (String page : List.of("?view=fuel", "?view=big")) {
            shop.go("/jobs/" + job + "/watch" + page);
            assertThat(Looks.wrong(shop)).as(page).isEmpty();
        }
        shop.go("/units");
        assertThat(Looks.wrong(shop)).isEmpty();
        new Actions(shop.browser).sendKeys("?").perform();
        shop.until("the keys", b -> b.findElement(By.id("keys")).isDisplayed());
    }
}
