package brightlantern.app;

import brightlantern.app.capture.BenchRecorder;
import brightlantern.app.capture.Captures;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureFiles;
import brightlantern.core.capture.CaptureOfTake;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.PackedSteps;
import brightlantern.core.capture.Pulses;
import brightlantern.core.capture.SoundReader;
import brightlantern.core.capture.bus.CanDecoder;
import brightlantern.core.network.BitRate;
import brightlantern.core.signal.Value;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.instrument.Scope;
import brightlantern.standin.instrument.ScpiServer;
import java.io.BufferedInputStream;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Function;
import java.util.stream.Collectors;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Speed of captures, a line a figure. Not part of the tests. */
class LanesBench {
    private static final String ADDRESS = "127.0.78.6";
    private static final int MILLION = 1_000_000;
    private static final int SAMPLES = 10 * MILLION;
    private static final int TIMES = 5;
    private static final double WIRE_BITS = 1e6;
    private static final int PER_BIT = 10;
    private static final int LANES = 8;

    @TempDir Path data;

    private static void figure(String name, double value, double wanted, String unit) {
        System.out.printf(
                Locale.ROOT,
                "bench: capture %s: %.4g%s (wanted %.4g) %s%n",
                name,
                value,
                unit,
                wanted,
                value <= wanted ? "meets" : "misses");
    }

    private interface Work {
        void run() throws Exception;
    }

    /** Median seconds, after as many that are not counted. */
    private static double seconds(Work work) throws Exception {
        double[] took = new double[TIMES];
        for (int i = -TIMES; i < TIMES; i++) {
            long began = System.nanoTime();
            work.run();
            took[Math.max(0, i)] = (System.nanoTime() - began) / 1e9;
        }
        Arrays.sort(took);
        return took[TIMES / 2];
    }

    /** What a lane of 12 bits shows: pulses of every width, ripple and noise. */
    private static short[] steps(int count, Random random) {
        short[] steps = new short[count];
        int left = 0;
        boolean up = false;
        for (int i = 0; i < count; i++) {
            if (--left <= 0) {
                up = !up;
                left = 100 + random.nextInt(900);
            }
            double its = (up ? 1200 : -1100) + 300 * Math.sin(i / 7000.0);
            steps[i] = (short) Math.round(its + 2 * random.nextGaussian());
        }
        return steps;
    }

    private static Capture four(int count) {
        Random random = new Random(17);
        List<Lane> lanes = new ArrayList<>();
        for (int i = 1; i <= 4; i++) {
            lanes.add(
                    new Lane(
                            "Lane " + i,
                            LaneRole.OTHER,
                            "V",
                            "place " + i,
                            0.01,
                            0,
                            steps(count, random)));
        }
        return new Capture(1e-6, lanes);
    }

    @Test
    void readAndKept() throws Exception {
        Capture capture = four(SAMPLES);
        Lane lane = capture.lanes().get(0);
        figure(
                "pulses of 10 million samples found",
                seconds(() -> Pulses.of(lane, capture.interval()).orElseThrow()),
                1,
                " s");
        long[] bytes = new long[1];
        double packing =
                seconds(
                        () -> {
                            bytes[0] = 0;
                            for (int at = 0; at < SAMPLES; at += 250_000) {
                                bytes[0] +=
                                        PackedSteps.pack(
                                                        Arrays.copyOfRange(
                                                                lane.steps(), at, at + 250_000))
                                                .length;
                            }
                        });
        figure("bytes a sample of 12 bits", bytes[0] / (double) SAMPLES, 1, "");
        figure("packing a million samples", packing / SAMPLES * MILLION, 0.125, " s");
    }

    /** Frames of eight bytes with random contents, bit by bit as ISO 11898-1 says. */
    @Test
    void bitsDecoded() throws Exception {
        Random random = new Random(5);
        boolean[] dominant = new boolean[(int) (WIRE_BITS * PER_BIT)];
        int bit = 12;
        int sent = 0;
        while (bit < WIRE_BITS - 200) {
            boolean[] frame = WireBits.frame(random.nextInt(0x7FF), random);
            for (boolean b : frame) {
                Arrays.fill(dominant, bit * PER_BIT, ++bit * PER_BIT, b);
            }
            sent++;
        }
        int all = sent;
        figure(
                "a million bits decoded",
                seconds(
                        () -> {
                            CanDecoder.Traffic read =
                                    CanDecoder.read(
                                            dominant, 1 / (500e3 * PER_BIT), new BitRate(500, 0));
                            if (read.frames().stream().filter(f -> f.sound()).count() != all) {
                                throw new IllegalStateException(
                                        read.frames().size() + " frames of " + all);
                            }
                        }),
                1,
                " s");
    }

