package brightlantern.core.shelf;

import java.util.List;

/**
 * Cases as they go from one workshop to another.
 *
 * @param format {@link #FORMAT}
 * @param from who gives them
 */
public record CaseFile(String format, String from, List<ShelfCase> cases) {
    /** Name and version of the format. */
    public static final String FORMAT = "bright-lantern-cases-1";

    private static final int MOST = 10_000;

    /** A case is boiled down; what is longer than this is none. */
    private static final int LONGEST = 20_000;

    public CaseFile {
        cases = cases == null ? List.of() : List.copyOf(cases);
        from = from == null ? "" : from;
    }

    /** These cases, from somebody. */
    public static CaseFile of(String from, List<ShelfCase> cases) {
        return new CaseFile(FORMAT, from, cases);
    }

    /**
     * What may be taken of it, each case marked as from elsewhere.
     *
     * @throws IllegalArgumentException says what was expected
     */
    public List<ShelfCase> taken() {
        if (!FORMAT.equals(format)) {
            throw new IllegalArgumentException(
                    "its format is '" + format + "'; expected '" + FORMAT + "'");
        }
        if (cases.isEmpty() || cases.size() > MOST) {
            throw new IllegalArgumentException(
                    "it holds " + cases.size() + " cases; expected 1 to " + MOST);
        }
        for (int i = 0; i < cases.size(); i++) {
            ShelfCase c = cases.get(i);
            if (isBlank(c.vehicle()) || isBlank(c.cause()) || isBlank(c.repair())) {
                throw new IllegalArgumentException(
                        "case " + (i + 1) + " lacks its vehicle, cause or repair");
            }
            if (c.toString().length() > LONGEST) {
                throw new IllegalArgumentException(
                        "case "
                                + (i + 1)
                                + " has "
                                + c.toString().length()
                                + " characters; at most "
                                + LONGEST
                                + " are taken");
            }
        }
        String whom = from.isBlank() ? "another workshop" : from;
        return cases.stream().map(c -> c.from(c.isOwn() ? whom : c.origin())).toList();
    }

    private static boolean isBlank(String text) {
        return text == null || text.isBlank();
    }
}
