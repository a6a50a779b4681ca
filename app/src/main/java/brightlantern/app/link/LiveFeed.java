package brightlantern.app.link;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Value;
import brightlantern.wire.WireException;
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
    /** A module is not asked more often than this; 20 Hz is more than an eye or a chart needs. */
    private static final long SHORTEST_CYCLE_MILLIS = 50;

    private static final long RETRY_MILLIS = 500;

    private final VehicleLink link;
    private final List<Subscription> subscriptions = new CopyOnWriteArrayList<>();
    private final Map<String, Thread> pollers = new ConcurrentHashMap<>();
    private final Map<String, String> troubles = new ConcurrentHashMap<>();

    LiveFeed(VehicleLink link) {
        this.link = link;
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
        while (true) {
            List<Value> values = wanted(description, moduleId);
            if (retire(moduleId, values)) {
                return;
            }
            long start = System.nanoTime();
            long pause;
            try {
                read(address, values);
                troubles.remove(moduleId);
                pause = SHORTEST_CYCLE_MILLIS - (System.nanoTime() - start) / 1_000_000;
            } catch (WireException trouble) {
                troubles.put(moduleId, trouble.getMessage());
                pause = RETRY_MILLIS;
            }
            try {
                TimeUnit.MILLISECONDS.sleep(Math.max(1, pause));
            } catch (InterruptedException stopped) {
                return;
            }
        }
    }

    private void read(int address, List<Value> values) throws WireException {
        for (int i = 0; i < values.size(); i += VehicleLink.PACK) {
            List<Value> pack = values.subList(i, Math.min(values.size(), i + VehicleLink.PACK));
            double before = System.currentTimeMillis() / 1000.0;
            Map<String, Double> read = link.readModule(address, pack);
            double at = (before + System.currentTimeMillis() / 1000.0) / 2;
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
