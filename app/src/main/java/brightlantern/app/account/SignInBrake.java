package brightlantern.app.account;

import java.time.Duration;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.function.LongSupplier;

/**
 * Slows down whoever tries passwords: after some wrong ones the next try has to wait, each time
 * twice as long. It counts by account and address together, by address, and by account; an address
 * from which an account was signed in to is not slowed down by what others try elsewhere, so that
 * nobody can lock its owner out (OWASP ASVS 4.0, 2.2.1).
 */
final class SignInBrake {
    /** Wrong tries of one account from one address before it waits. */
    static final int FREE = 5;

    /** The same for an address as a whole, or an account as a whole. */
    static final int FREE_OF_ALL = 20;

    private static final Duration FIRST = Duration.ofSeconds(1);
    private static final Duration LONGEST = Duration.ofSeconds(60);
    private static final Duration FORGOTTEN = Duration.ofMinutes(15);

    /** More than these are not remembered; the oldest go first. */
    private static final int MOST = 10_000;

    /** Nanoseconds of a clock that never goes back. */
    private final LongSupplier clock;

    private final Map<String, Tries> tries = new LinkedHashMap<>();
    private final Set<String> known = new HashSet<>();

    SignInBrake(LongSupplier clock) {
        this.clock = clock;
    }

    private record Tries(int wrong, long last) {}

    /** How long a try of an account from an address has to wait; zero when it need not. */
    synchronized Duration wait(String name, String address) {
        Duration both = left(pair(name, address), FREE);
        Duration there = left(address(address), FREE_OF_ALL);
        Duration its =
                known.contains(pair(name, address))
                        ? Duration.ZERO
                        : left(account(name), FREE_OF_ALL);
        return longer(both, longer(there, its));
    }

    private static Duration longer(Duration a, Duration b) {
        return a.compareTo(b) < 0 ? b : a;
    }

    private Duration left(String key, int free) {
        Tries of = tries.get(key);
        if (of == null || of.wrong() < free) {
            return Duration.ZERO;
        }
        int doublings = Math.min(of.wrong() - free, 10);
        Duration whole = FIRST.multipliedBy(1L << doublings);
        long passed = clock.getAsLong() - of.last();
        Duration left =
                (whole.compareTo(LONGEST) > 0 ? LONGEST : whole).minus(Duration.ofNanos(passed));
        return left.isNegative() ? Duration.ZERO : left;
    }

    /**
     * Counts a wrong password.
     *
     * @return how many there were for this account from this address
     */
    synchronized int wrong(String name, String address) {
        count(address(address));
        count(account(name));
        return count(pair(name, address));
    }

    private int count(String key) {
        long now = clock.getAsLong();
        Tries before = tries.remove(key);
        boolean old = before == null || now - before.last() > FORGOTTEN.toNanos();
        int wrong = old ? 1 : before.wrong() + 1;
        tries.put(key, new Tries(wrong, now));
        if (tries.size() > MOST) {
            tries.remove(tries.keySet().iterator().next());
        }
        return wrong;
    }

    /** The right password: its account and address begin anew. */
    synchronized void right(String name, String address) {
        tries.remove(pair(name, address));
        if (known.size() < MOST) {
            known.add(pair(name, address));
        }
    }

    private static String pair(String name, String address) {
        return "both " + name + " " + address;
    }

    private static String address(String address) {
        return "address " + address;
    }

    private static String account(String name) {
        return "account " + name;
    }
}
