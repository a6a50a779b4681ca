package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.link.VehicleLink;
import brightlantern.app.link.VehicleLinks;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.module.UdsModule.Behaviour;
import brightlantern.standin.plant.Driver;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Every way out of a procedure that holds something, each done to it. */
class ProcedureLuckTest {
    private static final String ADDRESS = "127.0.80.2";
    private static final Pattern RUN = Pattern.compile("/exercise/runs/(\\d+)/now");
    private static final double ASKED_RPM = 2300;

    @TempDir static Path data;
    private static Garage garage;
    private static Visitor tech;
    private static StandInVehicle ember;

    private long job;
    private String exercise;

    @BeforeAll
    static void open() throws Exception {
        garage = new Garage(data);
        tech = garage.visitor("tech");
        ember = garage.vehicle("quillon-ember", true, ADDRESS);
    }

    @AfterAll
    static void close() {
        garage.close();
    }

    @BeforeEach
    void begin() {
        ember.driver(Driver.away().key(2));
        job = garage.job(ember, ADDRESS, Set.of("cooling-weak"));
        exercise = "/jobs/" + job + "/exercise";
    }

    @AfterEach
    void rest() {
        ember.module("compressor").behave(Behaviour.NORMAL);
        ember.module("compressor").refuse(0x2F, 0);
        Garage.until("the compressor given back", () -> commanded() < 1);
    }

    /** What the compressor is told at present, whoever tells it. */
    private static double commanded() {
        ember.catchUp();
        return ember.simulation().reading("compressor.wanted").orElseThrow();
    }

    private static String begun(Visitor who, String exercise, String procedure) throws Exception {
        String page = exercise + "/procedures/" + procedure;
        return who.post(page, page, Map.of("read", "true"));
    }

    /** Begins to command the compressor; the page of its run. */
    private String compressor() throws Exception {
        String page = begun(tech, exercise, "compressor");
        Matcher run = RUN.matcher(page);
        assertThat(run.find()).as(Visitor.said(page)).isTrue();
        String path = exercise + "/runs/" + run.group(1);
        Garage.until(
                "the command",
                () -> tech.reads(path + "/now").contains("Waiting") && commanded() > ASKED_RPM);
        return path;
    }

    private static void ended(String run, String why) {
        Garage.until("the end", () -> tech.reads(run).contains("id=\"ended\""));
        assertThat(tech.reads(run)).contains(why);
        Garage.until("the compressor given back", () -> commanded() < 1);
    }

    @Test
    void aPageThatGoesAwayGivesBackAndTheRunCanBeGoneOnWith() throws Exception {
        String run = compressor();
        Garage.until("the compressor given back", () -> commanded() < 1);
        ended(run, "The page went away");
        assertThat(tech.get(run)).contains("id=\"resume\"");
        tech.post(run, run + "/resume", Map.of());
        Garage.until(
                "the command again",
                () -> tech.reads(run + "/now").contains("Waiting") && commanded() > ASKED_RPM);
        Garage.until("the end", () -> tech.reads(run + "/now").contains("id=\"ended\""));
        assertThat(tech.get(run))
                .contains("Command, current and speed go together")
                .contains("Compressor speed (reading at 70 %)");
        assertThat(tech.get("/log")).contains("outputs given back");
    }

    @Test
    void aShutGateGivesBack() throws Exception {
        String run = compressor();
        try (var shown = tech.stays(run + "/now")) {
            ember.driver(Driver.away().key(1));
            ended(run, "Gate shut");
        }
        ember.driver(Driver.away().key(2));
    }

    @Test
    void aLostLinkIsNotSaidToHaveGivenBackAndTheModuleIsLeftAlone() throws Exception {
        String run = compressor();
        try (var shown = tech.stays(run + "/now")) {
            ember.gateway().cut();
            ended(run, "It is NOT confirmed that everything went back (");
        }
        assertThat(begun(tech, exercise, "compressor")).contains("asked nothing for some seconds");
    }

    /** A module that confirmed nothing is left alone for some seconds, in all tests alike. */
    @BeforeEach
    void everyModuleIsAsked() {
        Garage.until(
                "every module asked",
                () ->
                        ember.description().modules().stream()
                                .noneMatch(m -> link().isLeftAlone(m.address())));
    }

    private static VehicleLink link() {
        return garage.app.getBean(VehicleLinks.class).link(ADDRESS);
    }

