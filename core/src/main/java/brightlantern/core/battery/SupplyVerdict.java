package brightlantern.core.battery;

/**
 * What the supply voltage of a 12 V vehicle allows, in words.
 *
 * @param good false when something should be done before long work
 */
public record SupplyVerdict(boolean good, String words) {
    /**
     * A lead-acid battery at rest holds about half its charge at this voltage (EN 50342-1, open
     * circuit at 25 °C).
     */
    public static final double HALF_CHARGED_VOLTS = 12.2;

    /** Below this, modules begin to set low-supply codes and set-ups fail. */
    public static final double TOO_LOW_VOLTS = 11.5;

    /** From here on something charges: engine or charger. */
    public static final double CHARGING_VOLTS = 13.0;

    /** Above this, a charger or regulator is at fault. */
    public static final double TOO_HIGH_VOLTS = 15.2;

    /**
     * @param volts NaN when not known
     */
    public static SupplyVerdict of(double volts, boolean engineRuns) {
        if (Double.isNaN(volts)) {
            return new SupplyVerdict(false, "Supply voltage is not known.");
        }
        if (volts > TOO_HIGH_VOLTS) {
            return new SupplyVerdict(
                    false, "Too high: check charger and regulator before going on.");
        }
        if (volts < TOO_LOW_VOLTS) {
            return new SupplyVerdict(
                    false, "Too low: connect a charger before sweeping or testing.");
        }
        if (engineRuns && volts < CHARGING_VOLTS) {
            return new SupplyVerdict(
                    false, "The engine runs and nothing charges: check the alternator.");
        }
        if (volts >= CHARGING_VOLTS) {
            return new SupplyVerdict(true, engineRuns ? "Charging." : "Charger connected.");
        }
        return volts < HALF_CHARGED_VOLTS
                ? new SupplyVerdict(false, "Low, and no charger: connect one before long work.")
                : new SupplyVerdict(true, "Enough for short work; no charger connected.");
    }
}
