package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.job.Findings;
import brightlantern.core.suspect.Evidence;
import brightlantern.standin.Breaker;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What modules have learned: read, kept over the jobs of a vehicle, and weighed. */
class LearnedTest {
    private static final String VAN = "127.0.87.2";
    private static final String ESTATE = "127.0.87.4";
    private static final String COUPE = "127.0.87.3";

    @TempDir static Path data;
    private static Garage garage;
    private static Visitor tech;

    @BeforeAll
    static void open() throws Exception {
        garage = new Garage(data);
        tech = garage.visitor("tech");
    }

    @AfterAll
    static void close() {
        garage.close();
    }

    private static String learned(long job) {
        return "/jobs/" + job + "/watch/learned";
    }

    private static void broken(StandInVehicle vehicle, String part) {
        Breaker breaker = new Breaker(vehicle);
        Part.Failure failure =
                breaker.mechanical().stream()
                        .filter(f -> f.of().equals(part))
                        .findFirst()
                        .orElseThrow();
        assertThat(breaker.breakPart(failure, 0.6, false)).as(part + " is noticed").isPresent();
        vehicle.driver(Driver.away().key(2));
    }

    @Test
    void aBatteryThatWearsShowsInWhatEveryStartTeaches() throws Exception {
        StandInVehicle van = garage.vehicle("tamarack-portage", false, VAN);
        van.driver(Driver.away().key(2));
        long before = garage.job(van, VAN, Set.of());
        assertThat(tech.get(learned(before))).contains("Nothing was read yet");
        tech.post(learned(before), learned(before), Map.of());
        assertThat(tech.get(learned(before)))
                .contains("All that was learned is as usual.", "Battery resistance")
                .doesNotContain("since earlier today");

        broken(van, "battery-aged");
        long job = garage.job(van, VAN, Set.of("slow-start"));
        garage.sweep(tech, job);
        assertThat(tech.get(learned(job)))
                .contains("is near what can be made up for", "at its limit of 20.0 mΩ")
                .as("of the job before")
                .contains("since earlier today");
        assertThat(garage.app.getBean(Findings.class).of(job))
                .as("a sweep reads it, and it is weighed")
                .anyMatch(
                        f ->
                                f.evidence()
                                        .filter(
                                                new Evidence.Outcome("learned-battery", "high")
                                                        ::equals)
                                        .isPresent());
        assertThat(tech.get("/jobs/" + job + "/trace")).contains("The battery is worn");

        van.driver(Driver.away());
        Garage.until(
                "the key seen off",
                () -> tech.reads(learned(job)).contains("<span data-head=\"ignition\">off"));
        assertThat(tech.post(learned(job), learned(job), Map.of()))
                .contains("No module told what it has learned. Turn the key on");
    }

    @Test
    void whatWasDoneBeforeIsWeighedAndWhatNobodyKnowsIsRefused() throws Exception {
        StandInVehicle estate = garage.vehicle("oriel-heron", false, ESTATE);
        long job = garage.job(estate, ESTATE, Set.of("slow-start"));
        String intake = "/jobs/" + job + "/intake";
        assertThat(
                        tech.post(
                                intake,
                                "/jobs/" + job + "/worked-on",
                                Map.of("what", "Polish it", "ago", "0")))
                .contains("expected one of the repairs in the list, found &#39;Polish it&#39;");
        tech.post(
                intake,
                "/jobs/" + job + "/worked-on",
                Map.of("what", "replace the battery", "ago", "1"));
        assertThat(garage.app.getBean(Findings.class).of(job))
                .anyMatch(
                        f ->
                                f.text()
                                        .equals(
                                                "Done before this complaint, one to six months ago: Replace the battery."))
                .anyMatch(
                        f ->
                                f.evidence()
                                        .filter(new Evidence.WorkedOn("battery-aged", 3)::equals)
                                        .isPresent());
    }

    @Test
    void dirtAtTheThrottleIsNamedAndMayBeCleanedOrReplaced() throws Exception {
        StandInVehicle coupe = garage.vehicle("oriel-finch", false, COUPE);
        broken(coupe, "throttle-dirty");
        long job = garage.job(coupe, COUPE, Set.of());
        garage.sweep(tech, job);
        assertThat(tech.get("/jobs/" + job + "/trace"))
                .contains("Dirt around the throttle flap is the cause")
                .as("nobody said what was complained of")
                .contains("Whether it makes the complaint is not known");
        assertThat(tech.get("/jobs/" + job + "/prove/options"))
                .contains("Clean the throttle", "Replace the throttle");
    }
}
