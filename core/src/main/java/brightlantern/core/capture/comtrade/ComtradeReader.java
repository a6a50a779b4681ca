package brightlantern.core.capture.comtrade;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.comtrade.ComtradeConfiguration.Analog;
import brightlantern.core.capture.comtrade.ComtradeConfiguration.DataKind;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads records of IEEE C37.111: a configuration with its data, or both in one file (2013, clause
 * 5.5). Data as text, as 16 or 32 bit numbers or as floats; what stands for a missing sample holds
 * the one before.
 */
public final class ComtradeReader {
    /** A part of a file that holds all of them, and the bytes of one that is binary. */
    private static final Pattern PART =
            Pattern.compile(
                    "(?i)---\\s*file type:\\s*(CFG|INF|HDR|DAT)([ A-Z0-9]*)(?::\\s*(\\d+))?\\s*---\\s*?\\r?\\n");

    private static final String BEGINS = "--- file type:";
    private static final int SAMPLE_HEAD = 8;

    /** Two times from sample to sample differ by less than this share. */
    private static final double EVEN = 0.01;

    /** Samples of all lanes together. */
    private static final long MOST = 100_000_000;

    private ComtradeReader() {}

    /** Whether a file holds configuration and data together. */
    public static boolean isWhole(byte[] beginning) {
        String text = new String(beginning, StandardCharsets.ISO_8859_1).stripLeading();
        return text.regionMatches(true, 0, BEGINS, 0, BEGINS.length());
    }

    /**
     * A file of configuration and data together.
     *
     * @throws IllegalArgumentException names the place, what was expected and what was found
     */
    public static Capture read(byte[] file) {
        String text = new String(file, StandardCharsets.ISO_8859_1);
        Matcher part = PART.matcher(text);
        String configuration = null;
        int from = -1;
        while (part.find()) {
            if (part.group(1).equalsIgnoreCase("CFG")) {
                int end = text.indexOf("---", part.end());
                configuration =
                        new String(
                                file,
                                part.end(),
                                (end < 0 ? file.length : end) - part.end(),
                                StandardCharsets.UTF_8);
            } else if (part.group(1).equalsIgnoreCase("DAT")) {
                from = part.end();
                break;
            }
        }
        if (configuration == null || from < 0) {
            throw new IllegalArgumentException(
                    "Expected the parts CFG and DAT, found "
                            + (configuration == null ? "no CFG" : "no DAT"));
        }
        return read(configuration, Arrays.copyOfRange(file, from, file.length));
    }

    /**
     * A configuration and its data.
     *
     * @throws IllegalArgumentException names the place, what was expected and what was found
     */
    public static Capture read(String configuration, byte[] data) {
        ComtradeConfiguration c = ComtradeConfiguration.read(configuration);
        int lanes = c.analog().size() + c.digital().size();
        if (lanes < 1 || lanes > Capture.MOST_LANES) {
            throw new IllegalArgumentException(
                    "It has %d channels; expected 1 to %d".formatted(lanes, Capture.MOST_LANES));
        }
        Samples samples = c.kind() == DataKind.ASCII ? text(c, data) : binary(c, data);
        if (samples.count < 2) {
            throw new IllegalArgumentException(
                    "It has %d samples; expected two or more".formatted(samples.count));
        }
        double interval = c.rate() > 0 ? 1 / c.rate() : samples.interval(c.timeScale());
        List<Lane> all = new ArrayList<>();
        for (int i = 0; i < c.analog().size(); i++) {
            Analog its = c.analog().get(i);
            all.add(
                    Lane.of(
                            its.name(),
                            LaneRole.OTHER,
                            its.unit(),
                            "",
                            Arrays.copyOf(samples.lanes[i], samples.count)));
        }
        for (int i = 0; i < c.digital().size(); i++) {
            all.add(
                    Lane.of(
                            c.digital().get(i),
                            LaneRole.OTHER,
                            "",
                            "",
                            Arrays.copyOf(samples.lanes[c.analog().size() + i], samples.count)));
        }
        return new Capture(interval, all);
    }

    /** What was read so far. */
    private static final class Samples {
        private final double[][] lanes;
        private final double[] times;
        private int count;