    @Test
    void broughtIn() throws Exception {
        Path csv = data.resolve("lanes.csv");
        Random random = new Random(3);
        int rows = MILLION;
        try (BufferedWriter out = Files.newBufferedWriter(csv)) {
            out.write("time [s],a [V],b [V],c [V],d [V]\n");
            for (int i = 0; i < rows; i++) {
                out.write(String.format(Locale.ROOT, "%.6f", i / 1e6));
                for (int c = 0; c < 4; c++) {
                    out.write(',');
                    out.write(String.valueOf(random.nextInt(4096) / 100.0));
                }
                out.write("\n");
            }
        }
        double ours =
                seconds(
                        () -> {
                            Dialect dialect;
                            try (InputStream in = Files.newInputStream(csv)) {
                                dialect = CsvLook.at(in.readNBytes(CsvLook.ENOUGH_BYTES)).dialect();
                            }
                            try (InputStream in =
                                    new BufferedInputStream(Files.newInputStream(csv))) {
                                CsvImport.Imported read =
                                        CsvImport.read(in, dialect, CsvImport.own(dialect));
                                Map<String, Value> byId =
                                        read.values().stream()
                                                .collect(
                                                        Collectors.toMap(
                                                                Value::id, Function.identity()));
                                if (CaptureOfTake.of(read.take(), byId::get).length() != rows) {
                                    throw new IllegalStateException("rows are missing");
                                }
                            }
                        });
        double theirs;
        try (Connection duck = DriverManager.getConnection("jdbc:duckdb:");
                Statement sql = duck.createStatement()) {
            theirs =
                    seconds(
                            () ->
                                    sql.execute(
                                            "create or replace table log as select * from read_csv('"
                                                    + csv
                                                    + "')"));
        }
        figure("CSV of a million rows brought in, times DuckDB's reader", ours / theirs, 2, "");

        Path wav = data.resolve("lanes.wav");
        try (OutputStream out = Files.newOutputStream(wav)) {
            CaptureFiles.wav(four(4 * MILLION), out);
        }
        double lanes =
                seconds(
                        () -> {
                            if (SoundReader.read(wav).length() != 4 * MILLION) {
                                throw new IllegalStateException("samples are missing");
                            }
                        });
        double plain =
                seconds(
                        () -> {
                            try (AudioInputStream in =
                                    AudioSystem.getAudioInputStream(wav.toFile())) {
                                if (in.readAllBytes().length != 32 * MILLION) {
                                    throw new IllegalStateException("bytes are missing");
                                }
                            }
                        });
        figure(
                "sound of 16 million samples as lanes, times its bytes read by the platform",
                lanes / plain,
                8,
                "");
    }

    /** Lanes as an instrument of the bench shows them, with nothing of a vehicle behind. */
    private static final class Waves implements Scope.Places {
        private final Map<String, double[]> waves = new HashMap<>();
        private volatile long at;

        Waves(int places) {
            for (int n = 1; n <= places; n++) {
                short[] steps = steps(MILLION, new Random(n));
                double[] volts = new double[MILLION];
                Arrays.setAll(volts, i -> steps[i] * 10 / 2048.0);
                waves.put("place-" + n, volts);
            }
        }

        @Override
        public boolean knows(String place) {
            return place.startsWith("place-");
        }

        @Override
        public Map<String, double[]> feel(Iterable<String> places, double seconds, int count) {
            Map<String, double[]> felt = new HashMap<>();
            for (String place : places) {
                double[] its = waves.get(place);
                double[] part = new double[count];
                for (int i = 0; i < count; i++) {
                    part[i] = its[(int) ((at + i) % MILLION)];
                }
                felt.put(place, part);
            }
            at += count;
            return felt;
        }
    }

    /** A job of a vehicle that has gone: captures are looked at without it. */
    private static long job(Workshop shop) throws IOException {
        shop.signIn("tech");
        try (StandInVehicle loader = Garage.standIn("stonebarrow-wl9", false, ADDRESS)) {
            return Garage.job(shop.app, loader, loader.description().id(), ADDRESS, Set.of());
        }
    }

