package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.account.Accounts;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Takes;
import brightlantern.core.take.Take;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.wire.Bytes;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.context.ConfigurableApplicationContext;

/** A take while the program is killed without warning, as a machine that loses its power does. */
class KilledTest {
    private static final String ADDRESS = "127.0.76.1";

    @TempDir Path data;

    private ConfigurableApplicationContext open() {
        return LanternApp.run(
                Map.of(
                        "lantern.data", data.toString(),
                        "lantern.vehicles", "../vehicles",
                        "lantern.announcements", "",
                        "server.address", "127.0.0.1",
                        "server.port", "0"));
    }

    @Test
    void aTakeLosesAtMostASecondWhenTheProgramIsKilled() throws Exception {
        try (StandInVehicle van =
                StandIns.open(
                        Shipped.vehicle("tamarack-portage"),
                        InetAddress.getByName(ADDRESS),
                        StandIns.AS_BUILT,
                        455)) {
            long job;
            try (ConfigurableApplicationContext app = open()) {
                app.getBean(Accounts.class)
                        .add("tech", "Technician", Workshop.PASSWORD, Accounts.Role.TECHNICIAN);
                app.getBean(Accounts.class)
                        .add("lead", "Lead", Workshop.PASSWORD, Accounts.Role.LEAD);
                job =
                        app.getBean(Jobs.class)
                                .add(
                                        new Job(
                                                0,
                                                Instant.now(),
                                                Optional.empty(),
                                                "tech",
                                                "tamarack-portage",
                                                van.vin(),
                                                ADDRESS,
                                                ADDRESS + ":5025",
                                                "flat",
                                                Set.of(),
                                                84_000,
                                                ""));
            }
            int port = FirstStartTest.freePort();
            TrailerSwap swap;
            Process program = FirstStartTest.start(data, port);
            Instant killed;
            try {
                FirstStartTest.linesUntil(
                        new BufferedReader(new InputStreamReader(program.getInputStream())),
                        "is ready");
                Visitor visitor = new Visitor("http://127.0.0.1:" + port);
                visitor.signIn("tech", Workshop.PASSWORD);
                String watch = "/jobs/" + job + "/watch";
                visitor.post(watch, watch + "/take/start", Map.of("name", "the last one"));
                Visitor lead = new Visitor("http://127.0.0.1:" + port);
                lead.signIn("lead", Workshop.PASSWORD);
                swap = TrailerSwap.begin(van, lead, job);
                swap.choose("carried", "carry");
                swap.swap();
                van.module("trailer").refuse(0x2E, 0x72);
                swap.choose("agree", "go");
                swap.at("not-written");
                // the van's own moments tell how long the take has run
                double begin = (van.reading("clock"));
                while ((van.reading("clock")) < begin + 4) {
                    LockSupport.parkNanos(50_000_000);
                }
            } finally {
                killed = Instant.now();
                program.destroyForcibly().waitFor();
            }
            try (ConfigurableApplicationContext app = open()) {
                Takes takes = app.getBean(Takes.class);
                Takes.TakeHead head = takes.of(job).get(0);
                assertThat(head.ended()).isEmpty();
                Take take = takes.read(head.id());
                double ran = (killed.toEpochMilli() - head.started().toEpochMilli()) / 1000.0;
                assertThat(take.lengthSeconds()).isBetween(ran - 1, ran);
                assertThat(take.columns().get("boost.actual").size()).isGreaterThan(20);
                goesOn(app, van, swap);
            }
        }
    }

    /** Killed between erasing and writing: what the module is to be told is still known. */
    private static void goesOn(
            ConfigurableApplicationContext app, StandInVehicle van, TrailerSwap swap)
            throws Exception {
        Visitor lead = new Visitor(Garage.address(app));
        lead.signIn("lead", Workshop.PASSWORD);
        swap.goesOn(lead);
        van.module("trailer").refuse(0x2E, 0);
        swap.at("not-written");
        swap.choose("not-written", "again");
        swap.wake();
        swap.choose("plug", "leave");
        swap.ended();
        assertThat(van.module("trailer").handle(Bytes.of(0x22, 0xF1, 0x90)))
                .singleElement()
                .satisfies(reply -> assertThat(reply.data().from(3).asText()).isEqualTo(van.vin()));
    }
}
