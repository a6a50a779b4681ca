package brightlantern.app;

import brightlantern.app.job.Takes;
import brightlantern.app.link.LiveFeed;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.study.map.Axis;
import brightlantern.core.study.map.OperatingMap;
import brightlantern.core.take.Take;
import brightlantern.core.take.TakeCsv;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.take.mdf.MdfWriter;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.plant.Driver;
import java.io.BufferedInputStream;
import java.io.BufferedWriter;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.JavascriptExecutor;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Speed of watching, each figure against a reference of the same run. Not part of the tests. */
class WatchBench {
    private static final String ADDRESS = "127.0.78.5";
    private static final int WARM = 3;

    @TempDir Path data;

    private static void told(String format, Object... args) {
        System.out.println("bench: " + String.format(Locale.ROOT, format, args));
    }

    private static double seconds(ThrowingRunnable work) throws Exception {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) / 1e9;
    }

    private interface ThrowingRunnable {
        void run() throws Exception;
    }

    /** Samples that came in a time: value id → how many. */
    private static Map<String, AtomicInteger> counted(
            VehicleLink link, VehicleDescription d, Set<String> ids, double seconds) {
        Map<String, AtomicInteger> counts = new ConcurrentHashMap<>();
        try (LiveFeed.Subscription warm = link.feed().subscribe(d, ids, s -> {})) {
            LockSupport.parkNanos(2_000_000_000L);
            try (LiveFeed.Subscription counting =
                    link.feed()
                            .subscribe(
                                    d,
                                    ids,
                                    s ->
                                            s.values()
                                                    .keySet()
                                                    .forEach(
                                                            v ->
                                                                    counts.computeIfAbsent(
                                                                                    v,
                                                                                    k ->
                                                                                            new AtomicInteger())
                                                                            .incrementAndGet()))) {
                LockSupport.parkNanos((long) (seconds * 1e9));
            }
        }
        return counts;
    }

    @Test
    void liveValues() throws Exception {
        try (Garage garage = new Garage(data)) {
            StandInVehicle ember = garage.vehicle("quillon-ember", false, ADDRESS);
            VehicleDescription d = ember.description();
            VehicleLink link = garage.app.getBean(VehicleLinks.class).link(ADDRESS);
            List<Value> eight =
                    d.values().stream().filter(v -> v.module().equals("engine")).limit(8).toList();
            Set<String> ids = new LinkedHashSet<>();
            eight.forEach(v -> ids.add(v.id()));
            int address = d.module("engine").orElseThrow().address();
            // one request after the other by itself: the module can do no more
            for (int i = 0; i < 100; i++) {
                link.readModule(address, eight);
            }
            double answer =
                    seconds(
                                    () -> {
                                        for (int i = 0; i < 200; i++) {
                                            link.readModule(address, eight);
                                        }
                                    })
                            / 200;
            double perSecond = counted(link, d, ids, 8).get(eight.get(0).id()).get() / 8.0;
            told(
                    "8 values of one module: %.1f answers/s, its answer time of %.1f ms allows %.1f; %.2f of it (wanted 0.9)",
                    perSecond, answer * 1000, 1 / answer, perSecond * answer);

            Set<String> hundred = new LinkedHashSet<>();
            for (int c = 1; c <= 55; c++) {
                hundred.add("cell." + c);
            }
            d.modules().stream()
                    .map(ControlModule::id)
                    .filter(m -> !m.equals("battery"))
                    .limit(9)
                    .forEach(
                            m ->
                                    List.of("supply", "temperature", "awake", "cycles", "current")
                                            .forEach(b -> hundred.add(m + ".board." + b)));
            Map<String, AtomicInteger> counts = counted(link, d, hundred, 8);
            double least =
                    hundred.stream()
                            .mapToDouble(
                                    v -> counts.getOrDefault(v, new AtomicInteger()).get() / 8.0)
                            .min()
                            .orElse(0);
            told(
                    "%d values over ten modules: each at least %.1f times a second (wanted 2)",
                    hundred.size(), least);
        }
    }

    /** Milliseconds from a reading to its paint, as the page measures them (W3C User Timing). */
    @SuppressWarnings("unchecked")
    private static List<Number> ages(JavascriptExecutor browser) {
        return (List<Number>)
                browser.executeScript(
                        "return performance.getEntriesByName('reading-to-paint').map(e => e.duration)");
    }

    @Test
    void paintedPage() throws Exception {
        try (Workshop shop = new Workshop(data)) {
            shop.signIn("tech");
            StandInVehicle loader = Garage.standIn("stonebarrow-wl9", false, ADDRESS);
            long job = Garage.job(shop.app, loader, loader.description().id(), ADDRESS, Set.of());
            loader.simulation().crank();
            shop.go("/jobs/" + job + "/watch");
            shop.until("readings", b -> ages(b).size() > 20);
            shop.browser.executeScript("performance.clearMeasures('reading-to-paint')");
            shop.until("300 readings", b -> ages(b).size() > 300);
            double[] sorted =
                    ages(shop.browser).stream().mapToDouble(Number::doubleValue).sorted().toArray();
            told(
                    "answer to painted page: median %.0f ms, 95th percentile %.0f ms (wanted 150), %d readings",
                    sorted[sorted.length / 2], sorted[(int) (sorted.length * 0.95)], sorted.length);
            loader.close();

            // 24 lanes of 30 minutes at 20 Hz
            int n = 30 * 60 * 20;
            double[] t = new double[n];
            Arrays.setAll(t, i -> i / 20.0);
            Map<String, Take.Column> columns = new LinkedHashMap<>();
            List<Value> own = new ArrayList<>();
            Random random = new Random(1);
            for (int lane = 0; lane < 24; lane++) {
                double[] y = new double[n];
                double at = 0;
                for (int i = 0; i < n; i++) {
                    at += random.nextGaussian();
                    y[i] = at;
                }
                String id = "log.lane-" + lane;
                columns.put(id, new Take.Column(t, y));
                own.add(
                        new Value(
                                id,
                                "log",
                                0,
                                4,
                                true,
                                1,
                                0,
                                "Lane " + lane,
                                "u" + lane,
                                "u" + lane,
                                1,
                                Map.of(),
                                List.of(),
                                List.of()));
            }
            long take =
                    shop.app
                            .getBean(Takes.class)
                            .keep(
                                    job,
                                    "long",
                                    Instant.now(),
                                    "bench",
                                    new Take(columns, List.of()),
                                    own);
            shop.go("/jobs/" + job + "/watch/takes/" + take);
            shop.until("the picture", b -> shop.has("[data-drawn=yes]"));
            Object tasks =
                    shop.browser.executeAsyncScript(
                            "const done = arguments[0]; const long = [];"
                                    + "new PerformanceObserver(l => { for (const e of l.getEntries()) long.push(e.duration); }).observe({type: 'longtask'});"
                                    + "const over = document.querySelector('.u-over'); const box = over.getBoundingClientRect();"
                                    + "const turn = (dx, dy) => over.dispatchEvent(new WheelEvent('wheel', {deltaX: dx, deltaY: dy, clientX: box.left + box.width / 4, bubbles: true, cancelable: true}));"
                                    + "turn(0, -900); let i = 0; let frames = []; let before = 0;"
                                    + "const step = now => { if (before) frames.push(now - before); before = now; turn(8, 0);"
                                    + " if (++i < 240) requestAnimationFrame(step); else setTimeout(() => done([long.length, Math.max(0, ...long), frames.reduce((a, b) => a + b, 0) / frames.length]), 1500); };"
                                    + "setTimeout(() => requestAnimationFrame(step), 1500);");
            List<?> figures = (List<?>) tasks;
            told(
                    "24 lanes of 30 minutes at 20 Hz panned over 240 frames: %s task(s) over 50 ms (wanted 0), the longest %.0f ms; %.1f ms a frame",
                    figures.get(0),
                    ((Number) figures.get(1)).doubleValue(),
                    ((Number) figures.get(2)).doubleValue());
        }
    }

    @Test
    void logsFromElsewhere() throws Exception {
        Path file = data.resolve("million.csv");
        Random random = new Random(3);
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("time [s]");
            for (int c = 1; c < 12; c++) {
                out.write(",value " + c + " [kPa]");
            }
            out.write("\n");
            for (int i = 0; i < 1_000_000; i++) {
                out.write(String.format(Locale.ROOT, "%.2f", i / 100.0));
                for (int c = 1; c < 12; c++) {
                    out.write(',');
                    out.write(String.valueOf(random.nextInt(100_000) / 100.0));
                }
                out.write("\n");
            }
        }
        double[] ours = new double[WARM + 1];
        for (int k = 0; k <= WARM; k++) {
            ours[k] =
                    seconds(
                            () -> {
                                Dialect dialect;
                                try (InputStream in = Files.newInputStream(file)) {
                                    dialect =
                                            CsvLook.at(in.readNBytes(CsvLook.ENOUGH_BYTES))
                                                    .dialect();
                                }
                                try (InputStream in =
                                        new BufferedInputStream(
                                                Files.newInputStream(file), 1 << 16)) {
                                    if (CsvImport.read(in, dialect, CsvImport.own(dialect)).rows()
                                            != 1_000_000) {
                                        throw new IllegalStateException("rows are missing");
                                    }
                                }
                            });
        }
        try (Connection duck = DriverManager.getConnection("jdbc:duckdb:");
                Statement sql = duck.createStatement()) {
            double[] theirs = new double[WARM + 1];
            for (int k = 0; k <= WARM; k++) {
                theirs[k] =
                        seconds(
                                () ->
                                        sql.execute(
                                                "create or replace table log as select * from read_csv('"
                                                        + file
                                                        + "')"));
            }
            told(
                    "CSV of a million rows by 12: %.2f s, DuckDB %.2f s; %.2f times (wanted 3)",
                    median(ours), median(theirs), median(ours) / median(theirs));
        }
    }

    @Test
    void logsToElsewhere() throws Exception {
        VehicleDescription d = Shipped.vehicle("tamarack-portage");
        int n = 1_000_000;
        double[] t = new double[n];
        Arrays.setAll(t, i -> i / 100.0);
        Random random = new Random(11);
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        d.values().stream()
                .filter(v -> !v.isState())
                .limit(11)
                .forEach(
                        v -> {
                            double[] y = new double[n];
                            // as fine as it comes over the wire
                            Arrays.setAll(
                                    y,
                                    i ->
                                            v.offset()
                                                    + v.scale()
                                                            * random.nextInt(
                                                                    1 << 8 * v.bytes() - 1));
                            columns.put(v.id(), new Take.Column(t, y));
                        });
        Take take = new Take(columns, List.of());
        double[] mdf = new double[WARM + 1];
        for (int k = 0; k <= WARM; k++) {
            mdf[k] =
                    seconds(
                            () -> {
                                try (OutputStream out =
                                        Files.newOutputStream(data.resolve("million.mf4"))) {
                                    MdfWriter.write(take, d.signals(), Instant.EPOCH, out);
                                }
                            });
        }
        for (TakeCsv.Layout layout : TakeCsv.Layout.values()) {
            double[] csv = new double[WARM + 1];
            for (int k = 0; k <= WARM; k++) {
                csv[k] =
                        seconds(
                                () ->
                                        TakeCsv.write(
                                                take,
                                                d.signals(),
                                                layout,
                                                Files.newBufferedWriter(
                                                        data.resolve("million.csv"))));
            }
            told(
                    "a million rows by 12 as CSV, %s: %.2f s, as MDF %.2f s; %.2f times (wanted 3)",
                    layout.words(), median(csv), median(mdf), median(csv) / median(mdf));
        }
    }

    private static double median(double[] all) {
        double[] sorted = all.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    @Test
    void operatingMap() throws Exception {
        int n = 10_000_000;
        double[] x = new double[n];
        double[] y = new double[n];
        double[] z = new double[n];
        Random random = new Random(5);
        double speed = 2000;
        double load = 40;
        for (int i = 0; i < n; i++) {
            speed = Math.max(700, Math.min(3990, speed + 20 * random.nextGaussian()));
            load = Math.max(0, Math.min(99, load + random.nextGaussian()));
            x[i] = speed;
            y[i] = load;
            z[i] = speed / 100 - load / 5 + random.nextGaussian();
        }
        Axis speeds = Axis.typed("x", "0 500 1000 1500 2000 2500 3000 3500 4000");
        Axis loads = Axis.typed("y", "0 12.5 25 37.5 50 62.5 75 87.5 100");
        List<OperatingMap.Drive> drives = List.of(new OperatingMap.Drive(x, y, z));
        double[] ours = new double[WARM + 2];
        OperatingMap[] map = new OperatingMap[1];
        for (int k = 0; k < ours.length; k++) {
            ours[k] = seconds(() -> map[0] = OperatingMap.of("z", speeds, loads, drives));
        }
        Path file = data.resolve("samples.csv");
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("x,y,z\n");
            for (int i = 0; i < n; i++) {
                out.write(x[i] + "," + y[i] + "," + z[i] + "\n");
            }
        }
        try (Connection duck = DriverManager.getConnection("jdbc:duckdb:");
                Statement sql = duck.createStatement()) {
            sql.execute("create table s as select * from read_csv('" + file + "')");
            double[] theirs = new double[WARM + 2];
            long[] rows = new long[1];
            for (int k = 0; k < theirs.length; k++) {
                theirs[k] =
                        seconds(
                                () -> {
                                    try (ResultSet rs =
                                            sql.executeQuery(
                                                    "select floor(x / 500), floor(y / 12.5), count(*), avg(z), stddev_pop(z), avg(x), avg(y) from s group by 1, 2")) {
                                        rows[0] = 0;
                                        while (rs.next()) {
                                            rows[0] += rs.getLong(3);
                                        }
                                    }
                                });
            }
            told(
                    "operating map over 10 million samples: %.0f ms, DuckDB's GROUP BY %.0f ms; %.2f times (wanted 1), %d and %d samples",
                    1000 * median(ours),
                    1000 * median(theirs),
                    median(ours) / median(theirs),
                    map[0].samples(),
                    rows[0]);
        }
    }

    @Test
    void anHour() throws Exception {
        try (Garage garage = new Garage(data)) {
            VehicleDescription d =
                    garage.app
                            .getBean(VehicleLinks.class)
                            .library()
                            .byId("quillon-ember")
                            .orElseThrow();
            StandInVehicle ember = StandIns.of(d, StandIns.AS_BUILT, 7);
            ember.simulation().crank();
            ember.simulation()
                    .driver(ember.simulation().driver().drive(Driver.Program.STOP_AND_GO));
            List<Value> values =
                    d.values().stream()
                            .filter(
                                    v ->
                                            List.of(
                                                            "engine",
                                                            "battery",
                                                            "tank",
                                                            "climate",
                                                            "compressor")
                                                    .contains(v.module()))
                            .limit(200)
                            .toList();
            Takes takes = garage.app.getBean(Takes.class);
            long job = garage.job(ember, ADDRESS, Set.of());
            long take = takes.start(job, "an hour", Instant.now(), "");
            int number = 0;
            int compacted = 0;
            int perChunk = 5;
            for (int i = 0; i < 3600 * 20; i += perChunk) {
                double[] t = new double[perChunk];
                Map<String, double[]> rows = new LinkedHashMap<>();
                values.forEach(v -> rows.put(v.id(), new double[perChunk]));
                for (int k = 0; k < perChunk; k++) {
                    ember.live(0.05);
                    t[k] = (i + k) * 0.05;
                    for (Value v : values) {
                        // as it comes over the wire
                        byte[] raw =
                                Scaling.raw(v, ember.simulation().reading(v.id()).orElseThrow());
                        rows.get(v.id())[k] = Scaling.physical(v, raw);
                    }
                }
                Map<String, Take.Column> columns = new LinkedHashMap<>();
                rows.forEach((id, y) -> columns.put(id, new Take.Column(t, y)));
                takes.append(take, number++, columns, d::value);
                if (number - compacted == 240) {
                    takes.compact(take, compacted, number - 1, d::value);
                    compacted = number;
                }
            }
            takes.compact(take, compacted, number - 1, d::value);
            takes.end(take, Instant.now());
            long bytes =
                    garage.app
                            .getBean(JdbcClient.class)
                            .sql(
                                    "select sum(octet_length(content)) from take_chunk where take_id = ?")
                            .param(take)
                            .query(Long.class)
                            .single();
            Take[] read = new Take[1];
            double first = seconds(() -> read[0] = takes.read(take));
            double second = seconds(() -> read[0] = takes.read(take));
            int least =
                    read[0].columns().values().stream().mapToInt(Take.Column::size).min().orElse(0);
            told(
                    "an hour of %d values at 20 Hz: %.1f MB (wanted 40), opened in %.2f s the first time, %.2f s again (wanted 1); %d of 72000 samples of each",
                    read[0].columns().size(), bytes / 1e6, first, second, least);
            ember.close();
        }
    }
}
