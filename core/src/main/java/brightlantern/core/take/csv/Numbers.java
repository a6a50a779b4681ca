package brightlantern.core.take.csv;

import java.util.regex.Pattern;

/** Decimal numbers out of a buffer of characters, without making a text of each. */
final class Numbers {
    private static final double[] POWERS = new double[23];

    static {
        POWERS[0] = 1;
        for (int i = 1; i < POWERS.length; i++) {
            POWERS[i] = POWERS[i - 1] * 10;
        }
    }

    /** More digits than this do not fit a double exactly. */
    private static final int EXACT_DIGITS = 15;

    /** Thousands set apart, by comma or point, apostrophe or a space of any kind. */
    private static final Pattern GROUPED_POINT =
            Pattern.compile("[-+]?\\d{1,3}(?:[,' \u00A0\u202F]\\d{3})+(?:\\.\\d+)?");

    private static final Pattern GROUPED_COMMA =
            Pattern.compile("[-+]?\\d{1,3}(?:[.' \u00A0\u202F]\\d{3})+(?:,\\d+)?");

    private Numbers() {}

    /** Whether a text is a number with its thousands set apart. */
    static boolean isGrouped(String text, boolean decimalComma) {
        return (decimalComma ? GROUPED_COMMA : GROUPED_POINT).matcher(text).matches();
    }

    /**
     * The number, or NaN when it is none. Exact: with up to 15 digits and a power of ten up to 22
     * one multiplication or division of two exact doubles rounds correctly (Clinger's fast path);
     * the rest goes the slow way.
     */
    static double parse(char[] buffer, int offset, int length, boolean decimalComma) {
        int at = offset;
        int end = offset + length;
        while (at < end && buffer[at] == ' ') {
            at++;
        }
        while (end > at && buffer[end - 1] == ' ') {
            end--;
        }
        if (at == end) {
            return Double.NaN;
        }
        int start = at;
        boolean negative = buffer[at] == '-';
        if (negative || buffer[at] == '+') {
            at++;
        }
        char point = decimalComma ? ',' : '.';
        long digits = 0;
        int count = 0;
        int after = 0;
        boolean pointSeen = false;
        for (; at < end; at++) {
            char c = buffer[at];
            if (c >= '0' && c <= '9') {
                digits = digits * 10 + (c - '0');
                count += count > 0 || c != '0' ? 1 : 0;
                after += pointSeen ? 1 : 0;
                if (count > EXACT_DIGITS) {
                    return slow(buffer, start, end, decimalComma);
                }
            } else if (c == point && !pointSeen) {
                pointSeen = true;
            } else {
                return slow(buffer, start, end, decimalComma);
            }
        }
        if (at - start == (negative || buffer[start] == '+' ? 1 : 0) + (pointSeen ? 1 : 0)
                || after >= POWERS.length) {
            return slow(buffer, start, end, decimalComma);
        }
        double value = digits / POWERS[after];
        return negative ? -value : value;
    }

    private static double slow(char[] buffer, int start, int end, boolean decimalComma) {
        String text = new String(buffer, start, end - start);
        Pattern grouped = decimalComma ? GROUPED_COMMA : GROUPED_POINT;
        if (grouped.matcher(text).matches()) {
            text = text.replaceAll(decimalComma ? "[.' \u00A0\u202F]" : "[,' \u00A0\u202F]", "");
        }
        if (decimalComma) {
            text = text.replace(',', '.');
        }
        char last = text.charAt(text.length() - 1);
        if (last == 'd' || last == 'D' || last == 'f' || last == 'F') {
            // Java takes these for numbers; nobody who writes a log means them
            return Double.NaN;
        }
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException none) {
            return Double.NaN;
        }
    }
}
