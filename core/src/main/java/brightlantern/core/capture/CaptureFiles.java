package brightlantern.core.capture;

import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.take.mdf.MdfWriter;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
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
import javax.sound.sampled.UnsupportedAudioFileException;

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
     * A lane for each channel of a file of sound (WAV, AIFF or AU; linear PCM of 8 to 32 bit,
     * either end first, or floats), from -1 to 1.
     *
     * @throws IllegalArgumentException says what was expected
     */
    public static Capture sound(byte[] file) {
        try (InputStream in = new ByteArrayInputStream(file);
                AudioInputStream sound = AudioSystem.getAudioInputStream(in)) {
            AudioFormat format = sound.getFormat();
            int channels = format.getChannels();
            if (channels < 1 || channels > Capture.MOST_LANES) {
                throw new IllegalArgumentException(
                        "it has " + channels + " channels; expected 1 to " + Capture.MOST_LANES);
            }
            boolean real = format.getEncoding().equals(AudioFormat.Encoding.PCM_FLOAT);
            boolean unsigned = format.getEncoding().equals(AudioFormat.Encoding.PCM_UNSIGNED);
            boolean whole =
                    unsigned || format.getEncoding().equals(AudioFormat.Encoding.PCM_SIGNED);
            int wide = format.getSampleSizeInBits() / 8;
            if (!(whole && wide >= 1 && wide <= 4 || real && (wide == 4 || wide == 8))
                    || !(format.getFrameRate() > 0)) {
                throw new IllegalArgumentException(
                        "expected linear PCM of 8 to 32 bit or floats, found " + format);
            }
            byte[] bytes = sound.readAllBytes();
            int frames = bytes.length / (wide * channels);
            double[][] lanes = new double[channels][frames];
            for (int i = 0; i < frames; i++) {
                for (int c = 0; c < channels; c++) {
                    int at = (i * channels + c) * wide;
                    double its = sample(bytes, at, wide, format.isBigEndian(), real, unsigned);
                    lanes[c][i] = Double.isFinite(its) ? its : 0;
                }
            }
            List<Lane> all = new ArrayList<>();
            for (int c = 0; c < channels; c++) {
                String name = channels == 1 ? "Sound" : "Channel " + (c + 1);
                all.add(Lane.of(name, LaneRole.OTHER, "", "", lanes[c]));
            }
            return new Capture(1 / (double) format.getFrameRate(), all);
        } catch (UnsupportedAudioFileException | IOException torn) {
            throw new IllegalArgumentException(
                    "expected a file of sound (WAV, AIFF or AU), found one that cannot be read ("
                            + torn.getMessage()
                            + ")",
                    torn);
        }
    }

    private static double sample(
            byte[] bytes, int at, int wide, boolean bigEndian, boolean real, boolean unsigned) {
        long raw = 0;
        for (int b = 0; b < wide; b++) {
            raw = raw << 8 | bytes[bigEndian ? at + b : at + wide - 1 - b] & 0xFF;
        }
        if (real) {
            return wide == 8 ? Double.longBitsToDouble(raw) : Float.intBitsToFloat((int) raw);
        }
        double half = Math.pow(2, 8.0 * wide - 1);
        return unsigned ? raw / half - 1 : (raw << 64 - 8 * wide >> 64 - 8 * wide) / half;
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
