package brightlantern.app.link;

import java.time.Duration;
import java.util.Optional;
import java.util.function.LongSupplier;

/**
 * One person commands a vehicle at a time; who it is, others can see. It lapses when nothing is
 * done for a while.
 */
public final class CommandLease {
    private static final Duration LAPSE = Duration.ofSeconds(30);

    /** Nanoseconds of a clock that never goes back. */
    private final LongSupplier clock;

    /** Somebody else has the command. */
    public static final class Taken extends IllegalStateException {
        private static final long serialVersionUID = 1L;

        private final String holder;

        Taken(String holder) {
            super(holder + " is commanding this vehicle now. Wait until it is given back.");
            this.holder = holder;
        }

        /** What that means for whoever had it before. */
        public String handedOver() {
            return "The command was handed over to " + holder + ".";
        }
    }

    private String holder = "";
    private String wish = "";
    private long until;

    public CommandLease() {
        this(System::nanoTime);
    }

    CommandLease(LongSupplier clock) {
        this.clock = clock;
    }

    /**
     * Takes or keeps the lease.
     *
     * @throws Taken names who has it
     */
    public synchronized void claim(String who) {
        stillOf(who);
        holder = who;
        until = clock.getAsLong() + LAPSE.toNanos();
    }

    public synchronized void release(String who) {
        if (holder.equals(who)) {
            holder = "";
        }
    }

    /** Somebody else asks for the command; whoever has it may hand it over. */
    public synchronized void ask(String who) {
        wish = who;
    }

    /** Who asks for the command; empty when nobody does or nobody else has it. */
    public synchronized Optional<String> asked() {
        return wish.isEmpty() || holder().filter(h -> !h.equals(wish)).isEmpty()
                ? Optional.empty()
                : Optional.of(wish);
    }

    /** Hands the command to whoever asked for it; nothing happens when that was not its holder. */
    public synchronized void handOver(String from) {
        if (holder.equals(from) && asked().isPresent()) {
            holder = wish;
            wish = "";
            until = clock.getAsLong() + LAPSE.toNanos();
        }
    }

    /**
     * Nothing is done if whoever had it has it still.
     *
     * @throws Taken names who else has it
     */
    public void stillOf(String who) {
        Optional<String> other = holder().filter(h -> !h.equals(who));
        if (other.isPresent()) {
            throw new Taken(other.get());
        }
    }

    public synchronized Optional<String> holder() {
        return holder.isEmpty() || clock.getAsLong() - until > 0
                ? Optional.empty()
                : Optional.of(holder);
    }
}
