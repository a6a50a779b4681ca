package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.plant.Driver;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Every kind of exercise through its real page; each page is looked over for whom it shuts out. */
class ExercisePagesTest {
    private static final String ADDRESS = "127.0.86.1";
    private static final String HATCH = "127.0.86.2";

    @TempDir static Path data;
    private static Workshop shop;
    private static StandInVehicle van;

    private String exercise;

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        van = shop.van(ADDRESS, StandIns.AS_BUILT, 437);
        shop.signIn("lead");
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    @BeforeEach
    void begin() {
        van.driver(Driver.away());
        Garage.until("the engine off", () -> van.reading("engine.speed") < 10);
        van.driver(Driver.away().key(2));
        long job = Garage.job(shop.app, van, "tamarack-portage", ADDRESS, Set.of("flat-on-climbs"));
        exercise = "/jobs/" + job + "/exercise";
        shop.go(exercise);
    }

    private static void nothingShutsAnybodyOut() {
        assertThat(Looks.wrong(shop)).isEmpty();
    }

    private static void openGates(String button) {
        shop.until("the gates of " + button, b -> shop.one(button).isEnabled());
    }

    /** Keys go to whatever has the focus; here nothing has. */
    private static void key(String letter) {
        shop.browser.executeScript("document.activeElement.blur()");
        shop.browser.findElement(By.tagName("body")).sendKeys(letter);
    }

    @Test
    void selfChecksComeInTurnAndAnInstructionIsWatchedFor() {
        nothingShutsAnybodyOut();
        shop.click("#in-turn input[value=self-check-trailer]");
        shop.click("#in-turn input[value=self-check]");
        shop.press("#check-in-turn");
        // the first asks for nothing; when it has come to its end the next one begins
        shop.waitForText("#instruction", "Start the engine");
        shop.waitForText("#verdicts", "The boost pressure sensor tells ambient pressure at rest.");
        assertThat(shop.text("#instruction .mono")).contains("of 60 s at most");
        assertThat(shop.text("#present")).isEqualTo("Now: Engine state stopped");
        van.simulation().plant().crank();
        shop.waitForText("#ended", "The self-check is done.");
        assertThat(shop.text("#verdicts")).contains("The alternator charges.");
        shop.go(exercise);
        assertThat(shop.text("#stage")).contains("Self-check of the trailer module");
        assertThat(shop.text("#rail")).contains("It found nothing.");
    }

    @Test
    void anActuatorIsLedByHandAndDrivenAndComparedWithItsEarlierRuns() {
        openGates("#run-vane");
        shop.press("#hand-vane");
        shop.waitForText("#gates-hand", "Engine speed 0 rpm");
        nothingShutsAnybodyOut();
        shop.type("#sequence", "fast");
        shop.press("#lead");
        assertThat(shop.text(".error[role=alert]")).contains("found 'fast'");
        shop.type("#sequence", "20 % for 1.5 s, 70 % for 1.5 s");
        shop.press("#lead");
        shop.waitForText("#ended", "driven and given back");
        assertThat(shop.text("#verdicts")).contains("goes where it is told").contains("Told 70 %");
        assertThat(shop.text("#stage")).contains("Turbo vane position");
        nothingShutsAnybodyOut();
        for (int i = 0; i < 2; i++) {
            shop.go(exercise);
            openGates("#run-vane");
            shop.press("#run-vane");
            shop.waitForText("#ended", "driven and given back");
        }
        assertThat(shop.text("#verdicts"))
                .contains("does what it is told")
                .contains("On its run of ")
                .contains("shot over by");
    }

    @Test
    void playAndFrictionAreLookedForInSteps() {
        shop.press("#steps-throttle");
        openGates("#begin");
        shop.press("#begin");
        shop.waitForText("#ended", "driven and given back");
        assertThat(shop.text("#verdicts")).contains("moves evenly, up and down");
    }

