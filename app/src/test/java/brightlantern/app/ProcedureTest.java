package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.standin.StandInVehicle;
import brightlantern.standin.plant.InjectorClicks;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Procedures through the real pages, against the vehicles that need them. */
class ProcedureTest {
    private static final String LOADER = "127.0.81.5";
    private static final String HATCH = "127.0.81.2";

    @TempDir static Path data;
    private static Workshop shop;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        shop.signIn("tech");
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    private static String begin(
            StandInVehicle vehicle, String address, Set<String> symptoms, String procedure) {
        long job = Garage.job(shop.app, vehicle, vehicle.description().id(), address, symptoms);
        String exercise = "/jobs/" + job + "/exercise";
        shop.go(exercise);
        shop.press("a[href$='/exercise/procedures/" + procedure + "']");
        return exercise;
    }

    private static void choose(byte[] recording, boolean warm) throws Exception {
        Path file = Files.write(data.resolve("heard.wav"), recording);
        shop.send("#file", file.toString());
        shop.click("form[enctype] input[name=warm][value=" + warm + "]");
    }

    private static void upload(byte[] recording, boolean warm) throws Exception {
        choose(recording, warm);
        shop.press("#measure");
    }

    private static void until(String what) {
        WebDriverWait wait = new WebDriverWait(shop.browser, Duration.ofSeconds(150));
        wait.until(b -> shop.has(what));
    }

    @Test
    void theCutOutFindsTheWeakCylinder() throws Exception {
        try (StandInVehicle loader = Garage.standIn("stonebarrow-wl9", true, LOADER)) {
            String exercise = begin(loader, LOADER, Set.of("shakes"), "cut-out");
            assertThat(shop.text("#gates-begin")).contains("Start the engine");
            assertThat(shop.isEnabled("#begin")).isFalse();
            loader.simulation().crank();
            shop.until("the gates open", b -> shop.one("#begin").isEnabled());
            assertThat(Looks.wrong(shop)).isEmpty();
            shop.press("#begin");
            assertThat(shop.text("#instruction")).contains("Let it idle");
            assertThat(Looks.wrong(shop)).isEmpty();
            shop.waitForText("#instruction", "is off; reading what the engine loses");
            until("#ended");
            assertThat(shop.text("#verdicts"))
                    .contains("Cylinder 5 is missed least")
                    .contains("Without cylinder 5 the engine loses");
            shop.browser.navigate().refresh();
            assertThat(shop.text("#rail")).contains("cylinder 5");

            shop.go(exercise + "/sound");
            assertThat(Looks.wrong(shop)).isEmpty();
            List<Integer> order = loader.description().cylinders().orElseThrow().order();
            upload(InjectorClicks.heard(order, 3, 2, 12, 1).write(), false);
            assertThat(shop.text(".answer"))
                    .startsWith(
                            "Injector 2 sounds dull among its fellows. Heard cold, this tells nothing");
            choose("no sound".getBytes(), false);
            shop.click("#measure");
            shop.waitForText(".error[role=alert]:not([hidden])", "expected a WAV file");
            upload(InjectorClicks.heard(order, 3, 2, 85, 1).write(), true);
            assertThat(shop.text(".answer"))
                    .contains("stiff when cold and sounds like its fellows when warm");

            shop.go(exercise + "/sound?warm=true");
            shop.click("#dull-0");
            shop.press("#heard");
            assertThat(shop.text("#rail")).contains("Warm: All injectors sound alike");

            shop.go(exercise + "/configurations/trims");
            shop.type("[name='i.trim-2']", "222 222-2");
            shop.press("#compare");
            assertThat(shop.text("main")).contains("2222222");
            assertThat(Looks.wrong(shop)).isEmpty();
        }
    }

    @Test
    void theLeakTestFindsThePurgeSide() throws Exception {
        try (StandInVehicle hatch = Garage.standIn("oriel-finch", true, HATCH)) {
            hatch.hurry(4);
            begin(hatch, HATCH, Set.of("hard-start-after-fill"), "leak-test");
            shop.press("#begin");
            shop.waitForText("#instruction", "The test runs");
            // it may be left, and come back to
            String run = shop.path();
            shop.go("/");
            shop.go(run);
            until("#choice-yes");
            assertThat(shop.text("#verdicts"))
                    .contains("leaks like a hole of")
                    .contains("The pump is good");
            hatch.simulation().act("pinch-purge");
            shop.press("#choice-yes");
            until("#done");
            assertThat(shop.text("#verdicts")).contains("it leaks through the purge valve");
            shop.press("#done");
            assertThat(shop.text("#ended")).contains("The leak test is done.");
            assertThat(shop.text("#rail")).contains("Purge valve does not close");
        }
    }
}
