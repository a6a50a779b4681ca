package brightlantern.core.reason;

import java.util.LinkedHashMap;
import java.util.Map;

/** Keeps what was asked for last, up to so many; whoever uses it from two threads guards it. */
final class Remembered<K, V> extends LinkedHashMap<K, V> {
    private static final long serialVersionUID = 1L;

    private final int most;

    Remembered(int most) {
        super(16, 0.75f, true);
        this.most = most;
    }

    @Override
    protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
        return size() > most;
    }
}
