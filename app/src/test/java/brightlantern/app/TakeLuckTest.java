package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.job.Takes;
import brightlantern.core.take.Take;
import brightlantern.core.take.Thinned;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.module.UdsModule.Behaviour;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;

/** A take meets what vehicles, networks and disks do. */
class TakeLuckTest {
    private static final String ADDRESS = "127.0.79.3";

    @TempDir static Path data;
    private static Garage garage;
    private static Visitor tech;
    private static StandInVehicle hatch;

    @BeforeAll
    static void open() throws Exception {
        garage = new Garage(data);
        tech = garage.visitor("tech");
        hatch = garage.vehicle("oriel-finch", false, ADDRESS);
        hatch.simulation().crank();
    }

    @AfterAll
    static void close() {
        garage.close();
    }

    private long job;
    private String watch;

    private void begin() throws Exception {
        job = garage.job(hatch, ADDRESS, Set.of());
        watch = "/jobs/" + job + "/watch";
        tech.post(watch, watch + "/choose", Map.of("value", "odometer", "on", "true"));
        tech.post(watch, watch + "/take/start", Map.of());
        until("both modules", t -> t.size("engine.speed") > 20 && t.size("odometer") > 20);
    }

    private interface State {
        boolean of(So take);
    }

    /** The take so far. */
    private record So(Take take) {
        int size(String id) {
            Take.Column column = take.columns().get(id);
            return column == null ? 0 : column.size();
        }

        double newest(String id) {
            Take.Column column = take.columns().get(id);
            return column == null || column.size() == 0 ? 0 : column.seconds(column.size() - 1);
        }
    }

    private So now() {
        Takes takes = garage.app.getBean(Takes.class);
        return new So(takes.read(takes.of(job).get(0).id()));
    }

    private void until(String what, State state) {
        Garage.until(
                what,
                () -> {
                    Garage.pause(200);
                    return state.of(now());
                });
    }

    private static long gaps(Take take, String id) {
        Thinned thinned = Thinned.of(take.columns().get(id), 0, take.lengthSeconds(), 10_000);
        return Arrays.stream(thinned.values()).filter(Double::isNaN).count();
    }

    private Take end() throws Exception {
        tech.post(watch, watch + "/take/stop", Map.of());
        return now().take();
    }

    @Test
    void aCutLinkIsAGapAndNeverALine() throws Exception {
        begin();
        double cut = now().newest("engine.speed");
        hatch.gateway().close();
        Garage.pause(2500);
        hatch.restartGateway();
        until("readings again", t -> t.newest("engine.speed") > cut + 4);
        Take take = end();
        assertThat(gaps(take, "engine.speed")).isPositive();
        assertThat(tech.get(watch + "/takes/" + id() + "/data")).contains("null");
    }

    private long id() {
        return garage.app.getBean(Takes.class).of(job).get(0).id();
    }

    @Test
    void aModuleThatRebootsLeavesAGapOfItsOwn() throws Exception {
        begin();
        double silent = now().newest("odometer");
        hatch.module("cluster").behave(Behaviour.SILENT);
        until("the engine alone", t -> t.newest("engine.speed") > silent + 3);
        hatch.module("cluster").behave(Behaviour.NORMAL);
        until("both again", t -> t.newest("odometer") > silent + 3);
        Take take = end();
        assertThat(gaps(take, "odometer")).isPositive();
        assertThat(gaps(take, "engine.speed")).isZero();
    }

    @Test
    void aDamagedPartIsAGapAndTheRestIsThere() throws Exception {
        begin();
        until("some seconds", t -> t.newest("engine.speed") > 5);
        Take whole = end();
        JdbcClient db = garage.app.getBean(JdbcClient.class);
        // three parts, of which the middle one goes bad on the disk before anybody looks
        Takes takes = garage.app.getBean(Takes.class);
        long id = takes.keep(job, "kept", Instant.now(), "shop.csv", whole, List.of());
        for (int part = 1; part <= 2; part++) {
            double later = part * (whole.lengthSeconds() + 1);
            takes.append(id, 1000 + part, shifted(whole, later), v -> Optional.empty());
        }
        byte[] content =
                db.sql("select content from take_chunk where take_id = ? and number = 1001")
                        .param(id)
                        .query((rs, n) -> rs.getBytes(1))
                        .single();
        content[content.length / 2] ^= 0x55;
        db.sql("update take_chunk set content = ? where take_id = ? and number = 1001")
                .params(content, id)
                .update();
        Take take = now().take();
        assertThat(take.damaged()).isEqualTo(1);
        assertThat(take.lengthSeconds()).isGreaterThan(3 * whole.lengthSeconds());
        assertThat(gaps(take, "engine.speed")).isPositive();
        assertThat(tech.get(watch + "/takes/" + id))
                .contains("1 part of this take cannot be read any more")
                .contains("id=\"lanes\"");
        assertThat(tech.get(watch + "/takes/" + id + "/csv")).contains("Engine speed");
    }

    private static Map<String, Take.Column> shifted(Take take, double later) {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        take.columns()
                .forEach(
                        (id, c) -> {
                            double[] t = new double[c.size()];
                            double[] y = new double[c.size()];
                            for (int i = 0; i < t.length; i++) {
                                t[i] = c.seconds(i) + later;
                                y[i] = c.value(i);
                            }
                            columns.put(id, new Take.Column(t, y));
                        });
        return columns;
    }

    @Test
    void whatCannotBeKeptWaitsAndIsTold() throws Exception {
        begin();
        JdbcClient db = garage.app.getBean(JdbcClient.class);
        double full = now().newest("engine.speed");
        db.sql("alter table take_chunk rename to full_disk").update();
        try {
            Garage.until(
                    "the trouble told",
                    () -> tech.reads(watch).contains("cannot be kept at present"));
            assertThat(tech.post(watch, watch + "/take/stop", Map.of()))
                    .as("a stop that cannot keep the rest")
                    .contains("Then stop the take again")
                    .contains("id=\"take-stop\"");
        } finally {
            db.sql("alter table full_disk rename to take_chunk").update();
        }
        until("all of it", t -> t.newest("engine.speed") > full);
        Take take = end();
        assertThat(gaps(take, "engine.speed")).isZero();
        assertThat(tech.get(watch + "/studies?kind=scatter&x=gear&y=engine.speed"))
                .contains("does not hold gear");
    }
}
