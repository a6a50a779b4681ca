package brightlantern.core.circuit;

/**
 * The wire of a lamp: its resistance grows about with the root of the voltage across it, between
 * cold and as hot as it bears. With r its share of the nominal resistance and m that of what is in
 * its way, r·(r + m) = V/12; its current is 12·r/R.
 *
 * @param ohm R at its nominal voltage
 * @param more ohms in its way
 */
record Filament(double ohm, double more) {
    /** Volts at which its rating holds. */
    static final double NOMINAL_VOLTS = 12;

    /** A cold filament has a fifth of its hot resistance. */
    static final double COLDEST = 0.2;

    private static final double HOTTEST = Math.sqrt(2);

    /**
     * Its share of its nominal resistance.
     *
     * @param volts across it and what is in its way, of either sign
     */
    double hot(double volts) {
        double share = Math.abs(volts) / NOMINAL_VOLTS;
        double m = more / ohm;
        // the root in the form that loses no digits while much is in the way
        double hot = share == 0 ? 0 : 2 * share / (m + Math.sqrt(m * m + 4 * share));
        return Math.max(COLDEST, Math.min(HOTTEST, hot));
    }

    /** As hot as a voltage makes it, whatever the next one is. */
    void stamp(Equations into, String a, String b, double volts) {
        into.resistor(a, b, ohm * hot(volts) + more);
    }

    /**
     * Its current at a voltage, and how that changes with it (Newton). From the cold on the current
     * bends down only, so that rounds come near from one side.
     *
     * @param volts NaN where they are not known yet
     */
    void tangent(Equations into, String a, String b, double volts) {
        double at = Double.isNaN(volts) ? 0 : volts;
        double hot = hot(at);
        if (hot <= COLDEST || hot >= HOTTEST) {
            stamp(into, a, b, at);
            return;
        }
        double siemens = 1 / (2 * ohm * hot + more);
        into.current(a, b, Math.signum(at) * NOMINAL_VOLTS * hot / ohm - siemens * at, siemens);
    }
}
