package brightlantern.core.signal;

import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A figure as people type it from an instrument: "47 mV", "1,2k", "-0.3". */
public final class TypedFigure {
    private static final Pattern FIGURE =
            Pattern.compile("([+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][+-]?\\d{1,3})?)\\s*(.*)");

    private static final Pattern OVER = Pattern.compile("[+-]?\\s*(?i:o\\.?l\\.?|over(load)?)");

    /** Of SI (BIPM brochure, table 7), those that meters show. */
    private static final Map<String, Double> PREFIXES =
            Map.of("µ", 1e-6, "u", 1e-6, "m", 1e-3, "k", 1e3, "K", 1e3, "M", 1e6);

    /** Units of which people name parts and multiples; others are taken as they are. */
    private static final Set<String> PREFIXED = Set.of("V", "A", "Ω", "Hz");

    private TypedFigure() {}

    /**
     * Whether it says that more comes than the instrument can tell, as of ohms where nothing is.
     */
    public static boolean isOverload(String text) {
        return OVER.matcher(text.trim()).matches();
    }

    /**
     * @param field what it is, for the message
     * @param unit in which it is wanted; it may stand behind the figure, of an electrical one with
     *     a prefix
     * @return the figure in that unit
     * @throws IllegalArgumentException names the field, what was expected and what was found
     */
    public static double of(String field, String text, String unit) {
        String typed = text.trim().replace(',', '.').replace('\u2212', '-');
        if (OVER.matcher(typed).matches()) {
            throw new IllegalArgumentException(
                    field
                            + ": '"
                            + text.trim()
                            + "' says that the range of the instrument is too small, or that it touches nothing; choose a larger range and read again.");
        }
        Matcher figure = FIGURE.matcher(typed);
        if (figure.matches()) {
            double value = Double.parseDouble(figure.group(1)) * factor(figure.group(2), unit);
            if (Double.isFinite(value)) {
                return value;
            }
        }
        throw new IllegalArgumentException(
                String.format(
                        Locale.ROOT,
                        "%s: expected a number in %s%s, found '%s'.",
                        field,
                        unit,
                        example(unit),
                        text.trim()));
    }

    private static String example(String unit) {
        if (!PREFIXED.contains(unit)) {
            return "";
        }
        return unit.equals("Ω") ? ", such as 1200 or 1.2 kΩ" : ", such as 0.047 or 47 m" + unit;
    }

    /** What stands behind the figure, as a factor; NaN for what is no unit of this kind. */
    private static double factor(String behind, String unit) {
        String rest = behind.trim();
        if (rest.isEmpty() || rest.equalsIgnoreCase(unit)) {
            return 1;
        }
        if (!PREFIXED.contains(unit)) {
            return Double.NaN;
        }
        double prefix = PREFIXES.getOrDefault(rest.substring(0, 1), Double.NaN);
        String after = rest.substring(1).trim();
        return after.isEmpty() || after.equalsIgnoreCase(unit) ? prefix : Double.NaN;
    }
}
