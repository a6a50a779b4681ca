package brightlantern.core.take.csv;

import brightlantern.core.take.csv.Dialect.Clock;
import brightlantern.core.take.csv.Dialect.DateOrder;
import java.nio.charset.Charset;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Pattern;

/**
 * Finds out from the beginning of a file how it is written, and says what was assumed.
 *
 * @param rows the first lines of data, as they stand
 * @param remarks what was assumed where the file does not say it
 */
public record CsvLook(Dialect dialect, List<List<String>> rows, List<String> remarks) {
    /** So much of the beginning is enough to tell. */
    public static final int ENOUGH_BYTES = 1 << 18;

    /** Nobody reads more columns than this, and a damaged file has them easily. */
    public static final int MOST_COLUMNS = 2000;

    static final int SHOWN_ROWS = 8;
    static final int LOOKED_AT = 60;
    static final char[] SEPARATORS = {';', '\t', ',', '|'};

    /** What a line of names counts when the separator is guessed, in shares of all lines. */
    static final double NAMED = 0.5;

    static final Pattern NUMBER = Pattern.compile("[-+]?\\d*[.,]?\\d+([eE][-+]?\\d+)?");
    static final Pattern COMMA = Pattern.compile("[-+]?[\\d.]*\\d,\\d+");
    static final Pattern UNIT_IN_NAME = Pattern.compile("(.*?)\\s*[\\[(]([^\\])]*)[\\])]\\s*");
    static final Pattern TIME_NAME =
            Pattern.compile(
                    "(?i)\\s*(time|zeit|timestamp|seconds|sec|millis|milliseconds|micros|microseconds|minutes|clock|date|datetime|t|ms|us)([ _.-].*|\\d*)?");
    static final String TIME_UNITS =
            "(?i)s|sec|secs|seconds|ms|msec|millis|milliseconds|µs|μs|us|usec|micros|microseconds|min|minutes|h:m:s|hh:mm:ss.*|mm:ss.*";

    public CsvLook {
        rows = rows.stream().map(List::copyOf).toList();
        remarks = List.copyOf(remarks);
    }

    /**
     * What somebody who looked at the file says of it; what is empty is found out.
     *
     * @param time the column of times, from 0; -1 when there is none
     */
    public record Corrections(
            Optional<Character> separator,
            Optional<Boolean> decimalComma,
            OptionalInt time,
            Optional<Clock> clock,
            Optional<DateOrder> dates) {
        /** Nothing that a person corrected. */
        public static Corrections none() {
            return new Corrections(
                    Optional.empty(),
                    Optional.empty(),
                    OptionalInt.empty(),
                    Optional.empty(),
                    Optional.empty());
        }
    }

    /**
     * @param beginning the first {@link #ENOUGH_BYTES} of the file, or all of it
     * @throws IllegalArgumentException says what is missing when this is no table
     */
    public static CsvLook at(byte[] beginning) {
        return at(beginning, Corrections.none());
    }

    /**
     * The same, with what somebody said of it.
     *
     * @throws IllegalArgumentException says what is missing when this is no table
     */
    public static CsvLook at(byte[] beginning, Corrections said) {
        LogKind.otherKind(beginning);
        Charset charset = LogKind.charset(beginning);
        String text = new String(beginning, charset);
        if (!text.isEmpty() && text.charAt(0) == '\uFEFF') {
            text = text.substring(1);
        }
        if (text.isBlank()) {
            throw new IllegalArgumentException(
                    "The file is empty; expected a line of names and lines of numbers");
        }
        if (text.chars().limit(4000).filter(c -> c == 0).count() > 0) {
            throw new IllegalArgumentException(
                    "This is no text: it holds zero bytes; expected a table as CSV");
        }
        boolean whole = beginning.length < ENOUGH_BYTES;
        char separator = said.separator().orElse(LogLines.separator(text, whole));
        List<List<String>> lines = LogLines.lines(text, separator, whole);
        if (lines.get(0).size() > MOST_COLUMNS) {
            throw new IllegalArgumentException(
                    "Line 1: "
                            + lines.get(0).size()
                            + " columns; at most "
                            + MOST_COLUMNS
                            + " are read. Is '"
                            + separator
                            + "' what separates them?");
        }
        return new ColumnLook(charset, separator, lines, said).look();
    }
}
