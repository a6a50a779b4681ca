package brightlantern.core.sound;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * A recording as samples from -1 to 1, channels averaged. Reads RIFF/WAVE with linear PCM of 8
 * (unsigned), 16, 24 and 32 bit and IEEE 754 floats of 32 and 64 bit, one or two channels, 8 to 192
 * kHz.
 *
 * @param rate samples a second
 * @param remarks what is wrong with it, though it could be read
 * @param clipped whether its loudest parts are cut off, so that loudness cannot be compared
 */
public record Wav(int rate, double[] samples, List<String> remarks, boolean clipped) {
    private static final int FLOAT = 3;

    /** So many samples in a row at the same highest level are no sound. */
    private static final int FLAT_RUN = 6;

    /** Channels that move against each other by this correlation are one sound, turned over. */
    private static final double AGAINST = -0.5;

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

    /** A recording that is not clipped. */
    public Wav(int rate, double[] samples, List<String> remarks) {
        this(rate, samples, remarks, false);
    }

    /** How long it lasts, s. */
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
                return samples(bytes, body, size, channels, rate, bits, format == FLOAT);
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
        boolean whole = format == PCM && bits % 8 == 0 && bits >= 8 && bits <= 32;
        boolean real = format == FLOAT && (bits == 32 || bits == 64);
        if (!whole && !real) {
            throw new IllegalArgumentException(
                    "Expected linear PCM of 8, 16, 24 or 32 bit or floats, found format %d with %d bit"
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
            byte[] bytes, int from, long size, int channels, int rate, int bits, boolean real) {
        List<String> remarks = new ArrayList<>();
        int wide = bits / 8;
        long there = Math.min(size, bytes.length - from);
        if (there < size) {
            remarks.add("The file ends early; what was there was read.");
        }
        int count = (int) (there / (wide * channels));
        if (count < LEAST_SECONDS * rate) {
            throw new IllegalArgumentException(
                    String.format(
                            Locale.ROOT,
                            "The recording lasts %.2f s; at least %.1f s are needed",
                            count / (double) rate,
                            LEAST_SECONDS));
        }
        double[][] each = new double[channels][count];
        ByteBuffer in = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < count; i++) {
            for (int c = 0; c < channels; c++) {
                int at = from + (i * channels + c) * wide;
                double v =
                        real
                                ? wide == 4 ? in.getFloat(at) : in.getDouble(at)
                                : sample(bytes, at, bits);
                each[c][i] = Double.isFinite(v) ? v : 0;
            }
        }
        boolean clipped = false;
        for (double[] channel : each) {
            clipped |= clipped(channel, bits);
        }
        if (clipped) {
            remarks.add("It is clipped: too loud for the microphone, so loudness tells nothing.");
        }
        double[] samples = together(each, remarks);
        double loudest = Arrays.stream(samples).map(Math::abs).max().orElse(0);
        if (loudest < SILENT) {
            throw new IllegalArgumentException(
                    "The recording is silent; put the microphone nearer");
        }
        return new Wav(rate, samples, remarks, clipped);
    }

    /** Cut off at the end of the scale, or flat at its highest level wherever that lies. */
    private static boolean clipped(double[] channel, int bits) {
        double most = Arrays.stream(channel).max().orElse(0);
        double least = Arrays.stream(channel).min().orElse(0);
        int atEnd = 0;
        int flat = 0;
        int run = 0;
        for (int i = 0; i < channel.length; i++) {
            atEnd += Math.abs(channel[i]) >= CLIPPED ? 1 : 0;
            boolean same =
                    i > 0
                            && channel[i] == channel[i - 1]
                            && (channel[i] == most || channel[i] == least);
            run = same ? run + 1 : 0;
            flat += run >= FLAT_RUN - 1 ? 1 : 0;
        }
        // with eight bits the crest of any slow wave is flat
        return atEnd > CLIPPED_SHARE * channel.length
                || bits > 8 && flat > CLIPPED_SHARE * channel.length;
    }

    /** The mean of the channels; one that was recorded upside down is turned over first. */
    private static double[] together(double[][] each, List<String> remarks) {
        if (each.length == 1) {
            return each[0];
        }
        double product = 0;
        double left = 0;
        double right = 0;
        for (int i = 0; i < each[0].length; i++) {
            product += each[0][i] * each[1][i];
            left += each[0][i] * each[0][i];
            right += each[1][i] * each[1][i];
        }
        boolean against = left > 0 && right > 0 && product / Math.sqrt(left * right) < AGAINST;
        if (against) {
            remarks.add("Its two channels were recorded against each other; one was turned over.");
        }
        double[] samples = new double[each[0].length];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = (each[0][i] + (against ? -each[1][i] : each[1][i])) / 2;
        }
        return samples;
    }

    private static double sample(byte[] bytes, int at, int bits) {
        return switch (bits) {
            case 8 -> ((bytes[at] & 0xFF) - 128) / 128.0;
            case 16 -> (short) (bytes[at] & 0xFF | bytes[at + 1] << 8) / 32768.0;
            case 24 ->
                    ((bytes[at] & 0xFF) | (bytes[at + 1] & 0xFF) << 8 | bytes[at + 2] << 16)
                            / 8388608.0;
            default ->
                    ((bytes[at] & 0xFF)
                                    | (bytes[at + 1] & 0xFF) << 8
                                    | (bytes[at + 2] & 0xFF) << 16
                                    | bytes[at + 3] << 24)
                            / 2147483648.0;
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
