package brightlantern.app;

import brightlantern.app.account.Accounts;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.code.StoredCode;
import brightlantern.core.network.ControlModule;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import java.io.IOException;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * Times sweeping, roll call and pages, each against a reference of the same run; run by {@code
 * ./lantern bench}, not with the tests.
 */
class SweepBench {
    private static final int LARGE = 120;
    private static final int REQUESTS = 200;
    private static final int RUNS = 10;

    /** Runs before the compiler has settled. */
    private static final int WARM_UP = 3;

    @TempDir Path data;
    @TempDir Path vehicles;

    private ConfigurableApplicationContext app;
    private Visitor visitor;

    /** The shipped descriptions and an artificial vehicle with 120 modules on six buses. */
    private void describe() throws IOException {
        try (Stream<Path> files = Files.walk(Path.of("../vehicles"))) {
            for (Path file : files.toList()) {
                Path to = vehicles.resolve(Path.of("../vehicles").relativize(file).toString());
                if (Files.isDirectory(file)) {
                    Files.createDirectories(to);
                } else {
                    Files.copy(file, to);
                }
            }
        }
        Path folder = Files.createDirectories(vehicles.resolve("artificial-120"));
        StringBuilder yaml =
                new StringBuilder(
                        "name: Artificial 120\nengine: none\nvinPattern: ZZART120[0-9X]N[0-9A-Z]{7}\nbuses:\n");
        for (int b = 0; b < 6; b++) {
            yaml.append(
                    "  - {id: bus%d, name: Bus %d, kbit: %d}\n".formatted(b, b, b < 3 ? 500 : 250));
        }
        yaml.append(
                "modules:\n  - {id: gateway, name: Gateway, address: 0x1001, bus: bus0, order: 1, missed: U0146-00}\n");
        List<String> ids = new ArrayList<>(List.of("engine", "body", "cluster"));
        for (int i = ids.size(); i < LARGE - 1; i++) {
            ids.add("module-" + i);
        }
        for (int i = 0; i < ids.size(); i++) {
            yaml.append(
                    "  - {id: %s, name: Part %d, address: 0x%04X, bus: bus%d, order: %d, missed: U%04X-00, watches: [%s, %s], freezeFrame: [odometer]}\n"
                            .formatted(
                                    ids.get(i),
                                    i,
                                    0x1100 + i,
                                    i % 6,
                                    2 + i / 6,
                                    0x0100 + i,
                                    ids.get((i + 6) % ids.size()),
                                    ids.get((i + 12) % ids.size())));
        }
        yaml.append(
                "live: {supply: engine.supply, ignition: body.key, ignitionOn: 2, engineSpeed: engine.speed, odometer: odometer, vinModule: engine}\n");
        Files.writeString(folder.resolve("vehicle.yaml"), yaml);
        Files.writeString(
                folder.resolve("values.yaml"),
                """
                values:
                  - {id: engine.speed, module: engine, did: 0x2001, bytes: 2, scale: 0.25, name: Engine speed, unit: rpm}
                  - {id: engine.supply, module: engine, did: 0x2011, bytes: 2, scale: 0.01, name: Supply, unit: V}
                  - {id: body.key, module: body, did: 0x2101, bytes: 1, name: Key, states: {0: 'off', 2: 'on'}}
                  - {id: odometer, module: cluster, did: 0x2201, bytes: 4, scale: 0.1, name: Odometer, unit: km}
                """);
    }

    private void open() throws Exception {
        describe();
        app =
                LanternApp.run(
                        Map.of(
                                "lantern.data", data.toString(),
                                "lantern.vehicles", vehicles.toString(),
                                "lantern.announcements", "",
                                "server.address", "127.0.0.1",
                                "server.port", "0"));
        app.getBean(Accounts.class).add("tech", "T", Workshop.PASSWORD, Accounts.Role.TECHNICIAN);
        visitor =
                new Visitor(
                        "http://127.0.0.1:"
                                + ((WebServerApplicationContext) app).getWebServer().getPort());
        visitor.signIn("tech", Workshop.PASSWORD);
    }

    private long job(String vehicleId, String vin, String address) {
        return app.getBean(Jobs.class)
                .add(
                        new Job(
                                0,
                                Instant.now(),
                                Optional.empty(),
                                "tech",
                                vehicleId,
                                vin,
                                address,
                                address + ":5025",
                                "bench",
                                Set.of(),
                                1,
                                ""));
    }

    private VehicleDescription description(String id) {
        return app.getBean(VehicleLinks.class).library().byId(id).orElseThrow();
    }

    private static void say(String format, Object... figures) {
        System.out.printf(Locale.ROOT, "bench: " + format + "%n", figures);
    }

    private static long usedMegabytes() {
        System.gc();
        Runtime runtime = Runtime.getRuntime();
        return (runtime.totalMemory() - runtime.freeMemory()) >> 20;
    }

