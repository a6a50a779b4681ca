package brightlantern.core.signal;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Small things of language, so that sentences read as people write them. */
public final class Words {
    /** A probability as people read it; no evidence makes anything quite certain. */
    public static String percent(double share) {
        return share > 0.99
                ? "over 99 %"
                : share < 0.01 ? "under 1 %" : String.format(Locale.ROOT, "%.0f %%", 100 * share);
    }

    /** Characters at the beginning of a cell that a spreadsheet takes for a formula (OWASP). */
    private static final String FORMULA = "=+-@\t\r";

    /** Stands for a character that would move a cursor or end a line where none may. */
    private static final char UNSEEN = '\u00B7';

    /** A text of a vehicle or a file without control characters. */
    public static String plain(String text) {
        StringBuilder plain = new StringBuilder(text.length());
        text.chars().forEach(c -> plain.append(Character.isISOControl(c) ? UNSEEN : (char) c));
        return plain.toString();
    }

    /** A cell that a spreadsheet would take for a formula is marked as a text. */
    public static String harmless(String cell) {
        String plain = plain(cell);
        return !cell.isEmpty() && FORMULA.indexOf(cell.charAt(0)) >= 0 ? "'" + plain : plain;
    }

    /** What a cell said before it was marked ({@link #harmless}). */
    public static String asMeant(String cell) {
        return cell.length() > 1 && cell.charAt(0) == '\'' && FORMULA.indexOf(cell.charAt(1)) >= 0
                ? cell.substring(1)
                : cell;
    }

    private static final Pattern COUNTED = Pattern.compile("(\\d+) ([a-z ]+?)\\(s\\)");

    private Words() {}

    /** A number with its noun: {@code 1 module}, {@code 3 modules}. */
    public static String count(long number, String noun) {
        return counted(number + " " + noun + "(s)");
    }

    /** A sentence in which every {@code 3 noun(s)} became singular or plural. */
    public static String counted(String text) {
        return COUNTED.matcher(text)
                .replaceAll(
                        m ->
                                Matcher.quoteReplacement(
                                        m.group(1)
                                                + " "
                                                + (m.group(1).equals("1")
                                                        ? m.group(2)
                                                        : plural(m.group(2)))));
    }

    private static String plural(String noun) {
        return noun.endsWith("y") && !noun.endsWith("ay") && !noun.endsWith("ey")
                ? noun.substring(0, noun.length() - 1) + "ies"
                : noun + "s";
    }
}
