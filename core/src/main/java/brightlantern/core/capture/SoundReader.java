package brightlantern.core.capture;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.UnsupportedAudioFileException;

/**
 * Lanes out of a file of sound (WAV, AIFF or AU; linear PCM of 8 to 32 bit, either end first, or
 * floats), one for each channel, from -1 to 1. Up to 16 bits are kept to the bit.
 */
public final class SoundReader {
    /** Samples of all channels: more would not go beside the rest of a shift into memory. */
    private static final long MOST = 100_000_000;

    private static final int FRAMES_AT_ONCE = 1 << 14;

    /** A lane holds steps of so many bits. */
    private static final int EXACT_BYTES = 2;

    /** Wider samples are rounded to so many steps of what they span. */
    private static final double STEPS = 65_000;

    private final AudioFormat format;
    private final int channels;
    private final int wide;
    private final boolean real;
    private final boolean unsigned;

    private SoundReader(AudioFormat format) {
        this.format = format;
        channels = format.getChannels();
        if (channels < 1 || channels > Capture.MOST_LANES) {
            throw new IllegalArgumentException(
                    "it has " + channels + " channels; expected 1 to " + Capture.MOST_LANES);
        }
        real = format.getEncoding().equals(AudioFormat.Encoding.PCM_FLOAT);
        unsigned = format.getEncoding().equals(AudioFormat.Encoding.PCM_UNSIGNED);
        wide = format.getSampleSizeInBits() / 8;
        boolean whole = unsigned || format.getEncoding().equals(AudioFormat.Encoding.PCM_SIGNED);
        if (!(whole && wide >= 1 && wide <= 4 || real && (wide == 4 || wide == 8))
                || !(format.getFrameRate() > 0)) {
            throw new IllegalArgumentException(
                    "expected linear PCM of 8 to 32 bit or floats, found " + format);
        }
    }

    /** Where the file is read from, as often as it is opened. */
    private interface Source {
        InputStream open() throws IOException;
    }

    /** Takes the samples of a part: their bytes, and how many frames they are. */
    private interface Part {
        void take(byte[] bytes, int frames);
    }

    /**
     * @throws IllegalArgumentException says what was expected
     * @throws IOException when the file cannot be read at all
     */
    public static Capture read(Path file) throws IOException {
        return read(() -> new BufferedInputStream(Files.newInputStream(file), 1 << 16));
    }

    /**
     * The same of a file in memory.
     *
     * @throws IllegalArgumentException says what was expected
     */
    public static Capture read(byte[] file) {
        try {
            return read(() -> new ByteArrayInputStream(file));
        } catch (IOException torn) {
            throw unreadable(torn);
        }
    }

    private static IllegalArgumentException unreadable(Exception why) {
        return new IllegalArgumentException(
                "expected a file of sound (WAV, AIFF or AU), found one that cannot be read ("
                        + why.getMessage()
                        + ")",
                why);
    }

    private static Capture read(Source source) throws IOException {
        AudioFormat format;
        try (InputStream in = source.open();
                AudioInputStream sound = AudioSystem.getAudioInputStream(in)) {
            format = sound.getFormat();
        } catch (UnsupportedAudioFileException torn) {
            throw unreadable(torn);
        }
        return new SoundReader(format).lanes(source);
    }

    /** What a file claims of its length is not believed: its frames are counted first. */
    private Capture lanes(Source source) throws IOException {
        Span[] spans = new Span[channels];
        Arrays.setAll(spans, c -> new Span());
        int[] frames = {0};
        each(
                source,
                (bytes, count) -> {
                    frames[0] += count;
                    if ((long) frames[0] * channels > MOST) {
                        throw new IllegalArgumentException(
                                "it has more than %d million samples in %d channels, which are the most that are taken; bring in a part of it, or fewer channels"
                                        .formatted(MOST / 1_000_000, channels));
                    }
                    for (int i = 0; i < count * channels && wide > EXACT_BYTES; i++) {
                        spans[i % channels].holds(sample(bytes, i * wide));
                    }
                });
        short[][] steps = new short[channels][frames[0]];
        int[] at = {0};
        each(
                source,
                (bytes, count) -> {
                    for (int c = 0; c < channels; c++) {
                        fill(steps[c], at[0], bytes, c, count, spans[c]);
                    }
                    at[0] += count;
                });
        List<Lane> all = new ArrayList<>();
        for (int c = 0; c < channels; c++) {
            String name = channels == 1 ? "Sound" : "Channel " + (c + 1);
            boolean exact = wide <= EXACT_BYTES;
            double scale = exact ? Math.pow(2, 1 - 8.0 * wide) : spans[c].scale();
            double offset = exact ? 0 : spans[c].middle();
            all.add(new Lane(name, LaneRole.OTHER, "", "", scale, offset, steps[c]));
        }
        return new Capture(1 / (double) format.getFrameRate(), all);
    }

    private void fill(short[] steps, int at, byte[] bytes, int channel, int count, Span span) {
        for (int i = 0; i < count; i++) {
            int from = (i * channels + channel) * wide;
            steps[at + i] =
                    wide <= EXACT_BYTES
                            ? (short) (whole(bytes, from) - (unsigned ? 1 << 8 * wide - 1 : 0))
                            : (short)
                                    Math.round(
                                            (sample(bytes, from) - span.middle()) / span.scale());
        }
    }

    private void each(Source source, Part part) throws IOException {
        byte[] buffer = new byte[FRAMES_AT_ONCE * channels * wide];
        try (InputStream in = source.open();
                AudioInputStream sound = AudioSystem.getAudioInputStream(in)) {
            int got = sound.readNBytes(buffer, 0, buffer.length);
            while (got > 0) {
                part.take(buffer, got / (wide * channels));
                got = sound.readNBytes(buffer, 0, buffer.length);
            }
        } catch (UnsupportedAudioFileException torn) {
            throw unreadable(torn);
        }
    }

    private static final class Span {
        private double least = Double.POSITIVE_INFINITY;
        private double most = Double.NEGATIVE_INFINITY;

        void holds(double sample) {
            least = Math.min(least, sample);
            most = Math.max(most, sample);
        }

        double scale() {
            return most > least ? (most - least) / STEPS : 1;
        }

        double middle() {
            return most >= least ? (least + most) / 2 : 0;
        }
    }

    /** A whole sample as it stands in the file, with its sign where it has one. */
    private long whole(byte[] bytes, int at) {
        long raw = 0;
        for (int b = 0; b < wide; b++) {
            raw = raw << 8 | bytes[format.isBigEndian() ? at + b : at + wide - 1 - b] & 0xFF;
        }
        return unsigned || real ? raw : raw << 64 - 8 * wide >> 64 - 8 * wide;
    }

    /** From -1 to 1; what is no number is silence. */
    private double sample(byte[] bytes, int at) {
        long raw = whole(bytes, at);
        if (real) {
            double its = wide == 8 ? Double.longBitsToDouble(raw) : Float.intBitsToFloat((int) raw);
            return Double.isFinite(its) ? its : 0;
        }
        double half = Math.pow(2, 8.0 * wide - 1);
        return unsigned ? raw / half - 1 : raw / half;
    }
}
