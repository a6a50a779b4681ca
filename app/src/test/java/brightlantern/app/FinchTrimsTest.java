package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.standin.StandInVehicle;
import brightlantern.standin.plant.Driver;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The Finch's rough idle: two takes lead from a code to the purge valve, ahead of other leaks. */
class FinchTrimsTest {
    private static final String ADDRESS = "127.0.75.1";

    @TempDir Path data;

    private Visitor tech;
    private String watch;

    @Test
    void leanAtIdleAndRicherAfterFillingUpNamesThePurgeValve() throws Exception {
        try (Garage garage = new Garage(data)) {
            tech = garage.visitor("tech");
            StandInVehicle finch = garage.vehicle("oriel-finch", true, ADDRESS);
            long job = garage.job(finch, ADDRESS, Set.of("rough-idle", "hard-start-after-fill"));
            watch = "/jobs/" + job + "/watch";
            garage.sweep(tech, job);

            finch.simulation().crank();
            finch.hurry(20);
            Garage.until(
                    "a warm engine", () -> finch.simulation().reading("coolant").orElse(0.0) > 80);
            finch.hurry(3);

            start(Map.of("name", "idle and drive"));
            Garage.untilRecorded(garage.app, job, "idle");
            finch.driver(finch.simulation().driver().drive(Driver.Program.CRUISE));
            Garage.untilRecorded(garage.app, job, "load");
            String first = stop();
            assertThat(first)
                    .contains("Lean at idle and right under load")
                    .contains("Warm idle")
                    .contains("Under load");
            assertThat(first).as("the rail").contains("Purge valve does not close");

            String take = watch + "/takes/1";
            assertThat(tech.get(take + "?when=vehicle.speed+%3E+20+m/s"))
                    .contains("It held 1 time")
                    .contains("Coolant temperature");
            assertThat(tech.get(take + "?when=vehicle.sped+%3E+20"))
                    .contains("^ expected a value of this vehicle");
            assertThat(tech.get(take + "?when=odometer+%3E+20"))
                    .contains("This take does not hold Odometer");

            finch.driver(finch.simulation().driver().drive(Driver.Program.STAND));
            Garage.until(
                    "standing",
                    () -> finch.simulation().reading("vehicle.speed").orElse(9.0) < 0.3);
            finch.simulation().act("fill-up");
            Garage.until("vapour", () -> finch.simulation().reading("trim.short").orElse(0.0) < -8);
            start(Map.of("name", "after filling up", "refuelled", "true"));
            Garage.untilRecorded(garage.app, job, "idle");
            String second = stop();
            assertThat(second).contains("vapour from the tank comes in");
            String trace = tech.get("/jobs/" + job + "/trace");
            assertThat(trace.replaceAll("(?s).*<p class=\"answer\"[^>]*>([^<]*)<.*", "$1"))
                    .contains("Purge valve does not close");
            assertThat(trace.indexOf("Purge valve does not close"))
                    .isLessThan(trace.indexOf("Intake hose leaks"));
        }
    }

    private void start(Map<String, String> form) throws Exception {
        tech.post(watch, watch + "/take/start", form);
    }

    private String stop() throws Exception {
        return tech.post(watch, watch + "/take/stop", Map.of());
    }
}
