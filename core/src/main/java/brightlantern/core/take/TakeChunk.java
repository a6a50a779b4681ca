package brightlantern.core.take;

import brightlantern.core.signal.Value;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

/**
 * Samples of a stretch of time, column by column, compressed: a version byte, then a deflated
 * stream. Columns that were sampled at the same moments share their times, kept as differences in
 * milliseconds. A column whose values are whole multiples of a step (as they came over the wire) is
 * kept as differences of those; any other as IEEE 754 doubles. Whole numbers are written seven bits
 * a byte, the least first, the sign in the lowest bit.
 */
public final class TakeChunk {
    private static final int VERSION = 2;
    private static final int DOUBLES = 0;
    private static final int STEPS = 1;

    /** More samples than this in one column is a damaged chunk, not a recording. */
    private static final int MOST_SAMPLES = 50_000_000;

    private TakeChunk() {}

    /** Times are rounded to milliseconds; values are kept to the bit. */
    public static byte[] write(Map<String, Take.Column> columns) {
        return write(columns, id -> Optional.empty());
    }

    /**
     * @param described the value of an id, whose scaling makes its column small
     */
    public static byte[] write(
            Map<String, Take.Column> columns, Function<String, Optional<Value>> described) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.write(VERSION);
        try (DataOutputStream out =
                new DataOutputStream(
                        new BufferedOutputStream(new DeflaterOutputStream(bytes), 1 << 16))) {
            Map<String, List<Map.Entry<String, Take.Column>>> groups = new LinkedHashMap<>();
            for (Map.Entry<String, Take.Column> entry : columns.entrySet()) {
                groups.computeIfAbsent(times(entry.getValue()), t -> new ArrayList<>()).add(entry);
            }
            whole(out, groups.size());
            for (List<Map.Entry<String, Take.Column>> group : groups.values()) {
                Take.Column clock = group.get(0).getValue();
                whole(out, clock.size());
                long before = 0;
                for (int i = 0; i < clock.size(); i++) {
                    long millis = millis(clock, i);
                    whole(out, millis - before);
                    before = millis;
                }
                whole(out, group.size());
                for (Map.Entry<String, Take.Column> entry : group) {
                    out.writeUTF(entry.getKey());
                    values(out, entry.getValue(), described.apply(entry.getKey()));
                }
            }
        } catch (IOException impossible) {
            throw new IllegalStateException("Writing to memory failed", impossible);
        }
        return bytes.toByteArray();
    }

    /** What is the same for columns with the same times. */
    private static String times(Take.Column column) {
        long hash = 1;
        for (int i = 0; i < column.size(); i++) {
            hash = hash * 1_000_003 + millis(column, i);
        }
        return column.size() + " " + hash;
    }

    private static long millis(Take.Column column, int i) {
        return Math.round(column.seconds(i) * 1000);
    }

    private static void values(DataOutputStream out, Take.Column column, Optional<Value> value)
            throws IOException {
        long[] steps = value.map(v -> steps(column, v)).orElse(null);
        if (steps == null) {
            out.write(DOUBLES);
            for (int i = 0; i < column.size(); i++) {
                out.writeDouble(column.value(i));
            }
            return;
        }
        out.write(STEPS);
        out.writeDouble(value.orElseThrow().isState() ? 1 : value.orElseThrow().scale());
        out.writeDouble(value.orElseThrow().isState() ? 0 : value.orElseThrow().offset());
        long before = 0;
        for (long step : steps) {
            whole(out, step - before);
            before = step;
        }
    }

    /** The numbers as they were on the wire; null unless every value comes back to the bit. */
    private static long[] steps(Take.Column column, Value value) {
        double scale = value.isState() ? 1 : value.scale();
        double offset = value.isState() ? 0 : value.offset();
        long[] steps = new long[column.size()];
        for (int i = 0; i < steps.length; i++) {
            double v = column.value(i);
            double number = (v - offset) / scale;
            if (!(Math.abs(number) < 1L << 52)) {
                return null;
            }
            steps[i] = Math.round(number);
            if (Double.doubleToLongBits(steps[i] * scale + offset) != Double.doubleToLongBits(v)) {
                return null;
            }
        }
        return steps;
    }

    private static void whole(DataOutputStream out, long number) throws IOException {
        long rest = number << 1 ^ number >> 63;
        while ((rest & ~0x7FL) != 0) {
            out.write((int) (rest & 0x7F | 0x80));
            rest >>>= 7;
        }
        out.write((int) rest);
    }

    /** Reads what {@link #write} wrote, out of memory. */
    private static final class Reading {
        private final byte[] bytes;
        private int at;

        Reading(byte[] bytes) {
            this.bytes = bytes;
        }

        int next() {
            if (at >= bytes.length) {
                throw new IllegalArgumentException(
                        "The chunk is torn at byte " + at + " of its content");
            }
            return bytes[at++] & 0xFF;
        }

        long whole() {
            // most differences are small: one byte
            if (at < bytes.length && bytes[at] >= 0) {
                int small = bytes[at++];
                return small >>> 1 ^ -(small & 1);
            }
            long number = 0;
            int shift = 0;
            int b;
            do {
                b = next();
                number |= (long) (b & 0x7F) << shift;
                shift += 7;
            } while ((b & 0x80) != 0 && shift < 64);
            return number >>> 1 ^ -(number & 1);
        }

        int count(String what) {
            long n = whole();
            if (n < 0 || n > MOST_SAMPLES || n > bytes.length * 8L) {
                throw new IllegalArgumentException("The chunk claims " + n + " " + what);
            }
            return (int) n;
        }

        double real() {
            long bits = 0;
            for (int i = 0; i < 8; i++) {
                bits = bits << 8 | next();
            }
            return Double.longBitsToDouble(bits);
        }

        String text() {
            int length = next() << 8 | next();
            if (at + length > bytes.length) {
                throw new IllegalArgumentException(
                        "The chunk is torn at byte " + at + " of its content");
            }
            String text = new String(bytes, at, length, StandardCharsets.UTF_8);
            at += length;
            return text;
        }
    }

    /**
     * @throws IllegalArgumentException when the chunk is damaged
     */
    public static Map<String, Take.Column> read(byte[] chunk) {
        if (chunk.length > 0 && chunk[0] == 1) {
            return readFirst(chunk);
        }
        if (chunk.length == 0 || chunk[0] != VERSION) {
            throw new IllegalArgumentException("Byte 0: expected chunk version 1 or " + VERSION);
        }
        Reading in = new Reading(inflated(chunk));
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        int groups = in.count("groups");
        for (int g = 0; g < groups; g++) {
            int size = in.count("samples");
            double[] seconds = new double[size];
            long millis = 0;
            for (int i = 0; i < size; i++) {
                millis += in.whole();
                seconds[i] = millis / 1000.0;
            }
            int count = in.count("columns");
            for (int c = 0; c < count; c++) {
                columns.put(in.text(), Take.Column.owned(seconds, values(in, size)));
            }
        }
        return columns;
    }

    private static byte[] inflated(byte[] chunk) {
        try (InflaterInputStream packed =
                new InflaterInputStream(new ByteArrayInputStream(chunk, 1, chunk.length - 1))) {
            return packed.readAllBytes();
        } catch (IOException torn) {
            throw new IllegalArgumentException("The chunk is torn: " + torn.getMessage(), torn);
        }
    }

    private static double[] values(Reading in, int size) {
        double[] values = new double[size];
        int kind = in.next();
        if (kind == DOUBLES) {
            for (int i = 0; i < size; i++) {
                values[i] = in.real();
            }
        } else if (kind == STEPS) {
            double scale = in.real();
            double offset = in.real();
            long step = 0;
            for (int i = 0; i < size; i++) {
                step += in.whole();
                values[i] = step * scale + offset;
            }
        } else {
            throw new IllegalArgumentException("Expected a column of kind 0 or 1, found " + kind);
        }
        return values;
    }

    /** Version 1: name, count, times, doubles; what was recorded before stays readable. */
    private static Map<String, Take.Column> readFirst(byte[] chunk) {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        try (DataInputStream in = new DataInputStream(new ByteArrayInputStream(inflated(chunk)))) {
            int count = in.readInt();
            for (int c = 0; c < count; c++) {
                String name = in.readUTF();
                int size = in.readInt();
                if (size < 0 || size > in.available() / (Integer.BYTES + Double.BYTES)) {
                    throw new IllegalArgumentException(
                            "Column '" + name + "' claims " + size + " samples");
                }
                double[] seconds = new double[size];
                double[] values = new double[size];
                long millis = 0;
                for (int i = 0; i < size; i++) {
                    millis += in.readInt();
                    seconds[i] = millis / 1000.0;
                }
                for (int i = 0; i < size; i++) {
                    values[i] = in.readDouble();
                }
                columns.put(name, new Take.Column(seconds, values));
            }
        } catch (IOException torn) {
            throw new IllegalArgumentException("The chunk is torn: " + torn.getMessage(), torn);
        }
        return columns;
    }

    /**
     * @param damaged how many chunks could not be read and were left out
     */
    public record Joined(Map<String, Take.Column> columns, int damaged) {}

    private static Optional<Map<String, Take.Column>> readable(byte[] chunk) {
        try {
            return Optional.of(read(chunk));
        } catch (IllegalArgumentException damaged) {
            return Optional.empty();
        }
    }

    /** Chunks in their order as one set of columns; a damaged one costs only what it held. */
    public static Joined join(List<byte[]> chunks) {
        List<Map<String, Take.Column>> whole =
                chunks.parallelStream().map(TakeChunk::readable).flatMap(Optional::stream).toList();
        return new Joined(joined(whole), chunks.size() - whole.size());
    }

    private static Map<String, Take.Column> joined(List<Map<String, Take.Column>> chunks) {
        Map<String, List<Take.Column>> parts = new LinkedHashMap<>();
        chunks.forEach(
                chunk ->
                        chunk.forEach(
                                (name, column) ->
                                        parts.computeIfAbsent(name, n -> new ArrayList<>())
                                                .add(column)));
        // columns that were read together have the same times: they are joined once
        List<List<Take.Column>> clocks = new ArrayList<>();
        Map<String, Integer> clockOf = new LinkedHashMap<>();
        parts.forEach(
                (name, list) -> {
                    int last = clocks.size() - 1;
                    if (last < 0 || !sameTimes(clocks.get(last), list)) {
                        clocks.add(list);
                    }
                    clockOf.put(name, clocks.size() - 1);
                });
        List<Take.Column> times = clocks.parallelStream().map(list -> joined(list, null)).toList();
        List<Take.Column> columns =
                parts.entrySet().parallelStream()
                        .map(
                                e ->
                                        e.getValue().size() == 1
                                                ? e.getValue().get(0)
                                                : joined(
                                                        e.getValue(),
                                                        times.get(clockOf.get(e.getKey()))))
                        .toList();
        Map<String, Take.Column> joined = new LinkedHashMap<>();
        int at = 0;
        for (String name : parts.keySet()) {
            joined.put(name, columns.get(at++));
        }
        return joined;
    }

    private static boolean sameTimes(List<Take.Column> a, List<Take.Column> b) {
        if (a.size() != b.size()) {
            return false;
        }
        for (int i = 0; i < a.size(); i++) {
            if (!a.get(i).sharesTimes(b.get(i))) {
                return false;
            }
        }
        return true;
    }

    /**
     * @param times a column with the same times; null when they are to be joined
     */
    private static Take.Column joined(List<Take.Column> list, Take.Column times) {
        int size = list.stream().mapToInt(Take.Column::size).sum();
        double[] values = new double[size];
        double[] seconds = new double[times == null ? size : 0];
        int at = 0;
        for (Take.Column column : list) {
            column.copyInto(times == null ? seconds : null, values, at);
            at += column.size();
        }
        return times == null ? Take.Column.owned(seconds, values) : times.withValues(values);
    }
}
