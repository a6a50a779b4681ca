package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.link.LiveFeed;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.module.UdsModule.Behaviour;
import java.io.IOException;
import java.io.OutputStream;
import java.lang.management.ManagementFactory;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Eight ill vehicles, forty tablets that sleep and thirty people who are busy, beside one good
 * vehicle whose values are watched: none may cost another anything. Run by {@code ./lantern bench
 * holds}.
 */
class HoldsBench {
    private static final int SECONDS = Integer.getInteger("seconds", 300);
    private static final int SLEEPING = 40;
    private static final int BUSY = 30;
    private static final int VALUES = 20;
    private static final double LATE_MILLIS = 250;
    private static final double PAGE_MILLIS = 100;
    private static final long SETTLE_NANOS = 5_000_000_000L;

    /** Between two pages a person reads for a while, s. */
    private static final double READS_SECONDS = 2;

    /** What two measures of the same heap may differ by, MB. */
    private static final double FLAT_MB = 60;

    private static final int FLAT_THREADS = 30;

    @TempDir Path data;

    private final List<AutoCloseable> open = new ArrayList<>();
    private final AtomicInteger errors = new AtomicInteger();
    private final List<Double> pages = Collections.synchronizedList(new ArrayList<>());

    private static void line(String what, double value, String wanted, boolean meets) {
        System.out.printf(
                Locale.ROOT,
                "bench: holds %s: %.3g (wanted %s) %s%n",
                what,
                value,
                wanted,
                meets ? "meets" : "misses");
    }

    private static double heap() {
        for (int i = 0; i < 3; i++) {
            System.gc();
            LockSupport.parkNanos(200_000_000);
        }
        return ManagementFactory.getMemoryMXBean().getHeapMemoryUsage().getUsed() / 1e6;
    }

    /** Threads of the program; those of the people's own clients do not count. */
    private static long threads() {
        return Thread.getAllStackTraces().keySet().stream()
                .filter(t -> !t.getName().startsWith("HttpClient"))
                .count();
    }

    /** Vehicles that answer late, never, nonsense, or for ever that they are busy. */
    private List<Long> ill(Garage garage) throws IOException {
        List<Long> jobs = new ArrayList<>();
        Behaviour[] ills = {
            Behaviour.SILENT,
            Behaviour.LATE,
            Behaviour.NONSENSE,
            Behaviour.BUSY,
            Behaviour.REFUSING,
            Behaviour.TWINNED
        };
        String[] kinds = {
            "oriel-heron",
            "velmont-cairn",
            "quillon-ember",
            "stonebarrow-wl9",
            "oriel-finch",
            "tamarack-portage"
        };
        for (int i = 0; i < ills.length; i++) {
            String address = "127.0.79." + (10 + i);
            StandInVehicle v = garage.vehicle(kinds[i], true, address);
            for (ControlModule m : v.description().modules()) {
                if (v.module(m.id()) != null) {
                    v.module(m.id()).behave(ills[i]);
                }
            }
            jobs.add(garage.job(v, address, Set.of()));
        }
        // one that takes connections and never says a word, and one that hangs up at once
        StandInVehicle named = garage.vehicle("oriel-heron", false, "127.0.79.30");
        jobs.add(garage.job(named, mute("127.0.79.20"), Set.of()));
        jobs.add(garage.job(named, hangingUp("127.0.79.21"), Set.of()));
        return jobs;
    }

    private String mute(String address) throws IOException {
        open.add(new ServerSocket(13400, 50, InetAddress.getByName(address)));
        return address;
    }

    private String hangingUp(String address) throws IOException {
        ServerSocket server = new ServerSocket(13400, 50, InetAddress.getByName(address));
        open.add(server);
        Thread thread =
                new Thread(
                        () -> {
                            while (!server.isClosed()) {
                                try (Socket caller = server.accept()) {
                                    caller.setSoLinger(true, 0);
                                } catch (IOException closed) {
                                    return;
                                }
                            }
                        });
        thread.setDaemon(true);
        thread.start();
        return address;
    }

