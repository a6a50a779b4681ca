package brightlantern.core.capture;

import brightlantern.core.signal.Words;
import java.io.IOException;
import java.io.Writer;
import java.util.Locale;

/** A capture as CSV (RFC 4180): seconds, then a column for each lane with its unit in the head. */
public final class CaptureCsv {
    private CaptureCsv() {}

    public static void write(Capture capture, Writer out) throws IOException {
        StringBuilder line = new StringBuilder("Time [s]");
        for (Lane lane : capture.lanes()) {
            String head =
                    lane.unit().isEmpty() ? lane.name() : lane.name() + " [" + lane.unit() + "]";
            line.append(",\"").append(Words.harmless(head).replace("\"", "\"\"")).append('"');
        }
        out.append(line.append("\r\n"));
        for (int i = 0; i < capture.length(); i++) {
            line.setLength(0);
            line.append(String.format(Locale.ROOT, "%.7f", i * capture.interval()));
            for (Lane lane : capture.lanes()) {
                line.append(',').append((float) lane.at(i));
            }
            out.append(line.append("\r\n"));
        }
    }
}
