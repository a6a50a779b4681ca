package brightlantern.app.link;

import java.time.Duration;
import java.util.Optional;

/**
 * One person commands a vehicle at a time; who it is, others can see. It lapses when nothing is
 * done for a while.
 */
public final class CommandLease {
    private static final Duration LAPSE = Duration.ofSeconds(30);

    private String holder = "";
    private long until;

    /**
     * Takes or keeps the lease.
     *
     * @throws IllegalStateException names who has it
     */
    public synchronized void claim(String who) {
        Optional<String> other = holder().filter(h -> !h.equals(who));
        if (other.isPresent()) {
            throw new IllegalStateException(
                    other.get() + " is commanding this vehicle now. Wait until it is given back.");
        }
        holder = who;
        until = System.nanoTime() + LAPSE.toNanos();
    }

    public synchronized void release(String who) {
        if (holder.equals(who)) {
            holder = "";
        }
    }

    public synchronized Optional<String> holder() {
        return holder.isEmpty() || System.nanoTime() > until
                ? Optional.empty()
                : Optional.of(holder);
    }
}
