package brightlantern.core.circuit;

import java.util.Locale;
import java.util.OptionalDouble;

/**
 * What a meter showed at a point over a while.
 *
 * @param seconds that it was looked at
 * @param least and most and mean: V
 * @param alternating root mean square of what is not steady, V; empty where the meter cannot tell
 * @param hertz how often it repeats itself; empty where nothing does, or the meter cannot tell
 * @param duty percent of the time that it is high; empty with the same
 */
public record HeldReading(
        double seconds,
        double least,
        double most,
        double mean,
        OptionalDouble alternating,
        OptionalDouble hertz,
        OptionalDouble duty) {
    /** Three phases whose diodes are sound leave less than this on a sound battery, V. */
    private static final double SMOOTH_VOLTS = 0.06;

    /** More than this comes of a diode that is gone, or of a battery that smooths nothing, V. */
    private static final double RIPPLE_VOLTS = 0.1;

    public HeldReading {
        if (!(least <= mean && mean <= most)) {
            throw new IllegalArgumentException(
                    "Held between " + least + " and " + most + " V with a mean of " + mean);
        }
    }

    /** All of it in a sentence, without an end. */
    public String sentence() {
        StringBuilder text =
                new StringBuilder(
                        String.format(
                                Locale.ROOT,
                                "%.2f to %.2f V over %.0f s, %.2f V on the mean",
                                least,
                                most,
                                seconds,
                                mean));
        alternating.ifPresent(
                v -> text.append(String.format(Locale.ROOT, "; %.3f V of it alternates", v)));
        hertz.ifPresent(f -> text.append(String.format(Locale.ROOT, ", %.4g times a second", f)));
        duty.ifPresent(d -> text.append(String.format(Locale.ROOT, ", high for %.0f %% of it", d)));
        return text.toString();
    }

    /**
     * What that says at the battery while its alternator works; empty where it says nothing.
     *
     * @param pointId where it was read
     * @param charging whether the engine runs
     */
    public String means(String pointId, boolean charging) {
        if (!pointId.equals(Circuit.PLUS) || !charging || alternating.isEmpty()) {
            return "";
        }
        double its = alternating.getAsDouble();
        return its > RIPPLE_VOLTS
                ? "A battery smooths what its alternator gives: so much ripple comes of a diode that is gone, or of a battery that smooths nothing any more. A capture of the ripple tells which."
                : its < SMOOTH_VOLTS
                        ? "The battery smooths what its alternator gives, as it should."
                        : "That is more than usual; a capture of the ripple tells more.";
    }
}
