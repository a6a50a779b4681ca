package brightlantern.app.page;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;

/**
 * A page that listens to the program. What it has not taken yet waits in a line that has an end,
 * and while there is something to send it has a thread of its own: a page that does not read holds
 * up nobody. It loses what is oldest, hears so when it reads again, and is let go of when the
 * connection gives it up.
 */
public final class Listener {
    /** So much waits for a page at most. */
    static final int LINE = 64;

    /** Tells the page how many messages it missed. */
    static final String LOST = "lost";

    private static final ExecutorService SENDERS =
            Executors.newCachedThreadPool(
                    r -> {
                        Thread thread = new Thread(r, "page-sender");
                        thread.setDaemon(true);
                        return thread;
                    });

    /** To the page; each may wait for it. */
    interface Way {
        /**
         * @throws IOException when the page is gone
         */
        void send(String name, Object data) throws IOException;

        void close();
    }

    private record Message(String name, Object data) {}

    private final Way way;
    private final Consumer<Listener> end;
    private final Map<Object, Message> line = new LinkedHashMap<>();
    private boolean sending;
    private boolean gone;
    private long lost;

    /**
     * @param end what to do when the page is gone
     */
    Listener(Way way, Consumer<Listener> end) {
        this.way = way;
        this.end = end;
    }

    /**
     * Puts a message into the line and does not wait.
     *
     * @param key of messages with the same key only the newest is of interest
     */
    public synchronized void tell(Object key, String name, Object data) {
        if (gone) {
            return;
        }
        line.put(key, new Message(name, data));
        if (line.size() > LINE) {
            line.remove(line.keySet().iterator().next());
            lost++;
        }
        if (!sending) {
            sending = true;
            SENDERS.execute(this::drain);
        }
    }

    private void drain() {
        try {
            for (Message next = next(); next != null; next = next()) {
                way.send(next.name(), next.data());
            }
        } catch (IOException | RuntimeException left) {
            gone();
        }
    }

    private synchronized Message next() {
        if (lost > 0) {
            Message told = new Message(LOST, lost);
            lost = 0;
            return told;
        }
        if (line.isEmpty()) {
            sending = false;
            return null;
        }
        return line.remove(line.keySet().iterator().next());
    }

    synchronized boolean isGone() {
        return gone;
    }

    /** The page is not there any more. */
    void gone() {
        synchronized (this) {
            if (gone) {
                return;
            }
            gone = true;
            line.clear();
        }
        end.accept(this);
    }

    /** Ends the stream: who listens may not do so any longer. */
    void end() {
        gone();
        SENDERS.execute(way::close);
    }
}
