package brightlantern.core.shelf;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * Cases as they go from one workshop to another.
 *
 * @param format {@link #FORMAT}
 * @param from who gives them
 * @param pictures what was seen in them
 */
public record CaseFile(String format, String from, List<ShelfCase> cases, List<Picture> pictures) {
    /** Name and version of the format. */
    public static final String FORMAT = "bright-lantern-cases-1";

    private static final int MOST = 10_000;

    /** A case is boiled down; what is longer than this is none. */
    private static final int LONGEST = 20_000;

    private static final int MOST_PICTURES = 6;

    private static final int MOST_PICTURE_BYTES = 2 << 20;

    public CaseFile {
        cases = OrEmpty.list(cases);
        from = OrEmpty.text(from);
        pictures = OrEmpty.list(pictures);
    }

    /**
     * A picture of a case.
     *
     * @param of the case, counted from 1 as they stand in the file
     * @param shows the part or finding that is to be seen, in words
     * @param image as a file of pictures has it
     */
    public record Picture(int of, String shows, String note, byte[] image) {
        public Picture {
            shows = OrEmpty.text(shows);
            note = OrEmpty.text(note);
            image = image == null ? new byte[0] : image;
        }
    }

    /** These cases with their pictures, from somebody. */
    public static CaseFile of(String from, List<ShelfCase> cases, List<Picture> pictures) {
        return new CaseFile(FORMAT, from, cases, pictures);
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
        for (int i = 0; i < pictures.size(); i++) {
            check(i + 1, pictures.get(i));
        }
        String whom = from.isBlank() ? "another workshop" : from;
        return cases.stream().map(c -> c.from(c.isOwn() ? whom : c.origin())).toList();
    }

    private void check(int number, Picture picture) {
        if (picture.of() < 1 || picture.of() > cases.size()) {
            throw new IllegalArgumentException(
                    "picture %d is of case %d; expected 1 to %d"
                            .formatted(number, picture.of(), cases.size()));
        }
        if (picture.image().length == 0 || picture.image().length > MOST_PICTURE_BYTES) {
            throw new IllegalArgumentException(
                    "picture %d has %d bytes; expected 1 to %d"
                            .formatted(number, picture.image().length, MOST_PICTURE_BYTES));
        }
        if (pictures.stream().filter(p -> p.of() == picture.of()).count() > MOST_PICTURES) {
            throw new IllegalArgumentException(
                    "case %d has more than %d pictures".formatted(picture.of(), MOST_PICTURES));
        }
    }

    private static boolean isBlank(String text) {
        return text == null || text.isBlank();
    }
}
