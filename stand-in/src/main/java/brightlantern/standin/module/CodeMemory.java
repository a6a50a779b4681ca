package brightlantern.standin.module;

import brightlantern.wire.Bytes;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The codes of one module with status byte, counters, first and last freeze frame; status bits move
 * as ISO 14229-1:2013 annex D.2 says, a code being confirmed when it failed in two key cycles.
 */
public final class CodeMemory {
    private static final int AGED_OUT = 40;
    static final int CLEARED = 0x50;

    static final class Entry {
        final int dtc;
        int status = CLEARED;
        int occurrences;
        int ageing;
        boolean failedInEarlierCycle;
        Optional<Bytes> first = Optional.empty();
        Optional<Bytes> last = Optional.empty();

        Entry(int dtc) {
            this.dtc = dtc;
        }
    }

    private final Map<Integer, Entry> entries = new LinkedHashMap<>();

    public CodeMemory(List<Integer> supported) {
        supported.forEach(dtc -> entries.put(dtc, new Entry(dtc)));
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
                if ((e.status & 0x08) != 0 && ++e.ageing >= AGED_OUT) {
                    e.status &= ~0x08;
                }
            }
            // a fault that only shows under load is not known to fail before its test ran again
            e.status = (e.status & ~0x03) | 0x40;
        }
    }

    public synchronized void clear() {
        entries.replaceAll((dtc, old) -> new Entry(dtc));
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
