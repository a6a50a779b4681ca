package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Shelf;
import brightlantern.app.job.Workshop;
import brightlantern.app.job.Workshops;
import brightlantern.core.shelf.ShelfCase;
import brightlantern.standin.StandInVehicle;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a job keeps of its customer is forgotten when that is asked for, and nothing else. */
class CustomersTest {
    private static final String NAME = "M. Example";

    @TempDir Path data;

    @Test
    void whoBroughtItAndWhatWasLitIsKeptFoundToldAndForgotten() throws Exception {
        try (Garage garage = new Garage(data)) {
            StandInVehicle heron = garage.vehicle("oriel-heron", true, "127.0.73.42");
            Visitor lead = garage.visitor("lead");
            String opened =
                    lead.post(
                            "/",
                            "/jobs",
                            Map.of(
                                    "address",
                                    "127.0.73.42",
                                    "vin",
                                    heron.vin(),
                                    "complaint",
                                    "It rattles",
                                    "odometer",
                                    "",
                                    "earlier",
                                    "Belt, last year",
                                    "customer",
                                    NAME,
                                    "order",
                                    "A-4711",
                                    "lamps",
                                    "oil pressure"));
            assertThat(opened).contains(NAME, "A-4711", "oil pressure");
            assertThat(lead.get("/?find=a-4711")).contains("It rattles", "1 of 1 job");
            assertThat(lead.get("/?find=a-4712")).contains("No job fits");
            String prove = "/jobs/1/prove";
            assertThat(lead.get(prove + "/report"))
                    .contains(
                            NAME, "A-4711", "Warning lamps seen: oil pressure", "Belt, last year");
            assertThat(Schemas.mistakes("report", lead.get(prove + "/report.json"))).isEmpty();
            garage.app.getBean(Jobs.class).close(1, Instant.now());
            assertThat(lead.post(prove, prove + "/forget", Map.of())).contains("Forgotten:");
            assertThat(lead.get(prove + "/report/file"))
                    .doesNotContain(NAME, "A-4711", "Belt")
                    .contains("oil pressure");
        }
    }

    @Test
    void whatIsTheCustomersIsForgottenAndWhatWasFoundStays() throws Exception {
        try (Garage garage = new Garage(data)) {
            StandInVehicle heron = garage.vehicle("oriel-heron", true, "127.0.73.40");
            long job = garage.job(heron, "127.0.73.40", Set.of());
            Findings findings = garage.app.getBean(Findings.class);
            findings.note(job, "intake", "tech", NAME + " called again.");
            Repairs repairs = garage.app.getBean(Repairs.class);
            String suspect = heron.description().suspects().get(0).id();
            repairs.add(job, suspect, "Mend it", NAME, "tech");
            String prove = "/jobs/" + job + "/prove";
            Visitor lead = garage.visitor("lead");
            assertThat(lead.post(prove, prove + "/forget", Map.of()))
                    .contains("The job is open; close it first.");
            garage.app.getBean(Jobs.class).close(job, Instant.now());

            assertThat(garage.visitor("tech").post(prove, prove + "/forget", Map.of()))
                    .contains("Your role may not do this");
            assertThat(lead.get(prove + "/report/file")).contains(NAME);
            assertThat(lead.post(prove, prove + "/forget", Map.of())).contains("Forgotten:");
            assertThat(lead.get(prove + "/report/file"))
                    .doesNotContain(NAME)
                    .contains("forgotten on request", "Mend it");
        }
    }

    @Test
    void aWorkshopThatKeepsNothingForLongSaysSoInItsSettings() throws Exception {
        try (Garage garage = new Garage(data)) {
            Visitor lead = garage.visitor("lead");
            Map<String, String> told =
                    Map.of(
                            "name",
                            "Larkspur Yard",
                            "address",
                            "12 Mill Lane",
                            "rate",
                            "90",
                            "tax",
                            "19",
                            "currency",
                            "EUR",
                            "comma",
                            "true",
                            "months",
                            "24");
            assertThat(lead.post("/workshop", "/workshop", told)).contains("Kept;");
            Workshop kept = garage.app.getBean(Workshops.class).get();
            assertThat(kept.keepMonths()).isEqualTo(24);
            assertThat(kept.money(kept.taxed(1000))).isEqualTo("1.190,00 EUR");
            assertThat(
                            lead.post(
                                    "/workshop",
                                    "/workshop",
                                    Map.of(
                                            "name",
                                            "x",
                                            "address",
                                            "",
                                            "rate",
                                            "-1",
                                            "tax",
                                            "0",
                                            "currency",
                                            "EUR")))
                    .contains("0 to 10,000")
                    .contains("Nothing was changed");
            assertThat(garage.visitor("tech").get("/workshop")).contains("Your role may not");
        }
    }

    @Test
    void aLongCaseHasRoomAndAScribbleThatIsNoneIsTold() throws Exception {
        try (Garage garage = new Garage(data)) {
            StandInVehicle heron = garage.vehicle("oriel-heron", true, "127.0.73.41");
            long job = garage.job(heron, "127.0.73.41", Set.of());
            Shelf shelf = garage.app.getBean(Shelf.class);
            ShelfCase book =
                    new ShelfCase(
                            job,
                            "oriel-heron",
                            "",
                            "ö".repeat(12_000),
                            Set.of(),
                            Set.of(),
                            List.of(),
                            "a",
                            "b",
                            "",
                            "",
                            0,
                            0,
                            "");
            shelf.add(book);
            shelf.take(List.of(book.from("Mill Lane")));
            assertThat(shelf.all()).containsExactly(book, book.from("Mill Lane"));
            String report = "/jobs/" + job + "/prove/report";
            assertThat(
                            garage.visitor("tech")
                                    .post(
                                            report,
                                            report + "/sign",
                                            Map.of(
                                                    "by",
                                                    NAME,
                                                    "drawing",
                                                    "data:image/png;base64,!!")))
                    .contains("What was written could not be read.");
        }
    }
}
