package brightlantern.standin.module;

import brightlantern.wire.Bytes;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The codes of one module with status byte, counters, first and last freeze frame; status bits move
 * as ISO 14229-1:2013 annex D.2 says, a code being confirmed when it failed in two key cycles.
 */
public final class CodeMemory {
    private static final int AGED_OUT = 40;
    static final int CLEARED = 0x50;

    private static final int HEALED = 3;

    /**
     * A code that the module can set.
     *
     * @param severity byte of ISO 14229-1 annex D.3, 0 for none
     * @param emission whether it belongs to the emission system
     */
    public record Supported(int dtc, int severity, boolean emission) {}

    static final class Entry {
        final Supported kind;
        final int dtc;
        int status = CLEARED;
        int occurrences;
        int ageing;

        /** Key cycles without failure after which the lamp goes out, counted down. */
        int healing;

        boolean failedInEarlierCycle;
        Optional<Bytes> first = Optional.empty();
        Optional<Bytes> last = Optional.empty();

        Entry(Supported kind) {
            this.kind = kind;
            this.dtc = kind.dtc();
        }
    }

    private final Map<Integer, Entry> entries = new LinkedHashMap<>();

    /** Emission codes that a clear does not take away; only their own monitor does. */
    private final Set<Integer> permanent = new LinkedHashSet<>();

    private int clears;
    private Runnable afterClear = () -> {};

    public CodeMemory(List<Supported> supported) {
        supported.forEach(kind -> entries.put(kind.dtc(), new Entry(kind)));
    }

    /** What else a clear takes away. */
    public synchronized void afterClear(Runnable too) {
        afterClear = too;
    }

    /** How often it was cleared. */
    public synchronized int clears() {
        return clears;
    }

    /**
     * A monitor came to a result.
     *
     * @param frame the freeze frame of this moment, number of identifiers first
     */
    public synchronized void report(int dtc, boolean failed, Bytes frame) {
        Entry e = entries.get(dtc);
        if (failed) {
            if ((e.status & 0x01) == 0) {
                e.occurrences = Math.min(255, e.occurrences + 1);
                if (e.first.isEmpty()) {
                    e.first = Optional.of(frame);
                } else {
                    e.last = Optional.of(frame);
                }
            }
            e.status = (e.status | 0x27) & ~0x50;
            e.ageing = 0;
            if (e.failedInEarlierCycle) {
                e.status |= 0x08;
                e.healing = HEALED;
                if (e.kind.emission()) {
                    e.status |= 0x80;
                    permanent.add(dtc);
                }
            }
        } else {
            e.status &= ~0x51;
        }
    }

    /** The key was turned on: a new operation cycle begins. */
    public synchronized void newCycle() {
        for (Entry e : entries.values()) {
            boolean failed = (e.status & 0x02) != 0;
            boolean tested = (e.status & 0x40) == 0;
            if (failed) {
                e.failedInEarlierCycle = true;
            } else if (tested) {
                e.status &= ~0x04;
                e.failedInEarlierCycle = false;
                permanent.remove(e.dtc);
                if (e.healing > 0 && --e.healing == 0) {
                    e.status &= ~0x80;
                }
                if ((e.status & 0x08) != 0 && ++e.ageing >= AGED_OUT) {
                    e.status &= ~0x08;
                }
            }
            // a fault that only shows under load is not known to fail before its test ran again
            e.status = (e.status & ~0x03) | 0x40;
        }
    }

    public synchronized void clear() {
        clears++;
        afterClear.run();
        entries.replaceAll((dtc, old) -> new Entry(old.kind));
    }

    /**
     * Clears one code alone.
     *
     * @return whether it is one of its own
     */
    public synchronized boolean clear(int dtc) {
        return entries.computeIfPresent(dtc, (number, old) -> new Entry(old.kind)) != null;
    }

    /** Whether a code asks for the warning lamp (status bit 7). */
    public synchronized boolean asksForLamp() {
        return entries.values().stream().anyMatch(e -> (e.status & 0x80) != 0);
    }

    /** How many emission codes are confirmed. */
    public synchronized int emissionCodes() {
        return (int)
                entries.values().stream()
                        .filter(e -> e.kind.emission() && (e.status & 0x08) != 0)
                        .count();
    }

    /** Whether a code failed since the last clear; false for one that is not supported. */
    public synchronized boolean failed(int dtc) {
        return entry(dtc).map(e -> (e.status & 0x20) != 0).orElse(false);
    }

    /** Whether the test of a code has run since the last clear. */
    public synchronized boolean tested(int dtc) {
        return entry(dtc).map(e -> (e.status & 0x10) == 0).orElse(false);
    }

    /** Codes that are permanent now. */
    synchronized List<Entry> permanent() {
        return permanent.stream().map(entries::get).toList();
    }

    synchronized List<Entry> matching(int mask) {
        return entries.values().stream().filter(e -> (e.status & mask) != 0).toList();
    }

    synchronized List<Entry> all() {
        return new ArrayList<>(entries.values());
    }

    synchronized Optional<Entry> entry(int dtc) {
        return Optional.ofNullable(entries.get(dtc));
    }
}
