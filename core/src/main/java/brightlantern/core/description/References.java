package brightlantern.core.description;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.BiFunction;
import java.util.function.Function;

/**
 * The identifiers of a description and the mistakes in referring to them. A mistake names its place
 * (file and line), what was expected and what was found.
 */
public final class References {
    private final BiFunction<String, Integer, String> places;
    private final List<String> mistakes;
    private final Map<String, Set<String>> known = new HashMap<>();

    /**
     * @param places section and index of an item in it → where it stands
     * @param mistakes to which what is found wrong is added
     */
    public References(BiFunction<String, Integer, String> places, List<String> mistakes) {
        this.places = places;
        this.mistakes = mistakes;
    }

    /** An item of a description at its place, to be held against what is known. */
    public final class At {
        private final String place;

        private At(String place) {
            this.place = place;
        }

        /**
         * @param what the kind with its article, such as "a value"
         */
        public void needs(String what, String id) {
            among(what, known.getOrDefault(what, Set.of()), id);
        }

        /** As the other, for each of them. */
        public void needs(String what, Collection<String> ids) {
            ids.forEach(id -> needs(what, id));
        }

        /** As {@link #needs}; what is empty refers to nothing. */
        public void may(String what, String id) {
            if (!id.isEmpty()) {
                needs(what, id);
            }
        }

        /** Whether an identifier is one of a set that the item itself knows. */
        public void among(String what, Set<String> ids, String id) {
            if (!ids.contains(id)) {
                wrong("expected " + what + ", found '" + id + "', which is not described");
            }
        }

        /** Tells a mistake of the item at its place. */
        public void wrong(String sentence) {
            mistakes.add(place + ": " + sentence);
        }
    }

    /** Items of a section, each with an identifier of its own. */
    public <T> void define(
            String section, String what, List<T> items, Function<T, String> identifier) {
        Set<String> seen = known.computeIfAbsent(what, w -> new HashSet<>());
        each(
                section,
                items,
                (item, at) -> {
                    String id = identifier.apply(item);
                    if (!seen.add(id)) {
                        at.wrong("'" + id + "' stands twice, expected once");
                    }
                });
    }

    /** Identifiers of a kind that may be used more than once, such as codes of several modules. */
    public void add(String what, Collection<String> ids) {
        known.computeIfAbsent(what, w -> new HashSet<>()).addAll(ids);
    }

    /** Visits the items of a section, each at its place. */
    public <T> void each(String section, List<T> items, BiConsumer<T, At> visit) {
        for (int i = 0; i < items.size(); i++) {
            visit.accept(items.get(i), new At(places.apply(section, i)));
        }
    }

    /** A section that is a single item. */
    public At section(String section) {
        return new At(section);
    }
}
