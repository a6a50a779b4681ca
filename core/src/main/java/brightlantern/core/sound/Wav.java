package brightlantern.core.sound;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A recording as samples from -1 to 1, channels averaged. Reads RIFF/WAVE with linear PCM of 8
 * (unsigned), 16 and 24 bit, one or two channels, 8 to 192 kHz.
 *
 * @param rate samples a second
 * @param remarks what is wrong with it, though it could be read
 */
public record Wav(int rate, double[] samples, List<String> remarks) {
    private static final int LEAST_RATE = 8000;
    private static final int MOST_RATE = 192_000;
    private static final int PCM = 1;

    /** The real format stands further back, in the first bytes of an identifier. */
    private static final int EXTENSIBLE = 0xFFFE;

    /** A sample this near to the end of the scale was cut off. */
    private static final double CLIPPED = 0.999;

    private static final double CLIPPED_SHARE = 0.0005;

    /** Nothing louder than this is silence. */
    private static final double SILENT = 0.002;

    private static final double LEAST_SECONDS = 0.2;

    public Wav {
        remarks = List.copyOf(remarks);
    }

    public double seconds() {
        return samples.length / (double) rate;
    }

    /**
     * @throws IllegalArgumentException says what was expected, and at which byte
     */
    public static Wav read(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        if (bytes.length < 12 || !tag(bytes, 0).equals("RIFF") || !tag(bytes, 8).equals("WAVE")) {
            throw new IllegalArgumentException(
                    "Byte 0: expected a WAV file (RIFF … WAVE), found something else");
        }
        int format = 0;
        int channels = 0;
        int rate = 0;
        int bits = 0;
        int at = 12;
        while (at + 8 <= bytes.length) {
            String name = tag(bytes, at);
            long size = in.getInt(at + 4) & 0xFFFFFFFFL;
            int body = at + 8;
            if (name.equals("fmt ")) {
                if (size < 16 || body + 16 > bytes.length) {
                    throw new IllegalArgumentException(
                            "Byte " + at + ": the part 'fmt ' is too short");
                }
                format = in.getShort(body) & 0xFFFF;
                channels = in.getShort(body + 2);
                rate = in.getInt(body + 4);
                bits = in.getShort(body + 14);
                if (format == EXTENSIBLE && size >= 26 && body + 26 <= bytes.length) {
                    format = in.getShort(body + 24) & 0xFFFF;
                }
            } else if (name.equals("data")) {
                check(format, channels, rate, bits, at);
                return samples(bytes, body, size, channels, rate, bits);
            }
            // parts begin at even bytes
            long next = body + size + (size & 1);
            if (next > bytes.length) {
                break;
            }
            at = (int) next;
        }
        throw new IllegalArgumentException(
                "Byte " + at + ": expected the part 'data', found the end of the file");
    }

    private static String tag(byte[] bytes, int at) {
        return new String(bytes, at, 4, StandardCharsets.ISO_8859_1);
    }

    private static void check(int format, int channels, int rate, int bits, int at) {
        if (format == 0) {
            throw new IllegalArgumentException("Byte " + at + ": expected 'fmt ' before 'data'");
        }
        if (format != PCM || bits != 8 && bits != 16 && bits != 24) {
            throw new IllegalArgumentException(
                    "Expected linear PCM of 8, 16 or 24 bit, found format %d with %d bit"
                            .formatted(format, bits));
        }
        if (channels != 1 && channels != 2) {
            throw new IllegalArgumentException("Expected one or two channels, found " + channels);
        }
        if (rate < LEAST_RATE || rate > MOST_RATE) {
            throw new IllegalArgumentException(
                    "Expected 8000 to 192000 samples a second, found " + rate);
        }
    }

    private static Wav samples(
            byte[] bytes, int from, long size, int channels, int rate, int bits) {
        List<String> remarks = new ArrayList<>();
        int wide = bits / 8;
        long there = Math.min(size, bytes.length - from);
        if (there < size) {
            remarks.add("The file ends early; what was there was read.");
        }
        int count = (int) (there / (wide * channels));
        double[] samples = new double[count];
        int clipped = 0;
        double loudest = 0;
        for (int i = 0; i < count; i++) {
            double sum = 0;
            for (int c = 0; c < channels; c++) {
                double v = sample(bytes, from + (i * channels + c) * wide, bits);
                clipped += Math.abs(v) >= CLIPPED ? 1 : 0;
                sum += v;
            }
            samples[i] = sum / channels;
            loudest = Math.max(loudest, Math.abs(samples[i]));
        }
        if (count < LEAST_SECONDS * rate) {
            throw new IllegalArgumentException(
                    String.format(
                            Locale.ROOT,
                            "The recording lasts %.2f s; at least %.1f s are needed",
                            count / (double) rate,
                            LEAST_SECONDS));
        }
        if (loudest < SILENT) {
            throw new IllegalArgumentException(
                    "The recording is silent; put the microphone nearer");
        }
        if (clipped > CLIPPED_SHARE * count * channels) {
            remarks.add(
                    "It is clipped: too loud for the microphone. Loudness is judged with care.");
        }
        return new Wav(rate, samples, remarks);
    }

    private static double sample(byte[] bytes, int at, int bits) {
        return switch (bits) {
            case 8 -> ((bytes[at] & 0xFF) - 128) / 128.0;
            case 16 -> (short) (bytes[at] & 0xFF | bytes[at + 1] << 8) / 32768.0;
            default ->
                    ((bytes[at] & 0xFF) | (bytes[at + 1] & 0xFF) << 8 | bytes[at + 2] << 16)
                            / 8388608.0;
        };
    }

    /** The same as a file of 16 bit, one channel. */
    public byte[] write() {
        ByteBuffer out =
                ByteBuffer.allocate(44 + 2 * samples.length).order(ByteOrder.LITTLE_ENDIAN);
        out.put("RIFF".getBytes(StandardCharsets.ISO_8859_1)).putInt(36 + 2 * samples.length);
        out.put("WAVEfmt ".getBytes(StandardCharsets.ISO_8859_1)).putInt(16);
        out.putShort((short) PCM).putShort((short) 1).putInt(rate).putInt(2 * rate);
        out.putShort((short) 2).putShort((short) 16);
        out.put("data".getBytes(StandardCharsets.ISO_8859_1)).putInt(2 * samples.length);
        for (double s : samples) {
            out.putShort((short) Math.round(32767 * Math.max(-1, Math.min(1, s))));
        }
        return out.array();
    }
}
