package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.VehicleLinks;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.module.UdsModule.Behaviour;
import brightlantern.standin.plant.Driver;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * An actuator that is held by hand, and every way in which that may end; refusals of every kind; a
 * module that takes its time.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class SafeExitsTest {
    private static final String ADDRESS = "127.0.84.2";
    private static final String SLOW_ADDRESS = "127.0.84.3";
    private static final Pattern RUN = Pattern.compile("/exercise/runs/(\\d+)/now");
    private static final long MINUTE_MILLIS = 62_000;

    @TempDir static Path data;
    private static Garage garage;
    private static StandInVehicle hatch;
    private static StandInVehicle slow;
    private static Visitor lead;
    private static String minute;

    private Visitor tech;
    private String exercise;

    @BeforeAll
    static void open() throws Exception {
        garage = new Garage(data);
        lead = garage.visitor("lead");
        hatch = garage.vehicle("oriel-finch", false, ADDRESS);
        slow = garage.vehicle("oriel-finch", false, SLOW_ADDRESS);
        beginTheSlowOne();
    }

    /** It takes a minute, in which the others are done. */
    private static void beginTheSlowOne() throws Exception {
        slow.driver(Driver.away().key(2));
        slow.module("engine").routinesTake(MINUTE_MILLIS);
        String its = "/jobs/" + garage.job(slow, SLOW_ADDRESS, Set.of()) + "/exercise";
        String page = its + "/procedures/forget-trims";
        minute = its + "/runs/" + run(lead.post(page, page, Map.of("read", "true")));
        Garage.until("the question", () -> lead.reads(minute).contains("data-step=\"sure\""));
        lead.post(minute, minute + "/choose", Map.of("step", "sure", "choice", "mended"));
        Thread page1 =
                new Thread(
                        () -> {
                            // somebody looks on, so the page does not count as gone
                            while (!lead.reads(minute + "/now").contains("id=\"ended\"")) {
                                Garage.pause(900);
                            }
                        });
        page1.setDaemon(true);
        page1.start();
    }

    @AfterAll
    static void close() {
        garage.close();
    }

    @BeforeEach
    void begin() throws Exception {
        hatch.driver(Driver.away().key(2));
        tech = garage.visitor("tech");
        exercise = "/jobs/" + garage.job(hatch, ADDRESS, Set.of()) + "/exercise";
    }

    @AfterEach
    void rest() {
        hatch.module("engine").behave(Behaviour.NORMAL);
        List.of(0x10, 0x22, 0x2F).forEach(s -> hatch.module("engine").refuse(s, 0));
        Garage.until("the fan given back", () -> !turns());
    }

    private static boolean turns() {
        hatch.catchUp();
        return hatch.simulation().reading("fan.duty").orElseThrow() > 60;
    }

    private static boolean stands() {
        hatch.catchUp();
        return hatch.simulation().reading("engine.speed").orElseThrow() < 10;
    }

    private static String run(String page) {
        Matcher run = RUN.matcher(page);
        assertThat(run.find()).as(page).isTrue();
        return run.group(1);
    }

    private String asked(Visitor who, String seconds) throws Exception {
        String hand = exercise + "/hand/radiator-fan";
        Map<String, String> form = new LinkedHashMap<>();
        form.put("how", "hold");
        form.put("to", "80");
        form.put("seconds", seconds);
        return who.post(hand, hand, form);
    }

    /** The fan is held at 80 %; the path of its run. */
    private String held() throws Exception {
        String run = exercise + "/runs/" + run(asked(tech, "60"));
        Garage.until("the fan", SafeExitsTest::turns);
        return run;
    }

    private static void ended(Visitor who, String run, String why) {
        Garage.until("the end", () -> who.reads(run + "/now").contains("id=\"ended\""));
        assertThat(who.reads(run)).contains(why);
        Garage.until("the fan given back", () -> !turns());
    }

    @Test
    @Order(1)
    void itEndsByItselfAndIsTold() throws Exception {
        String run = exercise + "/runs/" + run(asked(tech, "3"));
        ended(tech, run, "Radiator fan was driven and given back.");
        assertThat(tech.reads(run)).contains("Radiator fan speed: ").contains("80 % for 3 s.");
        assertThat(tech.get("/log")).contains("Radiator fan to 80 %");
    }

    @Test
    @Order(2)
    void whoeverSignsOutHandsEverythingBack() throws Exception {
        String run = held();
        tech.post(exercise, "/sign-out", Map.of());
        ended(lead, run, "tech signed out. All that was held was given back.");
    }

    @Test
    @Order(3)
    void theModuleTakesItsOutputBackWhenNothingReachesItAnyMore() throws Exception {
        String run = held();
        // it hears nothing and says nothing; only its own clock ends the session (S3)
        hatch.module("engine").behave(Behaviour.SILENT);
        Garage.until("the fan given back", () -> !turns());
        Garage.until("the end", () -> tech.reads(run + "/now").contains("id=\"ended\""));
        assertThat(tech.get("/log")).contains("not confirmed");
        assertThat(tech.reads(run)).contains("It is NOT confirmed that everything went back (");
        assertThat(asked(tech, "5")).contains("has not confirmed that everything went back");
        Garage.until("the engine module is asked again", SafeExitsTest::asksTheEngine);
    }

    @Test
    @Order(4)
    void twoWhoWantTheSameActuatorAreToldWhoHasIt() throws Exception {
        String run = held();
        assertThat(asked(tech, "5")).contains("Radiator fan by hand is under way, begun by tech");
        assertThat(asked(lead, "5")).contains("Radiator fan by hand is under way, begun by tech");
        assertThat(turns()).isTrue();
        assertThat(lead.post(run, run + "/done", Map.of("step", "moving")))
                .contains("tech began this and moves it on");
        lead.post(run, run + "/stop", Map.of());
        ended(tech, run, "Stopped by lead.");
    }

    @Test
    @Order(5)
    void aValueThatVanishesEndsItWithItsName() throws Exception {
        String run = held();
        hatch.module("engine").forget(0x204E);
        ended(tech, run, "does not have this identifier");
        hatch.module("engine").identifier(0x204E, () -> Bytes.of(0, 0));
    }

    @Test
    @Order(6)
    void everyKindOfRefusalIsToldInWords() throws Exception {
        UdsModule engine = hatch.module("engine");
        Map<Integer, String> kinds = new LinkedHashMap<>();
        kinds.put(0x10, "gives no reason");
        kinds.put(0x11, "does not have this service");
        kinds.put(0x12, "kind of the service");
        kinds.put(0x13, "length or format is wrong");
        kinds.put(0x21, "it is busy");
        kinds.put(0x22, "conditions are not right");
        kinds.put(0x31, "out of range");
        kinds.put(0x33, "wants to be unlocked first");
        kinds.put(0x72, "programming failed");
        kinds.put(0x7F, "present session");
        kinds.put(0x83, "the engine is running");
        kinds.put(0x93, "supply voltage is too low");
        kinds.put(0xFA, "a reason that the standard does not name");
        for (Map.Entry<Integer, String> kind : kinds.entrySet()) {
            for (int service : new int[] {0x10, 0x2F}) {
                engine.refuse(service, kind.getKey());
                String run = exercise + "/runs/" + run(asked(tech, "5"));
                ended(tech, run, kind.getValue());
                engine.refuse(service, 0);
            }
        }
    }

    @Test
    @Order(7)
    void nonsenseCommandsNothing() throws Exception {
        assertThat(asked(tech, "long"))
                .contains("Nothing was commanded: expected parts like")
                .contains("value=\"long\"");
        String hand = exercise + "/hand/radiator-fan";
        assertThat(tech.post(hand, hand, Map.of("how", "sequence", "sequence", "300 % for 2 s")))
                .contains("expected 0 to 100 %, found 300 %");
        assertThat(tech.post(hand, hand, Map.of("how", "pulses", "times", "many")))
                .contains("Nothing was commanded");
        assertThat(tech.get(exercise + "/hand/toaster")).contains("no actuator &#39;toaster&#39;");
        assertThat(tech.get(exercise + "/procedures/hand-radiator-fan~900x1"))
                .contains("no procedure");
    }

    @Test
    @Order(8)
    void aResultThatNobodyDescribedEndsTheRunWithItsPlace() throws Exception {
        UdsModule.Routine unknown =
                new UdsModule.Routine() {
                    @Override
                    public int start() {
                        return 0;
                    }

                    @Override
                    public void stop() {
                        // it has ended
                    }

                    @Override
                    public Bytes result() {
                        return Bytes.of(9);
                    }
                };
        hatch.module("tank").routine(0x0301, unknown);
        String page = exercise + "/procedures/leak-test";
        hatch.simulation().crank();
        Garage.until("the engine", () -> hatch.simulation().running());
        assertThat(tech.post(page, page, Map.of())).contains("Gate shut: Engine speed");
        hatch.driver(Driver.away());
        Garage.until("the engine off", SafeExitsTest::stands);
        hatch.driver(Driver.away().key(2));
        String run = exercise + "/runs/" + run(tech.post(page, page, Map.of()));
        Garage.until("the end", () -> tech.reads(run + "/now").contains("id=\"ended\""));
        assertThat(tech.reads(run)).contains("Test is 9, which is not described.");
    }

    @Test
    @Order(8)
    void aThreadThatIsToldToStopWhileItWritesDoesNotCloseTheFileForAllOthers() {
        Jobs jobs = garage.app.getBean(Jobs.class);
        Findings findings = garage.app.getBean(Findings.class);
        long job = jobs.all().get(0).id();
        for (int i = 0; i < 5; i++) {
            Thread.currentThread().interrupt();
            findings.note(job, "exercise", "tech", "written while told to stop");
            Thread.interrupted();
        }
        assertThat(findings.of(job)).hasSizeGreaterThanOrEqualTo(5);
        assertThat(lead.reads("/")).contains("Oriel Finch");
    }

    @Test
    @Order(9)
    void aModuleThatTakesAMinuteIsWaitedFor() {
        Garage.until("the end", () -> lead.reads(minute).contains("id=\"ended\""));
        assertThat(lead.reads(minute)).contains("The long-term trim begins from nothing.");
    }

    @Test
    @Order(10)
    void aDiskThatTakesNothingAnyMoreStillGivesBack() throws Exception {
        JdbcClient db = garage.app.getBean(JdbcClient.class);
        String run = held();
        db.sql("alter table command_log rename to full_log").update();
        db.sql("alter table procedure_event rename to full_events").update();
        try {
            tech.post(run, run + "/stop", Map.of());
            Garage.until("the fan given back", () -> !turns());
            assertThat(tech.get("/")).as("the rest goes on").contains("Oriel Finch");
        } finally {
            db.sql("alter table full_events rename to procedure_event").update();
            db.sql("alter table full_log rename to command_log").update();
        }
        ended(tech, run, "Stopped by tech.");

        db.sql("alter table command_log rename to full_log").update();
        try {
            String refused = exercise + "/runs/" + run(asked(tech, "5"));
            ended(tech, refused, "What it does cannot be written down at present (");
        } finally {
            db.sql("alter table full_log rename to command_log").update();
        }
        ended(tech, exercise + "/runs/" + run(asked(tech, "3")), "was driven and given back");
    }

    @Test
    @Order(11)
    void whoeverStopsIsNotKeptWaitingByAModuleThatTakesItsTime() throws Exception {
        // far longer than anything here is waited for
        hatch.module("engine").routinesTake(600_000);
        String page = exercise + "/procedures/forget-trims";
        String run = exercise + "/runs/" + run(tech.post(page, page, Map.of("read", "true")));
        Garage.until("the question", () -> tech.reads(run).contains("data-step=\"sure\""));
        tech.post(run, run + "/choose", Map.of("step", "sure", "choice", "mended"));
        Garage.until("the routine", () -> tech.reads(run).contains("data-step=\"forget\""));
        tech.post(run, run + "/stop", Map.of());
        ended(tech, run, "Stopped by tech.");
    }

    private static boolean asksTheEngine() {
        try {
            garage.app
                    .getBean(VehicleLinks.class)
                    .link(ADDRESS)
                    .module(hatch.description().module("engine").orElseThrow().address());
            return true;
        } catch (WireException leftAlone) {
            return false;
        }
    }

    @Test
    @Order(12)
    void theProgramsEndGivesBackAndTheNextOneKnowsWhereItStood() throws Exception {
        hatch.module("engine").routinesTake(180);
        String run = held();
        garage.app.close();
        Garage.until("the fan given back", () -> !turns());
        try (Garage next = new Garage(data)) {
            assertThat(next.visitor("tech").get(run)).contains("id=\"resume\"");
        }
    }
}
