package brightlantern.wire.scpi;

import brightlantern.wire.WireFormatException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * One SCPI command line: a header such as {@code ROUT:CLOS} or {@code *IDN?}, and its parameters.
 *
 * @param header upper-case, with the question mark of a query
 * @param parameters strings without their quotes, channel lists with {@code (@} and {@code )}
 *     removed
 */
public record ScpiLine(String header, List<String> parameters) {
    /** Longest line that is taken, in characters. */
    public static final int MAX_LENGTH = 512;

    public ScpiLine {
        parameters = List.copyOf(parameters);
    }

    /** Whether it asks for an answer. */
    public boolean isQuery() {
        return header.endsWith("?");
    }

    /**
     * True when the header is this one in its long or short form (capital letters are the short
     * form).
     */
    public boolean is(String form) {
        String[] wanted = form.split(":");
        String[] had = header.startsWith(":") ? header.substring(1).split(":") : header.split(":");
        if (wanted.length != had.length) {
            return false;
        }
        for (int i = 0; i < wanted.length; i++) {
            String brief = wanted[i].replaceAll("[a-z]", "");
            if (!had[i].equals(brief) && !had[i].equals(wanted[i].toUpperCase(Locale.ROOT))) {
                return false;
            }
        }
        return true;
    }

    /**
     * Reads one line without its end.
     *
     * @throws WireFormatException names the character that does not fit
     */
    public static ScpiLine parse(String line) throws WireFormatException {
        if (line.length() > MAX_LENGTH) {
            throw new WireFormatException(
                    MAX_LENGTH, "at most " + MAX_LENGTH + " characters", line.length() + "");
        }
        int at = 0;
        while (at < line.length() && Character.isWhitespace(line.charAt(at))) {
            at++;
        }
        int start = at;
        while (at < line.length() && !Character.isWhitespace(line.charAt(at))) {
            char c = line.charAt(at);
            boolean known = c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' || c >= '0' && c <= '9';
            if (!known && c != ':' && c != '*' && c != '?' && c != '_') {
                throw new WireFormatException(
                        at, "a letter, digit, ':', '*' or '?'", "'" + c + "'");
            }
            at++;
        }
        if (start == at) {
            throw new WireFormatException(start, "a command", "an empty line");
        }
        String header = line.substring(start, at).toUpperCase(Locale.ROOT);
        return new ScpiLine(header, parameters(line, at));
    }

    private static List<String> parameters(String line, int start) throws WireFormatException {
        List<String> found = new ArrayList<>();
        StringBuilder current = new StringBuilder();
        char quote = 0;
        for (int i = start; i < line.length(); i++) {
            char c = line.charAt(i);
            if (quote != 0) {
                if (c == quote) {
                    quote = 0;
                } else {
                    current.append(c);
                }
            } else if (c == '"' || c == '\'') {
                quote = c;
            } else if (c == ',') {
                found.add(clean(current));
                current.setLength(0);
            } else {
                current.append(c);
            }
        }
        if (quote != 0) {
            throw new WireFormatException(
                    line.length(), "the closing " + quote, "the end of the line");
        }
        if (!current.toString().isBlank() || !found.isEmpty()) {
            found.add(clean(current));
        }
        return found;
    }

    private static String clean(StringBuilder text) {
        String cleaned = text.toString().trim();
        return cleaned.startsWith("(@") && cleaned.endsWith(")")
                ? cleaned.substring(2, cleaned.length() - 1)
                : cleaned;
    }
}
