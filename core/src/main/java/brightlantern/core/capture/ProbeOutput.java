package brightlantern.core.capture;

/**
 * What a probe gives to the instrument that only knows volts: the line of a transducer, or so many
 * millivolts an ampere of a clamp.
 *
 * @param perVolt what one volt more of it means, in the unit of the lane; above 0
 * @param zero volts that it gives where there is nothing of what it feels
 */
public record ProbeOutput(double perVolt, double zero) {
    /** An instrument that tells the unit of the lane by itself, or a lane of volts. */
    public static final ProbeOutput PLAIN = new ProbeOutput(1, 0);

    /**
     * @throws IllegalArgumentException when it is not a line that rises
     */
    public ProbeOutput {
        if (!(perVolt > 0) || !Double.isFinite(perVolt) || !Double.isFinite(zero)) {
            throw new IllegalArgumentException(
                    "A probe of "
                            + perVolt
                            + " a volt with "
                            + zero
                            + " V at zero; expected finite numbers, the first above 0");
        }
    }

    /** Volts that it gives at so much of what it feels. */
    public double volts(double felt) {
        return felt / perVolt + zero;
    }

    /** What it feels where it gives so many volts. */
    public double felt(double volts) {
        return (volts - zero) * perVolt;
    }

    /** Volts to either side that take in all of a range. */
    public double span(double range) {
        return range / perVolt + Math.abs(zero);
    }

    /** What a step of so many volts is worth. */
    public double step(double volts) {
        return volts * perVolt;
    }
}
