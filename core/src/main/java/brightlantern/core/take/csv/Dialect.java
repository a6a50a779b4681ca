package brightlantern.core.take.csv;

import java.nio.charset.Charset;
import java.util.List;
import java.util.Optional;

/**
 * How a file is written.
 *
 * @param headLine lines before the names; -1 when there are no names
 * @param unitRow whether a line of units follows the names
 * @param dates which number of a date comes first
 * @param columns all of them, in the file's order
 */
public record Dialect(
        Charset charset,
        char separator,
        boolean decimalComma,
        int headLine,
        boolean unitRow,
        DateOrder dates,
        List<Column> columns) {
    public Dialect {
        columns = List.copyOf(columns);
    }

    /** What a column is for. */
    public enum Role {
        TIME,
        VALUE,
        STATE,
        MARK,
        EMPTY
    }

    /** How a time is written. */
    public enum Clock {
        SECONDS("seconds"),
        MILLIS("milliseconds"),
        MICROS("microseconds"),
        MINUTES("minutes"),
        CLOCK("time of day, h:mm:ss"),
        MINUTES_SECONDS("minutes and seconds, mm:ss"),
        TIMESTAMP("date and time");

        private final String words;

        Clock(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }

        /** Whether it is written as one number. */
        boolean isNumber() {
            return this == SECONDS || this == MILLIS || this == MICROS || this == MINUTES;
        }

        /** Seconds for each one of a number. */
        double seconds() {
            return switch (this) {
                case MILLIS -> 1e-3;
                case MICROS -> 1e-6;
                case MINUTES -> 60;
                default -> 1;
            };
        }
    }

    /** Which number of a date comes first. */
    public enum DateOrder {
        YEAR_FIRST("year first"),
        DAY_FIRST("day first"),
        MONTH_FIRST("month first");

        private final String words;

        DateOrder(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }
    }

    /**
     * @param unit as it stands in the file; empty when there is none
     * @param clock of a time column
     * @param time index of the column that holds the times of this one; -1 without any
     */
    public record Column(
            int index, String name, String unit, Role role, Optional<Clock> clock, int time) {}

    /** The first line with data, from 0. */
    int dataLine() {
        return headLine + 1 + (unitRow ? 1 : 0);
    }
}
