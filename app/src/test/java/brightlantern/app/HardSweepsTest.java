package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.code.StoredCode;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.module.UdsModule.Behaviour;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sweeps of vehicles that misbehave, of one that nobody described, and what codes are worth. */
class HardSweepsTest {
    @TempDir static Path data;

    private static Garage garage;
    private static Visitor tech;
    private static StandInVehicle finch;
    private static long job;

    @BeforeAll
    static void open() throws Exception {
        garage = new Garage(data);
        tech = garage.visitor("tech");
        finch = garage.vehicle("oriel-finch", true, "127.0.74.1");
        job = garage.job(finch, "127.0.74.1", Set.of());
    }

    @AfterAll
    static void close() {
        garage.close();
    }

    private static void allNormal() {
        finch.description().modules().stream()
                .map(m -> finch.module(m.id()))
                .filter(m -> m != null)
                .forEach(m -> m.behave(Behaviour.NORMAL));
    }

    @Test
    void framesThatContradictAndRecordsThatEndEarlyCostNoCode() throws Exception {
        List<String> whole = codes(garage.sweep(tech, job));
        finch.module("tank").behave(Behaviour.SHORT_FRAMES);
        finch.module("engine").behave(Behaviour.TORN_RECORDS);
        Sweep sweep = garage.sweep(tech, job);
        allNormal();
        assertThat(codes(sweep)).containsExactlyElementsOf(whole);
        assertThat(sweep.module("tank").orElseThrow().codes())
                .allSatisfy(
                        c -> {
                            assertThat(c.trouble()).startsWith("Freeze frames not read: ");
                            assertThat(c.occurrences()).isPositive();
                        });
        assertThat(sweep.module("engine").orElseThrow().codes())
                .allSatisfy(
                        c -> {
                            assertThat(c.trouble()).startsWith("Counters not read: ");
                            assertThat(c.frames()).isNotEmpty();
                        });
        assertThat(tech.get(Garage.page(job))).contains("Counters not read");
    }

    private static List<String> codes(Sweep sweep) {
        return sweep.codes().stream().map(StoredCode::code).toList();
    }

    @Test
    void twoModulesWithOneAddressAreToldAsSuch() throws Exception {
        finch.module("climate").behave(Behaviour.TWINNED);
        Sweep sweep = garage.sweep(tech, job);
        allNormal();
        assertThat(sweep.module("climate").orElseThrow().answer()).isEqualTo(Answer.FAULTY);
        assertThat(sweep.module("climate").orElseThrow().trouble())
                .contains("more than one module may have the address");
    }

    @Test
    void aModuleThatAnswersForAnotherIsToldAndSpoilsNobodyElse() throws Exception {
        int audio = finch.module("audio").address();
        finch.gateway().mistake(audio, finch.module("body").address());
        Sweep sweep = garage.sweep(tech, job);
        finch.gateway().mistake(audio, audio);
        assertThat(sweep.module("audio").orElseThrow().answer()).isEqualTo(Answer.SILENT);
        // to the body module's client an answer too many looks like a twin's
        assertThat(sweep.module("body").orElseThrow())
                .matches(
                        m ->
                                m.answer() == Answer.ANSWERED
                                        || m.trouble().contains("more than one module"));
        assertThat(sweep.count(Answer.SILENT) + sweep.count(Answer.FAULTY)).isBetween(1L, 2L);
        assertThat(sweep.whole()).isTrue();
    }

    @Test
    void everyFifthRequestLostIsAskedAgain() throws Exception {
        finch.gateway().loseEvery(5);
        Sweep sweep = garage.sweep(tech, job);
        finch.gateway().loseEvery(0);
        assertThat(sweep.count(Answer.SILENT)).isZero();
        assertThat(sweep.codes()).isNotEmpty();
    }