        Samples(int lanes, long samples) {
            if (samples * lanes > MOST) {
                throw new IllegalArgumentException(
                        "It has %d samples of %d channels; expected at most %d in all"
                                .formatted(samples, lanes, MOST));
            }
            this.lanes = new double[lanes][(int) samples];
            this.times = new double[(int) samples];
        }

        /** A number, or the one before where it is missing. */
        void put(int lane, double value) {
            lanes[lane][count] =
                    Double.isFinite(value) ? value : count > 0 ? lanes[lane][count - 1] : 0;
        }

        /** Seconds from sample to sample, by their own times in microseconds. */
        double interval(double scale) {
            double mean = (times[count - 1] - times[0]) * scale / (count - 1);
            for (int i = 1; i < count; i++) {
                double its = (times[i] - times[i - 1]) * scale;
                if (!(Math.abs(its - mean) <= EVEN * mean + 1)) {
                    throw new IllegalArgumentException(
                            String.format(
                                    Locale.ROOT,
                                    "Sample %d comes %.0f µs after the one before; expected %.0f µs, as all others",
                                    i + 1,
                                    its,
                                    mean));
                }
            }
            if (!(mean > 0)) {
                throw new IllegalArgumentException(
                        "Its samples tell no time, and its configuration no rate");
            }
            return mean * 1e-6;
        }
    }

    private static Samples binary(ComtradeConfiguration c, byte[] data) {
        int wide = c.sampleBytes();
        long there = data.length / wide;
        long told = c.last() > 0 ? Math.min(c.last(), there) : there;
        Samples samples = new Samples(c.analog().size() + c.digital().size(), told);
        ByteBuffer in = ByteBuffer.wrap(data).order(ByteOrder.LITTLE_ENDIAN);
        for (int n = 0; n < told; n++) {
            int at = n * wide;
            samples.times[n] = in.getInt(at + 4) & 0xFFFFFFFFL;
            at += SAMPLE_HEAD;
            for (int i = 0; i < c.analog().size(); i++) {
                Analog its = c.analog().get(i);
                samples.put(i, its.a() * number(c.kind(), in, at) + its.b());
                at += c.kind().bytes();
            }
            for (int i = 0; i < c.digital().size(); i++) {
                int word = in.getShort(at + i / 16 * 2);
                samples.put(c.analog().size() + i, word >> i % 16 & 1);
            }
            samples.count++;
        }
        return samples;
    }

    /** The least number of its kind stands for none (clause 8.6). */
    private static double number(DataKind kind, ByteBuffer in, int at) {
        return switch (kind) {
            case BINARY -> in.getShort(at) == Short.MIN_VALUE ? Double.NaN : in.getShort(at);
            case BINARY32 -> in.getInt(at) == Integer.MIN_VALUE ? Double.NaN : in.getInt(at);
            case FLOAT32 -> in.getFloat(at);
            case ASCII -> throw new IllegalStateException("Text is read line by line");
        };
    }

    private static Samples text(ComtradeConfiguration c, byte[] data) {
        String[] lines = new String(data, StandardCharsets.US_ASCII).split("\r\n|\n|\r");
        int channels = c.analog().size() + c.digital().size();
        Samples samples = new Samples(channels, lines.length);
        for (int n = 0; n < lines.length; n++) {
            if (lines[n].isBlank() || lines[n].charAt(0) == 0x1A) {
                continue;
            }
            String[] f = lines[n].split(",", -1);
            if (f.length < 2 + channels) {
                throw new IllegalArgumentException(
                        "Line %d of the data: expected %d fields, found %d"
                                .formatted(n + 1, 2 + channels, f.length));
            }
            samples.times[samples.count] = f[1].isBlank() ? Double.NaN : figure(f[1], n);
            for (int i = 0; i < channels; i++) {
                boolean number = i < c.analog().size();
                double read = f[2 + i].isBlank() ? Double.NaN : figure(f[2 + i], n);
                samples.put(
                        i, number ? c.analog().get(i).a() * read + c.analog().get(i).b() : read);
            }
            samples.count++;
        }
        return samples;
    }

    private static double figure(String field, int line) {
        try {
            return Double.parseDouble(field.trim());
        } catch (NumberFormatException no) {
            throw new IllegalArgumentException(
                    "Line %d of the data: expected a number, found '%s'"
                            .formatted(line + 1, field.trim()));
        }
    }
}
