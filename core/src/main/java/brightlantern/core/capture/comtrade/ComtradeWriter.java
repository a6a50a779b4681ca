package brightlantern.core.capture.comtrade;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Lane;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/**
 * Writes a capture as one file of IEEE C37.111-2013 (clause 5.5): its configuration, and the steps
 * of its lanes as 16 bit numbers, as they were taken.
 */
public final class ComtradeWriter {
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("dd/MM/yyyy,HH:mm:ss.SSSSSS", Locale.ROOT)
                    .withZone(ZoneOffset.UTC);

    /** The least number stands for a sample that is missing, so none is that small. */
    private static final short LEAST = -32767;

    private ComtradeWriter() {}

    /**
     * @param name of what was recorded
     * @param began when it began
     */
    public static void write(Capture capture, String name, Instant began, OutputStream out)
            throws IOException {
        out.write(
                ("--- file type: CFG ---\r\n" + configuration(capture, name, began))
                        .getBytes(StandardCharsets.UTF_8));
        int wide = 8 + 2 * capture.lanes().size();
        out.write(
                "--- file type: DAT BINARY: %d ---\r\n"
                        .formatted((long) wide * capture.length())
                        .getBytes(StandardCharsets.US_ASCII));
        ByteBuffer sample = ByteBuffer.allocate(wide).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < capture.length(); i++) {
            sample.clear();
            sample.putInt(i + 1).putInt((int) Math.round(i * capture.interval() * 1e6));
            for (Lane lane : capture.lanes()) {
                sample.putShort((short) Math.max(LEAST, lane.steps()[i]));
            }
            out.write(sample.array());
        }
    }

    private static String configuration(Capture capture, String name, Instant began) {
        StringBuilder text = new StringBuilder(plain(name, 64)).append(",Bright Lantern,2013\r\n");
        int lanes = capture.lanes().size();
        text.append("%d,%dA,0D\r\n".formatted(lanes, lanes));
        for (int i = 0; i < lanes; i++) {
            Lane lane = capture.lanes().get(i);
            text.append(
                    "%d,%s,,%s,%s,%s,%s,0,%d,32767,1,1,S\r\n"
                            .formatted(
                                    i + 1,
                                    plain(lane.name(), 128),
                                    plain(lane.place(), 64),
                                    plain(lane.unit(), 32),
                                    lane.scale(),
                                    lane.offset(),
                                    LEAST));
        }
        // no line frequency; one rate
        text.append("0\r\n1\r\n%s,%d\r\n".formatted(capture.rate(), capture.length()));
        text.append(TIME.format(began)).append("\r\n").append(TIME.format(began)).append("\r\n");
        return text.append("BINARY\r\n1\r\n0,0\r\n0,0\r\n").toString();
    }

    /** Commas and ends of lines part fields. */
    private static String plain(String text, int most) {
        String one = text.replaceAll("[,\\p{Cntrl}]", " ").trim();
        return one.substring(0, Math.min(most, one.length()));
    }
}