    @Test
    void aGatewayThatRestartsInMidSweepLosesNothingThatWasKept() throws Exception {
        int before = garage.sweeps(job);
        tech.post(Garage.page(job), Garage.page(job) + "/start", Map.of());
        Garage.until("the sweep's start", () -> garage.sweeps(job) > before);
        finch.restartGateway();
        Sweep sweep = garage.ended(job, before);
        assertThat(sweep.whole()).isTrue();
        tech.post(Garage.page(job), Garage.page(job) + "/start", Map.of("resume", "true"));
        Garage.until(
                "all modules",
                () ->
                        garage.newest(job).count(Answer.ANSWERED)
                                        + garage.newest(job).count(Answer.NOT_FITTED)
                                == finch.description().modules().size());
    }

    @Test
    void twoPeopleWhoSweepAtOnceShareOneSweep() throws Exception {
        Visitor lead = garage.visitor("lead");
        int before = garage.sweeps(job);
        finch.module("engine").behave(Behaviour.LATE);
        tech.post(Garage.page(job), Garage.page(job) + "/start", Map.of());
        lead.post(Garage.page(job), Garage.page(job) + "/start", Map.of());
        allNormal();
        garage.ended(job, before);
        assertThat(garage.sweeps(job)).isEqualTo(before + 1);
        Garage.until(
                "the second one's page", () -> lead.reads(Garage.page(job)).contains("Chase "));
    }

    @Test
    void anHonestHeronWhoseClockWasSetBackIsNotAccused() throws Exception {
        String address = "127.0.74.2";
        StandInVehicle heron = garage.vehicle("oriel-heron", false, address);
        heron.simulation().clockBehind(2.5 * 31_557_600);
        long check = garage.job(heron, address, Set.of());
        garage.sweep(tech, check);
        String odometer = Garage.page(check) + "/odometer";
        String html = tech.post(odometer, odometer, Map.of());
        assertThat(html).contains("id=\"timeline\"").doesNotContain(">contradicts<");
        assertThat(html.replaceAll("(?s).*id=\"answer\"[^>]*>([^<]*)<.*", "$1"))
                .doesNotContain("set back");
    }

    @Test
    void theEmissionSystemStandsApart() throws Exception {
        garage.sweep(tech, job);
        String html = tech.get(Garage.page(job) + "/emission");
        assertThat(html)
                .contains("Purge flow")
                .contains(">fails<")
                .contains("Fuel vapour")
                .contains("P0496-00")
                .contains(">permanent<");
        // as a whole code in its cell: two letters also turn up in the random token of the forms
        assertThat(html)
                .containsPattern(">P[0-9A-F]{4}-[0-9A-F]{2}<")
                .doesNotContainPattern(">U[0-9A-F]{4}-[0-9A-F]{2}<");
        Sweep sweep = garage.newest(job);
        assertThat(sweep.module("engine").orElseThrow().identity().get("made on"))
                .matches("20\\d\\d-\\d\\d-\\d\\d");
        assertThat(sweep.codes()).anySatisfy(c -> assertThat(c.urgency()).isNotEmpty());
    }

    @Test
    void aVehicleThatNobodyDescribedIsFoundByItsAddresses() throws Exception {
        String address = "127.0.74.3";
        StandInVehicle loader = garage.vehicle("stonebarrow-wl9", true, address);
        long unknown = garage.job(loader, "", address, Set.of());
        assertThat(tech.get("/jobs/" + unknown + "/intake"))
                .contains("No description fits this VIN");
        Sweep sweep = garage.sweep(tech, unknown);
        List<String> fitted = new ArrayList<>();
        loader.description()
                .modules()
                .forEach(
                        m -> {
                            if (loader.module(m.id()) != null) {
                                fitted.add("module-%04X".formatted(m.address()));
                            }
                        });
        assertThat(sweep.modules())
                .extracting(Sweep.ModuleResult::moduleId)
                .containsExactlyInAnyOrderElementsOf(fitted);
        assertThat(sweep.modules())
                .allSatisfy(m -> assertThat(m.answer()).isEqualTo(Answer.ANSWERED));
        assertThat(sweep.modules())
                .allSatisfy(m -> assertThat(m.identity().get("VIN")).isEqualTo(loader.vin()));
        assertThat(sweep.codes())
                .anySatisfy(
                        c -> {
                            assertThat(c.code()).isEqualTo("P0305-00");
                            assertThat(c.name()).contains("isfire");
                            assertThat(c.trouble()).contains("nobody described what they hold");
                        });
        assertThat(tech.get(Garage.page(unknown) + "/modules/module-1010/supported"))
                .contains("P0305-00");
        assertThat(tech.get(Garage.page(unknown) + "/emission")).contains("Particulate filter");
        for (String stage : List.of("intake", "watch", "exercise", "probe", "trace", "prove")) {
            assertThat(tech.get("/jobs/" + unknown + "/" + stage))
                    .as(stage)
                    .contains("id=\"rail\"")
                    .doesNotContain("went wrong");
        }
    }

