package brightlantern.core.signal;

/** The values that the page head needs. */
public record HeadValues(
        String supply,
        String ignition,
        double ignitionOn,
        String engineSpeed,
        String odometer,
        String vinModule) {
    /** Of a vehicle that tells nothing of itself. */
    public static final HeadValues NONE =
            new HeadValues("", "", Double.POSITIVE_INFINITY, "", "", "");
}
