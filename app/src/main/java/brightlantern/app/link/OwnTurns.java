package brightlantern.app.link;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Work that is done again and again for many. Each has a thread of its own while it works, so that
 * one that waits, or breaks, holds up none of the others.
 *
 * @param <K> names one of the many
 */
public final class OwnTurns<K> implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(OwnTurns.class);

    private final Set<K> working = ConcurrentHashMap.newKeySet();
    private final ExecutorService threads;

    public OwnTurns(String name) {
        this.threads =
                Executors.newCachedThreadPool(
                        r -> {
                            Thread thread = new Thread(r, name);
                            thread.setDaemon(true);
                            return thread;
                        });
    }

    /**
     * Starts a turn of one and does not wait for it; nothing is done while its last one goes on.
     */
    public void turn(K one, Runnable work) {
        if (!working.add(one)) {
            return;
        }
        try {
            threads.execute(
                    () -> {
                        try {
                            work.run();
                        } catch (RuntimeException | Error broken) {
                            // the next turn tries again; nothing of the others may end by it
                            LOG.warn("A turn of {} broke off.", one, broken);
                        } finally {
                            working.remove(one);
                        }
                    });
        } catch (RejectedExecutionException closed) {
            working.remove(one);
        }
    }

    /** No turn begins after this; those that go on end by themselves. */
    @Override
    public void close() {
        threads.shutdown();
    }
}
