package brightlantern.core.circuit;

import java.util.Locale;

/**
 * What a meter should read at a point of the circuit.
 *
 * @param volts against battery minus
 * @param tolerance one standard deviation in volts, of the model, the parts and the supply reading
 *     together
 */
public record ExpectedReading(double volts, double tolerance) {
    /** Resolution and zero of a workshop meter. */
    private static final double METER_VOLTS = 0.015;

    /** The supply is read through a module, which is that far from the battery. */
    private static final double SUPPLY_VOLTS = 0.08;

    /** Motor currents and wire lengths of one type scatter by this much. */
    private static final double PARTS_SHARE = 0.12;

    /** What is open leaks a little, as dirt and damp do. */
    private static final double LEAK_SHARE = 0.005;

    /** Sensors feel something that nobody told, and scatter. */
    private static final double SIGNAL_SHARE = 0.1;

    /** What its module tells, and a meter at its signal reads, are of the same moment, nearly. */
    private static final double TOLD_SHARE = 0.04;

    /** References and bias resistors scatter by so much. */
    private static final double REFERENCE_SHARE = 0.02;

    /**
     * A reading is right when it lies within so many standard deviations, or this much, of the
     * healthy one.
     */
    private static final double DEVIATIONS = 3;

    /**
     * A computed voltage, with how far a right reading may lie from it.
     *
     * @param volts at the point, as computed
     */
    public static ExpectedReading of(
            Circuit circuit, String point, double supplyVolts, double volts) {
        return of(circuit, point, supplyVolts, volts, SIGNAL_SHARE);
    }

    /**
     * The signal of a sensor of which its module tells what it feels.
     *
     * @param volts at the point, as computed from what it tells
     */
    public static ExpectedReading told(
            Circuit circuit, String point, double supplyVolts, double volts) {
        return of(circuit, point, supplyVolts, volts, TOLD_SHARE);
    }

    private static ExpectedReading of(
            Circuit circuit, String point, double supplyVolts, double volts, double scatter) {
        String side = circuit.point(point).side();
        // what a module feeds is a share of what the module has regulated
        boolean fed = side.equals("supply") && circuit.sources().isEmpty();
        double drop = fed ? Math.abs(supplyVolts - volts) : Math.abs(volts);
        double supply = fed ? SUPPLY_VOLTS : 0;
        double parts =
                switch (side) {
                    case "signal" -> divided(circuit, drop, scatter);
                    case "supply" ->
                            fed ? between(drop, supplyVolts) : divided(circuit, drop, PARTS_SHARE);
                    default -> between(drop, supplyVolts);
                };
        return new ExpectedReading(
                volts, Math.sqrt(METER_VOLTS * METER_VOLTS + supply * supply + parts * parts));
    }

    /**
     * How far a drop may move with the parts that divide the supply: where next to all of it is
     * lost, as behind an open switch, the scatter of parts changes nothing (the derivative of a
     * voltage divider).
     */
    private static double between(double drop, double supplyVolts) {
        double left = supplyVolts > 0 ? 1 - drop / supplyVolts : 1;
        return drop * Math.max(LEAK_SHARE, PARTS_SHARE * left);
    }

    /**
     * How far what a reference feeds may move with the parts that divide it: most in the middle,
     * and nothing at either end, where one of them takes no part (the derivative of a voltage
     * divider).
     *
     * @param scatter of the parts, relative
     */
    private static double divided(Circuit circuit, double volts, double scatter) {
        double reference = circuit.sources().stream().mapToDouble(Source::volts).max().orElse(0);
        double share = reference > 0 ? Math.min(1, volts / reference) : 0.5;
        return volts * Math.max(REFERENCE_SHARE, 2 * scatter * (1 - share));
    }

    /**
     * The same where other consumers move the point too.
     *
     * @param others volts by which what nobody told of may move it, one standard deviation
     */
    public ExpectedReading among(double others) {
        return new ExpectedReading(volts, Math.hypot(tolerance, others));
    }

    /** Least reading that counts as right, V. */
    public double low() {
        return volts - DEVIATIONS * tolerance;
    }

    /** Largest reading that counts as right, V. */
    public double high() {
        return volts + DEVIATIONS * tolerance;
    }

    /** Whether a reading, in volts, counts as right. */
    public boolean holds(double reading) {
        return reading >= low() && reading <= high();
    }

    /** The band as people read it, in volts. */
    public String words() {
        return String.format(Locale.ROOT, "%.2f to %.2f V", low(), high());
    }
}
