package brightlantern.standin.instrument;

import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Error queue and status registers of one client (IEEE 488.2, clause 11; SCPI-1999, volume 1,
 * clause 9 and volume 2, clause 21.8).
 */
public final class StatusModel {
    private static final int QUEUE = 20;

    private static final int OPERATION_COMPLETE = 1;
    private static final int EXECUTION_ERROR = 1 << 4;
    private static final int COMMAND_ERROR = 1 << 5;
    private static final int POWER_ON = 1 << 7;

    private static final int ERRORS_QUEUED = 1 << 2;
    private static final int EVENT_SUMMARY = 1 << 5;
    private static final int MASTER_SUMMARY = 1 << 6;

    private final Deque<String> errors = new ArrayDeque<>();
    private int events = POWER_ON;
    private int eventsEnabled;
    private int serviceEnabled;

    /**
     * @param number −1xx for what is not understood, −2xx for what cannot be done
     */
    public void error(int number, String text) {
        events |= number > -200 ? COMMAND_ERROR : EXECUTION_ERROR;
        if (errors.size() >= QUEUE) {
            errors.pollLast();
            errors.add("-350,\"Queue overflow\"");
        } else {
            errors.add(number + ",\"" + text.replace('"', '\'') + "\"");
        }
    }

    /** The oldest error, which leaves the queue. */
    public String nextError() {
        return errors.isEmpty() ? "0,\"No error\"" : errors.poll();
    }

    /** *CLS */
    void clear() {
        errors.clear();
        events = 0;
    }

    /** *OPC: all that was asked for is done at once. */
    void complete() {
        events |= OPERATION_COMPLETE;
    }

    /** *ESR?: the events, which are gone then. */
    int takeEvents() {
        int taken = events;
        events = 0;
        return taken;
    }

    /** *ESE */
    void enableEvents(int mask) {
        eventsEnabled = mask;
    }

    /** *ESE? */
    int eventsEnabled() {
        return eventsEnabled;
    }

    /** *SRE; bit 6 cannot be enabled. */
    void enableService(int mask) {
        serviceEnabled = mask & ~MASTER_SUMMARY;
    }

    /** *SRE? */
    int serviceEnabled() {
        return serviceEnabled;
    }

    /** *STB? */
    int statusByte() {
        int status =
                (errors.isEmpty() ? 0 : ERRORS_QUEUED)
                        | ((events & eventsEnabled) == 0 ? 0 : EVENT_SUMMARY);
        return status | ((status & serviceEnabled) == 0 ? 0 : MASTER_SUMMARY);
    }
}
