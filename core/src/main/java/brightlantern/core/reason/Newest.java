package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/** Which pieces of evidence count: of the same kind the newest tells how it is now. */
final class Newest {
    private Newest() {}

    /** Places of the newest piece of each kind, oldest first. */
    static List<Integer> of(List<Evidence> evidence) {
        return last(evidence).values().stream().sorted().toList();
    }

    /**
     * The same, and what a repair has changed: pieces from before it that the newest of their kind
     * says otherwise than. They tell what was mended, and nothing of what is left.
     */
    static List<Integer> withChanged(List<Evidence> evidence) {
        Map<String, Integer> last = last(evidence);
        TreeSet<Integer> places = new TreeSet<>(last.values());
        Map<String, Integer> before = new LinkedHashMap<>();
        for (int i = 0; i < evidence.size(); i++) {
            if (evidence.get(i) instanceof Evidence.RepairFailed) {
                before.forEach(
                        (key, place) -> {
                            int now = last.get(key);
                            if (now > place
                                    && isOtherwise(evidence.get(place), evidence.get(now))) {
                                places.add(place);
                            }
                        });
                before.clear();
            } else {
                before.put(evidence.get(i).key(), i);
            }
        }
        return List.copyOf(places);
    }

    private static Map<String, Integer> last(List<Evidence> evidence) {
        Map<String, Integer> last = new LinkedHashMap<>();
        for (int i = 0; i < evidence.size(); i++) {
            last.put(evidence.get(i).key(), i);
        }
        return last;
    }

    private static boolean isOtherwise(Evidence before, Evidence now) {
        return before.passed().isPresent()
                ? !before.passed().equals(now.passed())
                : !before.equals(now);
    }
}
