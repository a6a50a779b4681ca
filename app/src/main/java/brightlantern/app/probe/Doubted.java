package brightlantern.app.probe;

/**
 * A reading that is asked about before it counts.
 *
 * @param condition id of the one under which it was taken
 * @param question why it is doubted
 */
record Doubted(String condition, double volts, double supplyVolts, String question) {}
