package brightlantern.standin.network;

/**
 * What may be broken on the buses of a stand-in.
 *
 * <p>Each may be there all the time or come and go: {@code badSeconds} is the mean time that it
 * stays bad (infinite: always), {@code goodSeconds} the mean time in between.
 */
public sealed interface WireFault {
    String id();

    double badSeconds();

    double goodSeconds();

    /** Which of the two wires of a bus is hurt. */
    enum Wire {
        HIGH,
        LOW,
        BOTH
    }

    /**
     * @param at how many stations, counted from the gateway, lie before the break
     * @param ohm resistance of the bad place while it is bad
     */
    record Broken(
            String id,
            String bus,
            int at,
            Wire wire,
            double ohm,
            double badSeconds,
            double goodSeconds)
            implements WireFault {}

    /**
     * @param ohm between both wires, or from one of them to earth
     */
    record Shorted(String id, String bus, double ohm, double badSeconds, double goodSeconds)
            implements WireFault {}

    record Dead(String id, String module, double badSeconds, double goodSeconds)
            implements WireFault {}

    record Unfed(String id, String feed, double badSeconds, double goodSeconds)
            implements WireFault {}

    /**
     * The terminating resistor of a bus is missing.
     *
     * @param at station in which it should be
     */
    record Unterminated(String id, String bus, int at, double badSeconds, double goodSeconds)
            implements WireFault {}

    /** A module sends without an end, so that nobody else comes to his turn. */
    record Babbling(String id, String module, double badSeconds, double goodSeconds)
            implements WireFault {}
}
