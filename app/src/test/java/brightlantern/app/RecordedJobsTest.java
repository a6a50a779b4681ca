package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.demo.DemoRecording;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.job.Takes;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;

/** The jobs that ship with the demo can be read, down to their samples, and recorded again. */
class RecordedJobsTest {
    @TempDir Path data;
    @TempDir Path again;

    @Test
    void everyRecordedSweepAndTakeOpensAndIsWrittenAsItWasRead() throws Exception {
        try (Garage garage = new Garage(data)) {
            DemoRecording recording = garage.app.getBean(DemoRecording.class);
            assertThat(recording.restore()).isPositive();
            Takes takes = garage.app.getBean(Takes.class);
            Visitor tech = garage.visitor("tech");
            int read = 0;
            for (Job job : garage.app.getBean(Jobs.class).all()) {
                for (String stage : List.of("intake", "sweep", "watch", "trace", "prove")) {
                    assertThat(tech.get("/jobs/" + job.id() + "/" + stage))
                            .contains(job.vin())
                            .doesNotContain("That did not work");
                }
                if (job.vehicleId().equals("stonebarrow-wl9")) {
                    // its one cranking is drawn where it is told
                    assertThat(tech.get("/jobs/" + job.id() + "/prove/report/file"))
                            .contains("Exhaust valve of cylinder 5 leaks")
                            .containsPattern("(?s)One cranking: .*class=\"paper-drawing\"");
                }
                if (job.vehicleId().equals("oriel-heron")) {
                    // a mileage that was set back is told and not mended
                    assertThat(tech.get("/jobs/" + job.id() + "/prove"))
                            .contains("Odometer set back: nothing is to be mended")
                            .contains("Tell the customer");
                }
                for (Sweeps.Head head : garage.app.getBean(Sweeps.class).heads(job.id())) {
                    assertThat(garage.app.getBean(Sweeps.class).read(head.id()).sweep().modules())
                            .hasSize(head.modules());
                }
                for (Takes.TakeHead head : takes.of(job.id())) {
                    assertThat(takes.read(head.id()).lengthSeconds()).isGreaterThan(10);
                    assertThat(tech.get("/jobs/" + job.id() + "/watch/takes/" + head.id()))
                            .contains("id=\"lanes\"");
                    read++;
                }
            }
            assertThat(read).isPositive();
            // of the one that is proven the climb stands there as it was and as it is
            Job proven =
                    garage.app.getBean(Jobs.class).all().stream()
                            .filter(j -> !j.isOpen())
                            .findFirst()
                            .orElseThrow();
            assertThat(tech.get("/jobs/" + proven.id() + "/prove/report/file"))
                    .contains("Boost pressure, before the repair (take 1): worst")
                    .contains("Boost pressure, after the repair (take 2): worst")
                    .containsOnlyOnce("Earth stud G12, ring terminal, turbo vane motor moving<");
            Map<String, byte[]> chunks = chunks(garage);
            Path file = again.resolve("recorded.jsonl.gz");
            recording.write(file);
            assertThat(chunks).isNotEmpty();
            String text =
                    new String(
                            new GZIPInputStream(Files.newInputStream(file)).readAllBytes(),
                            StandardCharsets.UTF_8);
            chunks.values()
                    .forEach(c -> assertThat(text).contains(Base64.getEncoder().encodeToString(c)));
        }
    }

    private static Map<String, byte[]> chunks(Garage garage) {
        Map<String, byte[]> chunks = new LinkedHashMap<>();
        garage.app
                .getBean(JdbcClient.class)
                .sql("select take_id, number, content from take_chunk fetch first 20 rows only")
                .query((rs, n) -> chunks.put(rs.getLong(1) + "/" + rs.getInt(2), rs.getBytes(3)))
                .list();
        return chunks;
    }
}
