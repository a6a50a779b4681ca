package brightlantern.core.capture;

import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.take.mdf.MdfWriter;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;

/** Captures as files that others read: sound with a channel for each lane, and ASAM MDF 4.10. */
public final class CaptureFiles {
    private static final int BYTES = 2;

    /** Samples of all lanes that are put together in memory. */
    private static final long MOST = 20_000_000;

    private CaptureFiles() {}

    /**
     * Linear PCM of 16 bit: the steps as they were taken, so that a lane's scale and unit have to
     * be kept beside it.
     */
    public static void wav(Capture capture, OutputStream out) throws IOException {
        notLonger(capture, "sound");
        int lanes = capture.lanes().size();
        AudioFormat format =
                new AudioFormat(Math.round(capture.rate()), 8 * BYTES, lanes, true, false);
        ByteBuffer all =
                ByteBuffer.allocate(BYTES * lanes * capture.length())
                        .order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < capture.length(); i++) {
            for (Lane lane : capture.lanes()) {
                all.putShort(lane.steps()[i]);
            }
        }
        try (AudioInputStream sound =
                new AudioInputStream(
                        new ByteArrayInputStream(all.array()), format, capture.length())) {
            AudioSystem.write(sound, AudioFileFormat.Type.WAVE, out);
        }
    }

    /**
     * ASAM MDF 4.10, lanes in their units.
     *
     * @throws IllegalArgumentException when it is too long to be put together
     */
    public static void mdf(Capture capture, Instant began, OutputStream out) throws IOException {
        notLonger(capture, "MDF");
        double[] seconds = new double[capture.length()];
        for (int i = 0; i < seconds.length; i++) {
            seconds[i] = i * capture.interval();
        }
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        List<Value> values = new ArrayList<>();
        for (int l = 0; l < capture.lanes().size(); l++) {
            Lane lane = capture.lanes().get(l);
            String id = "lane-" + (l + 1);
            columns.put(id, new Take.Column(seconds, lane.samples()));
            values.add(
                    new Value(
                            id,
                            "",
                            0,
                            BYTES,
                            true,
                            1,
                            0,
                            lane.name(),
                            lane.unit(),
                            null,
                            2,
                            null,
                            null,
                            null));
        }
        MdfWriter.write(
                new Take(columns, List.of()),
                new Signals(values, List.of(), Optional.empty()),
                began,
                out);
    }

    private static void notLonger(Capture capture, String as) {
        if ((long) capture.length() * capture.lanes().size() > MOST) {
            throw new IllegalArgumentException(
                    "The capture has %d samples in %d lanes; as %s at most %d can be written. Take CFF instead"
                            .formatted(capture.length(), capture.lanes().size(), as, MOST));
        }
    }
}
