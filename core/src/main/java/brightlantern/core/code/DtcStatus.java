package brightlantern.core.code;

import java.util.ArrayList;
import java.util.List;

/**
 * The status byte of a code, ISO 14229-1:2013 annex D.2.
 *
 * @param bits 0..255
 */
public record DtcStatus(int bits) {
    public static final int FAILS_NOW = 0x01;
    public static final int FAILED_THIS_CYCLE = 0x02;
    public static final int PENDING = 0x04;
    public static final int CONFIRMED = 0x08;
    public static final int NOT_RUN_SINCE_CLEAR = 0x10;
    public static final int FAILED_SINCE_CLEAR = 0x20;
    public static final int NOT_RUN_THIS_CYCLE = 0x40;
    public static final int LAMP = 0x80;

    /** Bit 7 of the status byte: warningIndicatorRequested (ISO 14229-1, D.2). */
    public boolean asksForLamp() {
        return (bits & LAMP) != 0;
    }

    /** What the code amounts to at present, strongest first. */
    public enum Standing {
        FAILS_NOW("fails now"),
        CONFIRMED("confirmed, not failing now"),
        PENDING("pending"),
        HISTORY("failed once since the last clear"),
        QUIET("no failure");

        private final String words;

        Standing(String words) {
            this.words = words;
        }

        /** What the status says, in words. */
        public String words() {
            return words;
        }
    }

    /** Whether a bit of the status byte is set. */
    public boolean has(int bit) {
        return (bits & bit) != 0;
    }

    /** What the status comes to. */
    public Standing standing() {
        if (has(FAILS_NOW)) {
            return Standing.FAILS_NOW;
        }
        if (has(CONFIRMED)) {
            return Standing.CONFIRMED;
        }
        if (has(PENDING)) {
            return Standing.PENDING;
        }
        return has(FAILED_SINCE_CLEAR) || has(FAILED_THIS_CYCLE)
                ? Standing.HISTORY
                : Standing.QUIET;
    }

    /** The byte told in words, one phrase for each thing it says. */
    public List<String> words() {
        List<String> words = new ArrayList<>();
        words.add(standing().words());
        if (has(FAILED_THIS_CYCLE) && !has(FAILS_NOW)) {
            words.add("failed in this key cycle");
        }
        if (has(NOT_RUN_THIS_CYCLE)) {
            words.add("test not yet run in this key cycle");
        }
        if (has(NOT_RUN_SINCE_CLEAR)) {
            words.add("test not run since the last clear");
        }
        if (has(LAMP)) {
            words.add("asks for the warning lamp");
        }
        return words;
    }
}