    @Test
    void recordedWhileItIsLookedAt() throws Exception {
        try (Workshop shop = new Workshop(data)) {
            long job = job(shop);
            double length = 4;
            Waves waves = new Waves(LANES);
            Scope scope = new Scope(waves);
            AtomicBoolean on = new AtomicBoolean(true);
            Thread time =
                    new Thread(
                            () -> {
                                long before = System.nanoTime();
                                while (on.get()) {
                                    LockSupport.parkNanos(10_000_000);
                                    long now = System.nanoTime();
                                    scope.step((now - before) / 1e9);
                                    before = now;
                                }
                            });
            try (ScpiServer server = new ScpiServer(InetAddress.getByName("127.0.0.1"), 0, scope)) {
                time.start();
                BenchRecorder recorder = new BenchRecorder(shop.app, job);
                double behind = 0;
                // the first one finds nothing compiled, and does not count
                for (int turn = 0; turn < 2; turn++) {
                    waves.at = 0;
                    recorder.start(
                            LANES,
                            1.0 / MILLION,
                            length,
                            new InetSocketAddress("127.0.0.1", server.port()));
                    behind = 0;
                    boolean open = false;
                    while (recorder.goesOn()) {
                        if (!open && recorder.capture().isPresent()) {
                            shop.go("/jobs/" + job + "/probe/captures/" + recorder.capture().get());
                            open = true;
                        }
                        double is = Math.min(length, waves.at / (double) MILLION);
                        behind = Math.max(behind, is - recorder.kept());
                        LockSupport.parkNanos(20_000_000);
                    }
                }
                on.set(false);
                figure(
                        "eight lanes at a million samples a second, kept later than taken",
                        behind,
                        1,
                        " s");
                List<short[]> kept = recorder.lanes();
                int wrong = 0;
                for (int lane = 0; lane < LANES; lane++) {
                    double[] its = waves.waves.get("place-" + (lane + 1));
                    for (int i = 0; i < length * MILLION; i++) {
                        boolean same =
                                i < kept.get(lane).length
                                        && kept.get(lane)[i]
                                                == Math.round(its[i % MILLION] * 2048 / 10);
                        wrong += same ? 0 : 1;
                    }
                }
                figure("samples of them that are missing, or others", wrong, 0, "");
            }
        }
    }

    @Test
    void openedAndMoved() throws Exception {
        try (Workshop shop = new Workshop(data)) {
            long job = job(shop);
            Captures captures = shop.app.getBean(Captures.class);
            Capture small = four(100_000);
            Capture large = four(SAMPLES);
            long first = captures.keep(job, "short", "bench", small);
            List<Long> ids = new ArrayList<>();
            for (int i = 0; i < TIMES; i++) {
                ids.add(captures.keep(job, "long", "bench", large));
            }
            // what every page needs is there, and the short one tells what a page takes by itself
            painted(shop, job, first);
            double page = painted(shop, job, first);
            double[] took = new double[TIMES];
            for (int i = 0; i < TIMES; i++) {
                took[i] = painted(shop, job, ids.get(i));
            }
            Arrays.sort(took);
            figure("four lanes of 0.1 million samples opened and painted", page, 1, " s");
            figure("four lanes of 10 million samples opened and painted", took[TIMES / 2], 1, " s");
            List<?> moved =
                    (List<?>)
                            shop.browser.executeAsyncScript(
                                    """
                                    const done = arguments[0]; const long = [];
                                    new PerformanceObserver(l => { for (const e of l.getEntries()) long.push(e.duration); })
                                      .observe({type: 'longtask'});
                                    const its = document.getElementById('drawing');
                                    its.scrollIntoView();
                                    const box = its.getBoundingClientRect();
                                    const at = (type, x) => its.dispatchEvent(new PointerEvent(type,
                                      {clientX: box.left + x, clientY: box.top + 40, pointerId: 1, bubbles: true}));
                                    const turn = dy => its.dispatchEvent(new WheelEvent('wheel',
                                      {deltaY: dy, clientX: box.left + 500, clientY: box.top + 40, bubbles: true, cancelable: true}));
                                    its.setPointerCapture = () => {};
                                    const frames = []; let before = 0; let i = 0;
                                    const step = now => {
                                      if (before) frames.push(now - before);
                                      before = now;
                                      if (i < 60) turn(-10);
                                      else if (i === 60) at('pointerdown', 600);
                                      else if (i < 180) at('pointermove', 600 - 2 * (i - 60));
                                      else if (i === 180) at('pointerup', 300);
                                      else turn(10);
                                      if (++i < 240) requestAnimationFrame(step);
                                      else setTimeout(() => done([long.length, Math.max(0, ...long),
                                        frames.reduce((a, b) => a + b, 0) / frames.length]), 1500);
                                    };
                                    setTimeout(() => requestAnimationFrame(step), 800);
                                    """);
            figure(
                    "tasks over 50 ms while it is zoomed and panned for 240 frames",
                    ((Number) moved.get(0)).doubleValue(),
                    0,
                    "");
            figure(
                    "a frame meanwhile",
                    ((Number) moved.get(2)).doubleValue(),
                    1000 / 60.0 + 0.4,
                    " ms");
        }
    }

    /** Seconds from the click to the lanes on the page, as the page itself has them. */
    private static double painted(Workshop shop, long job, long capture) {
        shop.go("/jobs/" + job + "/probe/captures");
        shop.go("/jobs/" + job + "/probe/captures/" + capture);
        shop.until("the lanes", b -> shop.has("#capture[data-ready=yes]"));
        return ((Number)
                                shop.browser.executeAsyncScript(
                                        "const done = arguments[0]; requestAnimationFrame(() =>"
                                                + " done(performance.getEntriesByName('lanes-painted')[0].startTime));"))
                        .doubleValue()
                / 1000;
    }
}
