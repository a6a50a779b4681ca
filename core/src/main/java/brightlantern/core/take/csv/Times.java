package brightlantern.core.take.csv;

import brightlantern.core.take.csv.Dialect.Clock;
import brightlantern.core.take.csv.Dialect.DateOrder;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Times of day and dates as logs write them (ISO 8601 among them). */
final class Times {
    private static final String DAY_HALF = "(?:\\s*([AaPp])\\.?[Mm]\\.?)?";
    private static final Pattern CLOCK =
            Pattern.compile("(\\d{1,3}):(\\d{2})(?::(\\d{2}))?(?:[.,](\\d+))?" + DAY_HALF);
    private static final Pattern STAMP =
            Pattern.compile(
                    "(\\d{1,4})([-/.])(\\d{1,2})\\2(\\d{1,4})(?:[T, ]\\s*)"
                            + "(\\d{1,2}):(\\d{2})(?::(\\d{2})(?:[.,:](\\d+))?)?"
                            + DAY_HALF
                            + "\\s*(Z|[+-]\\d{2}:?\\d{2})?");

    private Times() {}

    static boolean isClock(String field) {
        return CLOCK.matcher(field).matches();
    }

    static boolean isStamp(String field) {
        return STAMP.matcher(field).matches();
    }

    /** Whether a clock of two parts has a fraction, so that it is minutes and seconds. */
    static boolean isMinutes(String field) {
        Matcher m = CLOCK.matcher(field);
        return m.matches() && m.group(3) == null && m.group(4) != null;
    }

    /**
     * Seconds of a day, or since the recording began.
     *
     * @return NaN when it is none
     */
    static double clock(String text, Clock kind) {
        Matcher m = CLOCK.matcher(text.trim());
        if (!m.matches()) {
            return Double.NaN;
        }
        double first = Double.parseDouble(m.group(1));
        double second = Double.parseDouble(m.group(2));
        double fraction = fraction(m.group(4));
        if (m.group(3) == null && kind == Clock.MINUTES_SECONDS) {
            return first * 60 + second + fraction;
        }
        double third = m.group(3) == null ? 0 : Double.parseDouble(m.group(3));
        return hours(first, m.group(5)) * 3600 + second * 60 + third + fraction;
    }

    private static double fraction(String digits) {
        return digits == null ? 0 : Double.parseDouble("0." + digits);
    }

    /** Noon is 12 PM, midnight is 12 AM. */
    private static double hours(double told, String half) {
        return half == null ? told : told % 12 + (half.equalsIgnoreCase("p") ? 12 : 0);
    }

    /** Which of the numbers of a date is the year, month and day; empty when it may be either. */
    static Optional<DateOrder> order(String text) {
        Matcher m = STAMP.matcher(text.trim());
        if (!m.matches()) {
            return Optional.empty();
        }
        if (m.group(1).length() == 4) {
            return Optional.of(DateOrder.YEAR_FIRST);
        }
        int first = Integer.parseInt(m.group(1));
        int second = Integer.parseInt(m.group(3));
        return first > 12 || m.group(2).equals(".")
                ? Optional.of(DateOrder.DAY_FIRST)
                : second > 12 ? Optional.of(DateOrder.MONTH_FIRST) : Optional.empty();
    }

    /**
     * Seconds since 1970, with the offset that stands behind it, or in the zone where none does.
     *
     * @return NaN when it is no date with a time
     */
    static double stamp(String text, DateOrder order, ZoneId zone) {
        Matcher m = STAMP.matcher(text.trim());
        if (!m.matches()) {
            return Double.NaN;
        }
        int a = Integer.parseInt(m.group(1));
        int b = Integer.parseInt(m.group(3));
        int c = Integer.parseInt(m.group(4));
        boolean yearFirst = m.group(1).length() == 4;
        int year = yearFirst ? a : c < 100 ? 2000 + c : c;
        int month = yearFirst ? b : order == DateOrder.MONTH_FIRST ? a : b;
        int day = yearFirst ? c : order == DateOrder.MONTH_FIRST ? b : a;
        try {
            LocalDateTime time =
                    LocalDateTime.of(
                            year,
                            month,
                            day,
                            (int) hours(Integer.parseInt(m.group(5)), m.group(9)),
                            Integer.parseInt(m.group(6)),
                            m.group(7) == null ? 0 : Integer.parseInt(m.group(7)));
            long seconds =
                    m.group(10) == null
                            ? time.atZone(zone).toEpochSecond()
                            : time.toEpochSecond(ZoneOffset.of(m.group(10)));
            return seconds + fraction(m.group(8));
        } catch (DateTimeException none) {
            return Double.NaN;
        }
    }
}