    @Test
    void codesAreFilteredAndSorted() throws Exception {
        garage.sweep(tech, job);
        String page = Garage.page(job);
        assertThat(shown(tech.get(page + "?only=lead"))).containsExactly("P0496-00");
        assertThat(shown(tech.get(page + "?sort=code"))).isSorted().hasSizeGreaterThan(2);
        assertThat(shown(tech.get(page + "?find=tank&sort=code"))).containsExactly("P0496-00");
    }

    private static List<String> shown(String html) {
        String table = html.substring(html.indexOf("id=\"codes\""));
        int end = table.indexOf("id=\"occasions\"");
        return Pattern.compile(">([PBCU][0-9A-F]{4}-[0-9A-F]{2})<")
                .matcher(end < 0 ? table : table.substring(0, end))
                .results()
                .map(m -> m.group(1))
                .toList();
    }

    /** Code → lead, knock-on or aside, as whoever broke the vehicle knows it. */
    private static final Map<String, Map<String, String>> TRUTH =
            Map.of(
                    "oriel-finch",
                    Map.of("P0496-00", "lead code", "P0171-00", "knock-on", "P0133-00", "knock-on"),
                    "quillon-ember",
                    Map.of(
                            "P0BBD-00", "lead code",
                            "P0AFA-00", "knock-on",
                            "P0D3F-00", "knock-on",
                            "B1A21-00", "knock-on",
                            "P0AF0-00", "knock-on"),
                    "stonebarrow-wl9",
                    Map.of(
                            "P0305-00", "lead code",
                            "P0300-00", "knock-on",
                            "P2458-00", "knock-on",
                            "P2463-00", "knock-on"),
                    "velmont-cairn",
                    Map.of(
                            "C1B00-00",
                            "knock-on",
                            "C1A10-00",
                            "knock-on",
                            "B1318-00",
                            "need not be chased",
                            "P0562-00",
                            "need not be chased"));

    @Test
    void everyCodeOfAScenarioPlaysThePartThatItsTruthGivesIt() throws Exception {
        int right = 0;
        Map<String, String> wrong = new LinkedHashMap<>();
        int number = 10;
        for (String id : TRUTH.keySet()) {
            String address = "127.0.74." + number++;
            StandInVehicle vehicle = garage.vehicle(id, true, address);
            long its = garage.job(vehicle, address, Set.of());
            garage.sweep(tech, its);
            String csv = tech.get(Garage.page(its) + "/export/csv");
            Map<String, String> truth = TRUTH.get(id);
            for (String line : csv.lines().skip(1).toList()) {
                String[] cell = line.split(",");
                if (cell.length < 4 || cell[1].isEmpty()) {
                    continue;
                }
                // what misses messages of a module stands for the wire, or is brought by it
                boolean missed = cell[1].startsWith("U");
                String should = truth.getOrDefault(cell[1], missed ? "lead code or knock-on" : "?");
                if (should.contains(cell[3]) && !cell[3].isEmpty()) {
                    right++;
                } else {
                    wrong.put(id + " " + cell[0] + " " + cell[1], cell[3] + ", truly " + should);
                }
            }
        }
        System.out.printf(
                "of %d codes in %d scenarios, %d play the part that the truth gives them%n",
                right + wrong.size(), TRUTH.size(), right);
        assertThat(wrong).isEmpty();
        assertThat(right).isGreaterThan(20);
    }
}
