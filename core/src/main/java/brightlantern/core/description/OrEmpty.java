package brightlantern.core.description;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What a description leaves out is empty, or the number that changes nothing. */
public final class OrEmpty {
    private OrEmpty() {}

    /** An empty list for none. */
    public static <T> List<T> list(List<T> maybe) {
        return maybe == null ? List.of() : List.copyOf(maybe);
    }

    /** In the order in which it was written. */
    public static <K, V> Map<K, V> map(Map<K, V> maybe) {
        return maybe == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(maybe));
    }

    /** An empty text for none. */
    public static String text(String maybe) {
        return maybe == null ? "" : maybe;
    }

    /** A factor; none of them is nought when it is written. */
    public static double factor(double maybe) {
        return maybe == 0 ? 1 : maybe;
    }
}
