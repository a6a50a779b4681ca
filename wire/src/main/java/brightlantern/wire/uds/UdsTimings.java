package brightlantern.wire.uds;

import java.time.Duration;

/**
 * Client timings of ISO 14229-2: P2 is the wait for a first answer, P2* the wait after a "response
 * pending" (0x78), S3 the time after which a module falls back to its default session.
 *
 * @param pendingLimit how long a chain of 0x78 is borne altogether
 * @param busyRetries how often a 0x21 is asked again
 */
public record UdsTimings(
        Duration p2,
        Duration p2Star,
        Duration s3,
        Duration pendingLimit,
        int busyRetries,
        Duration busyPause) {
    private static final long PATIENT_SECONDS = 90;
    private static final long HASTY_SECONDS = 2;

    /** P2 with room for a gateway, P2* and S3 by ISO 14229-2:2013 table 4. */
    public static final UdsTimings STANDARD =
            new UdsTimings(
                    Duration.ofMillis(1000),
                    Duration.ofMillis(5000),
                    Duration.ofMillis(5000),
                    Duration.ofSeconds(30),
                    5,
                    Duration.ofMillis(60));

    /** For what a module may work on for long: routines and writing. */
    public UdsTimings patient() {
        return bearing(Duration.ofSeconds(PATIENT_SECONDS));
    }

    /** For whoever leaves: what is not answered soon ends with the session anyway. */
    public UdsTimings hasty() {
        return bearing(Duration.ofSeconds(HASTY_SECONDS));
    }

    private UdsTimings bearing(Duration limit) {
        return new UdsTimings(p2, p2Star, s3, limit, busyRetries, busyPause);
    }

    /** The same with another time to wait for the beginning of an answer. */
    public UdsTimings withP2(Duration other) {
        return new UdsTimings(other, p2Star, s3, pendingLimit, busyRetries, busyPause);
    }
}
