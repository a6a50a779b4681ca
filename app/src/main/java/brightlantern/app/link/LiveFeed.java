package brightlantern.app.link;

import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.NegativeResponseException;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * Reads the values that somebody watches, over and over: one thread a module, so modules are asked
 * in parallel and each one gently. Values of one request bear one time.
 */
public final class LiveFeed {
    /** ISO 14229-1 annex A.1: busy, repeat the request. */
    private static final int BUSY = 0x21;

    private static final long RETRY_MILLIS = 500;

    /** A module that says it is busy is left alone for so long, and longer each time. */
    private static final long FIRST_REST_MILLIS = 20;

    private static final long LONGEST_REST_MILLIS = 400;

    /** How much of a new answer time goes into the mean that is told. */
    private static final double NEW_SHARE = 0.1;

    private static final double BEGAN = System.currentTimeMillis() / 1000.0;
    private static final long BEGAN_NANOS = System.nanoTime();

    private final VehicleLink link;
    private final List<Subscription> subscriptions = new CopyOnWriteArrayList<>();
    private final Map<String, Thread> pollers = new ConcurrentHashMap<>();
    private final Map<String, String> troubles = new ConcurrentHashMap<>();
    private final Map<String, Double> answerMillis = new ConcurrentHashMap<>();

    LiveFeed(VehicleLink link) {
        this.link = link;
    }

    /**
     * Unix time in seconds by a clock that never jumps: the machine's when the program began, and
     * what has passed since.
     */
    public static double now() {
        return BEGAN + (System.nanoTime() - BEGAN_NANOS) / 1e9;
    }

    /**
     * Values of one module read in one request.
     *
     * @param epochSeconds Unix time of the middle of the request
     */
    public record Samples(double epochSeconds, Map<String, Double> values) {}

    /** What one page or take watches. */
    public final class Subscription implements AutoCloseable {
        private final VehicleDescription description;
        private final Set<String> ids;
        private final Consumer<Samples> sink;

        private Subscription(
                VehicleDescription description, Set<String> ids, Consumer<Samples> sink) {
            this.description = description;
            this.ids = Set.copyOf(ids);
            this.sink = sink;
        }

        @Override
        public void close() {
            subscriptions.remove(this);
        }
    }

    public Subscription subscribe(
            VehicleDescription description, Set<String> ids, Consumer<Samples> sink) {
        Subscription subscription = new Subscription(description, ids, sink);
        subscriptions.add(subscription);
        ids.stream()
                .flatMap(id -> description.value(id).stream())
                .map(Value::module)
                .distinct()
                .forEach(module -> ensurePoller(description, module));
        return subscription;
    }

    boolean inUse() {
        return !subscriptions.isEmpty();
    }

    /** Module id → why it is not read at present. */
    public Map<String, String> troubles() {
        return Map.copyOf(troubles);
    }

    /** How long one request of a module takes on the mean, ms; 0 before it was asked. */
    public double answerMillis(String moduleId) {
        return answerMillis.getOrDefault(moduleId, 0.0);
    }

    private synchronized void ensurePoller(VehicleDescription description, String moduleId) {
        pollers.computeIfAbsent(
                moduleId,
                id -> {
                    Thread thread = new Thread(() -> poll(description, id), "live-" + id);
                    thread.setDaemon(true);
                    thread.start();
                    return thread;
                });
    }

    private synchronized boolean retire(String moduleId, List<Value> wanted) {
        if (wanted.isEmpty()) {
            pollers.remove(moduleId);
            troubles.remove(moduleId);
            return true;
        }
        return false;
    }

    private List<Value> wanted(VehicleDescription description, String moduleId) {
        Set<String> ids = new LinkedHashSet<>();
        subscriptions.forEach(s -> ids.addAll(s.ids));
        return ids.stream()
                .sorted()
                .flatMap(id -> description.value(id).stream())
                .filter(v -> v.module().equals(moduleId))
                .toList();
    }

    private void poll(VehicleDescription description, String moduleId) {
        int address = description.module(moduleId).orElseThrow().address();
        long rest = 0;
        while (true) {
            List<Value> values = wanted(description, moduleId);
            if (retire(moduleId, values)) {
                return;
            }
            long pause;
            try {
                read(moduleId, address, values);
                troubles.remove(moduleId);
                // the module's own answer time is the pace; it is never asked twice at once
                rest = rest / 2;
                pause = rest;
            } catch (WireException trouble) {
                troubles.put(moduleId, trouble.getMessage());
                boolean busy =
                        trouble instanceof NegativeResponseException refused
                                && refused.code() == BUSY;
                rest = Math.min(LONGEST_REST_MILLIS, Math.max(FIRST_REST_MILLIS, 2 * rest));
                pause = busy ? rest : RETRY_MILLIS;
            } catch (RuntimeException unforeseen) {
                // one reading that nobody can make sense of must not end all that come after it
                troubles.put(moduleId, "A reading could not be used: " + unforeseen.getMessage());
                pause = RETRY_MILLIS;
            }
            try {
                TimeUnit.MILLISECONDS.sleep(pause);
            } catch (InterruptedException stopped) {
                return;
            }
        }
    }

    private void read(String moduleId, int address, List<Value> values) throws WireException {
        for (int i = 0; i < values.size(); i += VehicleLink.PACK) {
            List<Value> pack = values.subList(i, Math.min(values.size(), i + VehicleLink.PACK));
            double before = now();
            Map<String, Double> read = link.readModule(address, pack);
            double after = now();
            double millis = (after - before) * 1000;
            answerMillis.merge(moduleId, millis, (a, b) -> a + NEW_SHARE * (b - a));
            double at = (before + after) / 2;
            for (Subscription subscription : subscriptions) {
                Map<String, Double> its = new LinkedHashMap<>(read);
                its.keySet().retainAll(subscription.ids);
                if (!its.isEmpty()) {
                    subscription.sink.accept(new Samples(at, its));
                }
            }
        }
    }
}