    @Test
    void aTrimCodeIsTypedComparedWrittenAndTakenBack() {
        shop.press("#configuration-trims");
        nothingShutsAnybodyOut();
        String before = shop.text("#now-trim-3");
        shop.type("#i-trim-3", "222 2222 X");
        shop.press("#compare");
        assertThat(shop.text(".error[role=alert]")).contains("Injector 3");
        assertThat(shop.property("#i-trim-3", "value")).isEqualTo("222 2222 X");
        shop.type("#i-trim-3", "222 222-2");
        shop.press("#compare");
        assertThat(shop.text("#changes")).contains(before).contains("2222222");
        nothingShutsAnybodyOut();
        openGates("#write");
        shop.press("#write");
        assertThat(shop.text(".notice")).contains("Written, read back, and the same.");
        assertThat(shop.text("#now-trim-3")).isEqualTo("2222222");
        shop.press("#written button");
        assertThat(shop.text("#changes")).contains(before);
        shop.press("#write");
        assertThat(shop.text("#now-trim-3")).isEqualTo(before);
    }

    @Test
    void aModuleIsReplacedStepByStep() {
        shop.press("a[href$='/procedures/replace-trailer']");
        shop.press("#begin");
        shop.waitForText("#items", "tow bar, socket of 13 pins");
        nothingShutsAnybodyOut();
        key("a");
        shop.waitForText("#instruction", "Turn the key off and connect a charger");
        van.driver(Driver.away().key(0));
        shop.waitForText("#instruction", "Swap the module");
        van.simulation().act("swap-trailer");
        key("d");
        shop.waitForText("#instruction", "Turn the key on");
        van.driver(Driver.away().key(2));
        shop.waitForText("#instruction", "erased and told this");
        assertThat(shop.text("#items")).contains("not set");
        shop.press("#choice-go");
        shop.waitForText("#instruction", "Turn the key off");
        van.driver(Driver.away().key(0));
        shop.waitForText("#instruction", "Turn the key on");
        van.driver(Driver.away().key(2));
        shop.waitForText("#instruction", "Push the plug of the tow bar home");
        van.simulation().act("plug-trailer");
        shop.press("#choice-home");
        shop.waitForText("#ended", "The new module knows the van");
    }

    @Test
    void aPlanIsGoneThroughByKeys() {
        shop.press("a[href$='/procedures/three-wire-sensor']");
        shop.press("#begin");
        shop.waitForText("#instruction", "nplug");
        key("d");
        shop.send("#number", "4,2" + Keys.ENTER);
        shop.waitForText("#ended", "share it");
        assertThat(shop.text("#verdicts")).contains("breaks down under a small load");
        nothingShutsAnybodyOut();
        shop.go(exercise);
        assertThat(shop.text("#proposed")).contains("Low power");
    }

    @Test
    void whatIsLostIsReadBeforeItIsForgottenAndTanksAreWorkedByHand() throws Exception {
        try (StandInVehicle hatch = Garage.standIn("oriel-finch", false, HATCH)) {
            hatch.driver(Driver.away().key(2));
            long job = Garage.job(shop.app, hatch, "oriel-finch", HATCH, Set.of());
            String its = "/jobs/" + job + "/exercise/procedures/";
            shop.go(its + "forget-trims");
            openGates("#begin");
            shop.press("#begin");
            assertThat(shop.text(".error[role=alert]")).contains("Read what to beware of");
            shop.click("#read");
            openGates("#begin");
            shop.press("#begin");
            shop.one("#choice-mended");
            key("a");
            shop.waitForText("#ended", "Drive it warm");
            assertThat(shop.text("#verdicts")).contains("begins from nothing");

            hatch.hurry(4);
            shop.go(its + "leak-by-hand");
            openGates("#begin");
            shop.press("#begin");
            for (String step : List.of("pump-on", "vent-closed", "purge-open")) {
                shop.until(
                        "the question",
                        b -> shop.text("#instruction").startsWith("What shall be done?"));
                shop.press("#choice-" + step);
            }
            shop.until(
                    "the question",
                    b -> shop.text("#instruction").startsWith("What shall be done?"));
            assertThat(shop.text("#stop-run")).contains("give back");
            shop.press("#choice-end");
            shop.waitForText("#ended", "Worked by hand.");
            assertThat(shop.text("#verdicts"))
                    .contains("The pump draws.")
                    .contains("The purge valve lets the vacuum go.");
        }
    }
}
