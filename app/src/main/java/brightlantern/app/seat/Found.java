package brightlantern.app.seat;

import brightlantern.app.seat.DriversSeats.Choice;
import java.util.List;
import java.util.Locale;

/**
 * What of thousands of things a page offers: those that have all words of a search, the first of
 * them.
 *
 * @param all how many have them
 */
record Found(List<Choice> shown, int all) {
    /** A list of more is read by nobody. */
    private static final int MOST = 150;

    /**
     * @param words that its name or its id has; all of them when empty
     */
    static Found of(List<Choice> choices, String words) {
        List<String> wanted =
                List.of(words.toLowerCase(Locale.ROOT).trim().split("\\s+")).stream()
                        .filter(w -> !w.isEmpty())
                        .toList();
        List<Choice> all =
                choices.stream()
                        .filter(
                                c -> {
                                    String in = (c.id() + " " + c.name()).toLowerCase(Locale.ROOT);
                                    return wanted.stream().allMatch(in::contains);
                                })
                        .toList();
        return new Found(all.subList(0, Math.min(MOST, all.size())), all.size());
    }

    /** How many of how many are shown. */
    public String words() {
        return all > shown.size()
                ? "the first " + shown.size() + " of " + all
                : String.valueOf(all);
    }
}
