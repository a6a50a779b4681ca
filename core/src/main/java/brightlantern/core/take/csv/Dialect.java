package brightlantern.core.take.csv;

import java.nio.charset.Charset;
import java.util.List;
import java.util.Optional;

/**
 * How a file is written.
 *
 * @param headLine lines before the names; -1 when there are no names
 * @param unitRow whether a line of units follows the names
 * @param columns all of them, in the file's order
 */
public record Dialect(
        Charset charset,
        char separator,
        boolean decimalComma,
        int headLine,
        boolean unitRow,
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
        SECONDS,
        MILLIS,
        CLOCK,
        TIMESTAMP
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