    @Test
    void oneCommandsAtATimeAndTheOtherIsToldWho() throws Exception {
        String run = compressor();
        // a busy machine takes longer for the pages between than a command may be left alone
        try (var shown = tech.stays(run + "/now")) {
            isHandedToTheLead(run);
        }
    }

    private void isHandedToTheLead(String run) throws Exception {
        Visitor lead = garage.visitor("lead");
        assertThat(begun(lead, exercise, "compressor"))
                .contains(
                        "Prove the cooling compressor without touching it is under way, begun by tech");
        assertThat(lead.get(run))
                .as("watching is free")
                .contains("Waiting")
                .contains("tech commands this vehicle. You may look on.");
        String number = run.substring(run.lastIndexOf('/') + 1);
        lead.post(run, exercise + "/command/ask", Map.of("run", number));
        assertThat(tech.get(run)).contains("lead asks for the command");
        lead.post(run, exercise + "/command/hand", Map.of("run", number));
        assertThat(lead.get(run))
                .as("nobody takes what he was not given")
                .contains("tech commands");
        tech.post(run, exercise + "/command/hand", Map.of("run", number));
        ended(run, "handed over to lead");
        // what was handed over can be used, and is let go of at the end
        Matcher next = RUN.matcher(begun(lead, exercise, "compressor"));
        assertThat(next.find()).isTrue();
        String its = exercise + "/runs/" + next.group(1);
        try (var shown = lead.stays(its + "/now")) {
            Garage.until("the lead's command", () -> lead.reads(its + "/now").contains("Waiting"));
            lead.post(its, its + "/stop", Map.of());
            ended(its, "Stopped by lead");
        }
    }

    @Test
    void whatToBewareOfIsReadFirst() throws Exception {
        String page = exercise + "/procedures/compressor";
        assertThat(tech.post(page, page, Map.of())).contains("Read what to beware of");
        assertThat(commanded()).isLessThan(1);
    }

    @Test
    void aStoredCodeLocksABalancingAndTheGateSaysWhich() throws Exception {
        String page = exercise + "/procedures/balance";
        assertThat(tech.get(page))
                .contains("P0BBD-00 is stored: Cell voltages differ too much")
                .contains("disabled");
        assertThat(tech.post(page, page, Map.of())).contains("Gate shut: P0AFA-00 stored");
    }

    @Test
    void aRefusalIsToldInWordsAlthoughTheGatesAreOpen() throws Exception {
        ember.module("compressor").refuse(0x2F, 0x22);
        Matcher run = RUN.matcher(begun(tech, exercise, "compressor"));
        assertThat(run.find()).isTrue();
        String path = exercise + "/runs/" + run.group(1);
        ended(path, "The vehicle refused: The module refused service 0x2F: conditions are not");
        assertThat(tech.reads(path)).contains("Every gate that is described is open");
    }

    @Test
    void aModuleThatTellsNothingEndsARunWithWhatWasMissing() throws Exception {
        ember.module("compressor").behave(Behaviour.REFUSING);
        String page = begun(tech, exercise, "compressor");
        Matcher run = RUN.matcher(page);
        assertThat(run.find()).as(Visitor.said(page)).isTrue();
        // a module that refuses everything does not tell its values either
        ended(
                exercise + "/runs/" + run.group(1),
                "no module answered with Compressor speed target");
    }

    @Test
    void nonsenseIsRefusedWithWhatWasExpectedAndARunOutlivesItsPage() throws Exception {
        String page = exercise + "/procedures/three-wire-sensor";
        String shown = tech.post(page, page, Map.of());
        Matcher number = RUN.matcher(shown);
        assertThat(number.find()).isTrue();
        String run = exercise + "/runs/" + number.group(1);
        tech.post(run, run + "/done", Map.of("step", "unplug"));
        assertThat(tech.post(run, run + "/type", Map.of("step", "reference", "number", "five")))
                .contains("expected a number from -1 to 30 V, found &#39;five&#39;");
        assertThat(tech.post(run, run + "/type", Map.of("step", "reference", "number", "4,1")))
                .contains("The reference breaks down under a small load.")
                .contains("Reference under the lamp: 4.10 V");
        assertThat(tech.post(run, run + "/type", Map.of("step", "reference", "number", "5")))
                .as("an answer to a step that is over")
                .contains("unplug the others that share it");
        assertThat(tech.get(exercise)).contains("Three-wire sensor");
        assertThat(tech.get("/jobs/" + job + "/exercise/runs/999999")).contains("There is no run");
    }
}
