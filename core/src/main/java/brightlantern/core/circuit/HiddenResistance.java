package brightlantern.core.circuit;

import java.util.Locale;

/**
 * The resistance in the path to a probe point, worked out from an unloaded and a loaded reading by
 * the voltage divider.
 *
 * @param ohm best estimate; low and high for the tolerance of the bulb
 */
public record HiddenResistance(double ohm, double low, double high, String sentence) {
    /** Bulbs of one rating differ by so much, and so does the model of their filament. */
    private static final double BULB_TOLERANCE = 0.15;

    /** Below this drop the meter's resolution decides, not the wire. */
    private static final double SMALLEST_DROP_VOLTS = 0.01;

    /**
     * @param poleVolts voltage of the pole that the point should stand at: 0 for earth, the supply
     *     for a supply point
     * @param otherVolts voltage of the pole that the load is hung to
     * @param unloaded and loaded readings against battery minus
     * @throws IllegalArgumentException when no load was hung or a reading is no number
     */
    public static HiddenResistance of(
            double poleVolts, double otherVolts, double unloaded, double loaded, Load load) {
        if (load == Load.NOTHING) {
            throw new IllegalArgumentException("A hidden resistance needs one reading under load");
        }
        if (!Double.isFinite(unloaded) || !Double.isFinite(loaded)) {
            throw new IllegalArgumentException("Both readings must be numbers");
        }
        double drop = Math.abs(loaded - unloaded);
        double across = Math.abs(otherVolts - loaded);
        double bulb = load.ohmAt(across);
        if (across < SMALLEST_DROP_VOLTS) {
            return new HiddenResistance(
                    Double.POSITIVE_INFINITY,
                    bulb * 10,
                    Double.POSITIVE_INFINITY,
                    "The load gets no voltage at all: the path is broken, or nearly so.");
        }
        double ohm = drop < SMALLEST_DROP_VOLTS ? 0 : bulb * drop / across;
        return new HiddenResistance(
                ohm,
                ohm * (1 - BULB_TOLERANCE),
                ohm * (1 + BULB_TOLERANCE),
                String.format(
                        Locale.ROOT,
                        "%.2f V became %.2f V under the %s: about %.2f Ω hide in the path (pole at %.2f V).",
                        unloaded,
                        loaded,
                        load.words(),
                        ohm,
                        poleVolts));
    }
}
