package brightlantern.app.sweep;

import brightlantern.core.code.DtcStatus;
import brightlantern.core.sweep.CodeWeigher;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/** What of a sweep somebody wants to see. */
final class SweepWanted {

    private SweepWanted() {}

    /**
     * What of a long list is wanted.
     *
     * @param find words that a code, its meaning or its module must hold
     * @param all all of it, however long
     * @param only lead, not-aside, now (failing now), or empty for every code
     * @param sort module, code, times, or empty for what matters first
     */
    record Wanted(String find, boolean all, String only, String sort) {
        List<CodeWeigher.Weighed> of(List<CodeWeigher.Weighed> weighed) {
            Comparator<CodeWeigher.Weighed> order =
                    switch (sort) {
                        case "module" -> Comparator.comparing(w -> w.code().moduleName());
                        case "code" -> Comparator.comparing(w -> w.code().code());
                        case "times" ->
                                Comparator.comparingInt(
                                                (CodeWeigher.Weighed w) -> w.code().occurrences())
                                        .reversed();
                        default -> (a, b) -> 0;
                    };
            return weighed.stream().filter(this::matches).sorted(order).toList();
        }

        /** As many of a list as are shown unless all are wanted. */
        <T> List<T> shown(List<T> list) {
            return all ? list : list.subList(0, Math.min(SweepWords.MOST_ROWS, list.size()));
        }

        boolean matches(CodeWeigher.Weighed w) {
            String text =
                    (w.code().code() + " " + w.code().name() + " " + w.code().moduleName())
                            .toLowerCase(Locale.ROOT);
            boolean part =
                    switch (only) {
                        case "lead" -> w.lead();
                        case "not-aside" -> !w.aside();
                        case "now" ->
                                w.code().statusByte().standing() == DtcStatus.Standing.FAILS_NOW;
                        default -> true;
                    };
            return part
                    && Stream.of(find.trim().toLowerCase(Locale.ROOT).split("\\s+"))
                            .allMatch(text::contains);
        }
    }
}