    @Test
    void oneDoesNotCostAnother() throws Exception {
        try (Garage garage = new Garage(data)) {
            StandInVehicle good = garage.vehicle("oriel-finch", false, "127.0.79.1");
            long job = garage.job(good, "127.0.79.1", Set.of());
            List<Long> all = new ArrayList<>(ill(garage));
            all.add(job);
            VehicleDescription d = good.description();
            VehicleLink link = garage.app.getBean(VehicleLinks.class).link("127.0.79.1");
            Set<String> ids = new LinkedHashSet<>();
            d.values().stream().limit(VALUES).map(Value::id).forEach(ids::add);
            LockSupport.parkNanos(SETTLE_NANOS);
            List<String> shown = List.of("trace", "sweep", "watch", "prove", "intake");
            for (long j : all) {
                for (String stage : shown) {
                    garage.visitor("tech").get("/jobs/" + j + "/" + stage);
                }
            }
            double heapBefore = 0;
            long threadsBefore = 0;
            long threadsAfter = 0;
            AtomicLong last = new AtomicLong(System.nanoTime());
            AtomicLong longest = new AtomicLong();
            ExecutorService people = Executors.newCachedThreadPool();
            long end = System.nanoTime() + SECONDS * 1_000_000_000L;
            try (LiveFeed.Subscription watched =
                    link.feed()
                            .subscribe(
                                    d,
                                    ids,
                                    s -> {
                                        long now = System.nanoTime();
                                        longest.accumulateAndGet(
                                                now - last.getAndSet(now), Math::max);
                                    })) {
                LockSupport.parkNanos(SETTLE_NANOS);
                longest.set(0);
                sleepers(garage, all);
                for (int i = 0; i < BUSY; i++) {
                    Visitor person = garage.visitor(i % 2 == 0 ? "tech" : "lead");
                    Random random = new Random(i);
                    people.submit(() -> busy(person, all, shown, random, end));
                }
                for (long j : all.subList(0, all.size() - 1)) {
                    Visitor sweeping = garage.visitor("tech");
                    people.submit(() -> sweeps(sweeping, j, end));
                }
                // under load from the beginning: what grows from then on would grow for ever
                LockSupport.parkNanos(4 * SETTLE_NANOS);
                heapBefore = heap();
                threadsBefore = threads();
                // to look at the heap stops everything
                last.set(System.nanoTime());
                longest.set(0);
                pages.clear();
                while (System.nanoTime() < end) {
                    LockSupport.parkNanos(200_000_000);
                }
                threadsAfter = threads();
            }
            people.shutdownNow();
            told(longest.get() / 1e6);
            for (AutoCloseable one : open) {
                one.close();
            }
            LockSupport.parkNanos(2 * SETTLE_NANOS);
            double more = heap() - heapBefore;
            long moreThreads = threadsAfter - threadsBefore;
            line("heap grown, MB", more, "at most 60", more <= FLAT_MB);
            line("threads more", moreThreads, "at most 30", moreThreads <= FLAT_THREADS);
        }
    }

    private void told(double lateMillis) {
        List<Double> sorted = pages.stream().sorted().toList();
        assertThat(sorted).hasSizeGreaterThan(BUSY);
        double p95 = sorted.get((int) (0.95 * (sorted.size() - 1)));
        line("pages with errors", errors.get(), "0", errors.get() == 0);
        line(
                "longest wait for the good vehicle's values, ms",
                lateMillis,
                "at most 250",
                lateMillis <= LATE_MILLIS);
        line("page at the 95th percentile, ms", p95, "at most 100", p95 <= PAGE_MILLIS);
        System.out.printf(
                Locale.ROOT,
                "bench: holds pages read: %d in %d s, the slowest %.0f ms%n",
                sorted.size(),
                SECONDS,
                sorted.get(sorted.size() - 1));
    }

    private void busy(
            Visitor person, List<Long> jobs, List<String> stages, Random random, long end) {
        while (System.nanoTime() < end && !Thread.currentThread().isInterrupted()) {
            long job = jobs.get(random.nextInt(jobs.size()));
            String stage = stages.get(random.nextInt(stages.size()));
            long begun = System.nanoTime();
            try {
                String page = person.get("/jobs/" + job + "/" + stage);
                pages.add((System.nanoTime() - begun) / 1e6);
                if (!page.contains("</html>") || page.contains("\"status\":500")) {
                    errors.incrementAndGet();
                }
            } catch (IOException broken) {
                errors.incrementAndGet();
            } catch (InterruptedException over) {
                return;
            }
            LockSupport.parkNanos((long) (READS_SECONDS * 1e9 * (0.5 + random.nextDouble())));
        }
    }

    private static void sweeps(Visitor person, long job, long end) {
        String page = Garage.page(job);
        while (System.nanoTime() < end && !Thread.currentThread().isInterrupted()) {
            try {
                person.post(page, page + "/start", Map.of());
            } catch (IOException | IllegalStateException busy) {
                // one that runs already is not begun again
                LockSupport.parkNanos(1_000_000_000);
            } catch (InterruptedException over) {
                return;
            }
            LockSupport.parkNanos(5_000_000_000L);
        }
    }

    /** Streams that are opened and never read. */
    private void sleepers(Garage garage, List<Long> jobs) throws Exception {
        URI base = URI.create(Garage.address(garage.app));
        for (int i = 0; i < SLEEPING; i++) {
            Visitor asleep = garage.visitor("tech");
            Socket socket = new Socket();
            socket.setReceiveBufferSize(2048);
            socket.connect(new InetSocketAddress(base.getHost(), base.getPort()));
            OutputStream out = socket.getOutputStream();
            out.write(
                    ("GET /jobs/%d/events HTTP/1.1\r\nHost: %s:%d\r\nCookie: %s\r\nAccept: text/event-stream\r\n\r\n"
                                    .formatted(
                                            jobs.get(i % jobs.size()),
                                            base.getHost(),
                                            base.getPort(),
                                            asleep.cookies()))
                            .getBytes(StandardCharsets.US_ASCII));
            out.flush();
            open.add(socket);
        }
    }
}
