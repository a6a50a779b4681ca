package brightlantern.app.capture;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Captures are large and are looked at many times in a row: the last ones stay in memory. */
final class RecentCaptures {
    /** Samples of all lanes that are held at most; one capture is held, however long it is. */
    private static final long MOST_SAMPLES = 60_000_000;

    private final Map<Long, Captures.Opened> held = new LinkedHashMap<>(8, 0.75f, true);

    synchronized Optional<Captures.Opened> get(long id) {
        return Optional.ofNullable(held.get(id));
    }

    synchronized void keep(Captures.Opened opened) {
        held.put(opened.head().id(), opened);
        long samples = held.values().stream().mapToLong(RecentCaptures::samples).sum();
        Iterator<Captures.Opened> eldest = held.values().iterator();
        while (samples > MOST_SAMPLES && held.size() > 1) {
            samples -= samples(eldest.next());
            eldest.remove();
        }
    }

    private static long samples(Captures.Opened opened) {
        return (long) opened.capture().length() * opened.capture().lanes().size();
    }

    synchronized void forget(long id) {
        held.remove(id);
    }
}
