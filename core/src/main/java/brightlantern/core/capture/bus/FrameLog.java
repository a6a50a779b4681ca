package brightlantern.core.capture.bus;

import java.io.IOException;
import java.io.Writer;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;

/**
 * Frames as lines of text that tools of the trade read: time in seconds since 1970 in brackets, the
 * wire, identifier and bytes in hexadecimal digits with a # between them (the log format of the
 * Linux can-utils).
 */
public final class FrameLog {
    private FrameLog() {}

    /** Between identifier and bytes of one with flexible data rate: # and its flags. */
    private static String flags(CanFrame.Fd fd) {
        return "#" + ((fd.faster() ? 1 : 0) + (fd.passive() ? 2 : 0));
    }

    /**
     * @param began when the capture began
     * @param wire a name without spaces
     * @throws IOException when it cannot be written
     */
    public static void write(List<CanFrame> frames, Instant began, String wire, Writer out)
            throws IOException {
        double start = began.toEpochMilli() / 1000.0;
        for (CanFrame f : frames) {
            out.write(
                    String.format(
                            Locale.ROOT,
                            f.extended() ? "(%.6f) %s %08X#%s%s%n" : "(%.6f) %s %03X#%s%s%n",
                            start + f.seconds(),
                            wire,
                            f.id(),
                            f.fd().map(FrameLog::flags).orElse(""),
                            f.remote() ? "R" : HexFormat.of().withUpperCase().formatHex(f.data())));
        }
    }
}
