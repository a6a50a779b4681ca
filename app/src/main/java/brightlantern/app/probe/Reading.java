package brightlantern.app.probe;

import brightlantern.core.signal.TypedFigure;
import java.util.Locale;

/**
 * A reading at a point.
 *
 * @param volts at the point against battery minus
 * @param supplyVolts at the vehicle meanwhile
 * @param by how it was come by, for the log; empty for the instrument
 */
record Reading(double volts, double supplyVolts, String by) {
    /**
     * As somebody typed it.
     *
     * @throws IllegalArgumentException names the field, what was expected and what was found
     */
    static Reading typed(String volts, String supply) {
        return of(volts, supply, " (typed in)");
    }

    /**
     * One that was asked about, and that somebody stands by.
     *
     * @throws IllegalArgumentException names the field, what was expected and what was found
     */
    static Reading doubted(String volts, String supply) {
        return of(volts, supply, " (asked about, and kept)");
    }

    private static Reading of(String volts, String supply, String by) {
        return new Reading(
                number("Reading", volts, -20, 60), number("Supply voltage", supply, 6, 18), by);
    }

    private static double number(String field, String text, double low, double high) {
        double value = TypedFigure.of(field, text, "V");
        if (!(value >= low && value <= high)) {
            throw new IllegalArgumentException(
                    String.format(
                            Locale.ROOT,
                            "%s: expected %.0f to %.0f V, found '%s'.",
                            field,
                            low,
                            high,
                            text));
        }
        return value;
    }
}