    private void sweep(String vehicleId, String address) throws Exception {
        VehicleDescription d = description(vehicleId);
        List<String> scenarios = StandIns.scenarios(vehicleId);
        StandInVehicle vehicle = StandIns.of(d, scenarios.get(scenarios.size() - 1), 777);
        vehicle.open(InetAddress.getByName(address));
        try {
            long id = job(vehicleId, vehicle.vin(), address);
            Sweeps sweeps = app.getBean(Sweeps.class);
            List<Double> ratios = new ArrayList<>();
            long before = usedMegabytes();
            for (int run = 0; run < RUNS; run++) {
                int kept = sweeps.heads(id).size();
                long[] spent = spent(d, vehicle);
                visitor.post(page(id), page(id) + "/start", Map.of());
                while (sweeps.heads(id).size() == kept || !sweeps.heads(id).get(0).whole()) {
                    LockSupport.parkNanos(2_000_000);
                }
                Sweep done = sweeps.read(sweeps.heads(id).get(0).id()).sweep();
                while (done.finished().isEmpty()) {
                    LockSupport.parkNanos(2_000_000);
                    done = sweeps.read(sweeps.heads(id).get(0).id()).sweep();
                }
                double took = done.finished().get().toEpochMilli() - done.started().toEpochMilli();
                long[] now = spent(d, vehicle);
                long floor = 0;
                for (int i = 0; i < now.length; i++) {
                    floor = Math.max(floor, now[i] - spent[i]);
                }
                say(
                        "sweep of %d modules, run %d: %.0f ms; floor of the slowest module %d ms; ratio %.2f",
                        d.modules().size(), run, took, floor, took / floor);
                if (run >= WARM_UP) {
                    ratios.add(took / floor);
                }
            }
            ratios.sort(null);
            say(
                    "sweep of %d modules: median ratio %.2f (wanted 1.25); memory %d MB before, %d MB after",
                    d.modules().size(), ratios.get(ratios.size() / 2), before, usedMegabytes());
            rollCall(id, d);
        } finally {
            vehicle.close();
        }
    }

    private static long[] spent(VehicleDescription d, StandInVehicle vehicle) {
        return d.modules().stream()
                .mapToLong(
                        m ->
                                vehicle.module(m.id()) == null
                                        ? 0
                                        : vehicle.module(m.id()).spentMillis())
                .toArray();
    }

    private static String page(long job) {
        return "/jobs/" + job + "/sweep";
    }

    private void rollCall(long id, VehicleDescription d) throws Exception {
        String call = page(id) + "/roll-call";
        visitor.post(call, call + "/start", Map.of());
        long end = System.nanoTime() + 12_000_000_000L;
        String html = "";
        while (System.nanoTime() < end) {
            html = visitor.get(call + "/now");
            LockSupport.parkNanos(500_000_000L);
        }
        visitor.post(call, call + "/stop", Map.of());
        int least = Integer.MAX_VALUE;
        var asked = Pattern.compile(">\\d+ of (\\d+)<").matcher(html);
        while (asked.find()) {
            least = Math.min(least, Integer.parseInt(asked.group(1)));
        }
        say(
                "roll call of %d modules: each asked at least %.1f times a second (wanted 2)",
                d.modules().size(), least / 11.5);
    }

    /** A sweep of 120 modules with 600 codes, as it might be kept. */
    private static Sweep full(VehicleDescription d, int seed) {
        List<ModuleResult> modules = new ArrayList<>();
        for (ControlModule m : d.modules()) {
            List<StoredCode> codes = new ArrayList<>();
            for (int c = 0; c < 5; c++) {
                codes.add(
                        new StoredCode(
                                m.id(),
                                m.name(),
                                "B%04X-%02X".formatted(0x1000 + (c * 37 + seed) % 400, c),
                                "Body, the maker's own code",
                                0x2F,
                                List.of(new StoredCode.Frame(1, Map.of("odometer", 1000.0 + seed))),
                                1 + seed % 3,
                                0));
            }
            modules.add(
                    new ModuleResult(
                            m.id(),
                            m.name(),
                            m.bus(),
                            Answer.ANSWERED,
                            "",
                            Map.of("VIN", "ZZART1200N1000001", "software", "S1" + seed % 5),
                            codes,
                            40));
        }
        return new Sweep(Instant.now(), Optional.of(Instant.now()), modules);
    }

    private double median(String path) throws Exception {
        for (int i = 0; i < 40; i++) {
            visitor.get(path);
        }
        double[] times = new double[REQUESTS];
        for (int i = 0; i < REQUESTS; i++) {
            long start = System.nanoTime();
            visitor.get(path);
            times[i] = (System.nanoTime() - start) / 1e6;
        }
        Arrays.sort(times);
        return times[REQUESTS / 2];
    }

    private void pages() throws Exception {
        VehicleDescription d = description("artificial-120");
        double reference = median("/shelf");
        for (int count : new int[] {50, 200}) {
            long id = job("artificial-120", "ZZART120XN%07d".formatted(count), "127.0.78.99");
            Sweeps sweeps = app.getBean(Sweeps.class);
            for (int i = 0; i < count; i++) {
                sweeps.add(id, full(d, i));
            }
            double intake = median("/jobs/" + id + "/intake");
            double compare = median(page(id));
            say(
                    "%d kept sweeps: opening the job %.0f ms (%.1f times the shelf's page), comparing two sweeps of 120 modules with 600 codes %.0f ms (%.1f times); median of %d requests, wanted under 150 ms",
                    count, intake, intake / reference, compare, compare / reference, REQUESTS);
        }
    }

    @Test
    void run() throws Exception {
        open();
        try {
            sweep("quillon-ember", "127.0.78.1");
            sweep("artificial-120", "127.0.78.2");
            pages();
        } finally {
            app.close();
        }
    }
}
