package brightlantern.core.take;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

/**
 * Samples of about a second, column by column, compressed: version byte, then deflated columns of
 * name, count, times as milliseconds since the sample before, and values as IEEE 754 doubles.
 */
public final class TakeChunk {
    private static final int VERSION = 1;

    /** More samples than this in one chunk is a damaged chunk, not a recording. */
    private static final int MOST_SAMPLES = 10_000_000;

    private TakeChunk() {}

    /** Times are rounded to milliseconds. */
    public static byte[] write(Map<String, Take.Column> columns) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.write(VERSION);
        try (DataOutputStream out = new DataOutputStream(new DeflaterOutputStream(bytes))) {
            out.writeInt(columns.size());
            for (Map.Entry<String, Take.Column> entry : columns.entrySet()) {
                Take.Column column = entry.getValue();
                out.writeUTF(entry.getKey());
                out.writeInt(column.size());
                long before = 0;
                for (int i = 0; i < column.size(); i++) {
                    long millis = Math.round(column.seconds(i) * 1000);
                    out.writeInt((int) (millis - before));
                    before = millis;
                }
                for (int i = 0; i < column.size(); i++) {
                    out.writeDouble(column.value(i));
                }
            }
        } catch (IOException impossible) {
            throw new IllegalStateException("Writing to memory failed", impossible);
        }
        return bytes.toByteArray();
    }

    /**
     * @throws IllegalArgumentException when the chunk is damaged
     */
    public static Map<String, Take.Column> read(byte[] chunk) {
        if (chunk.length == 0 || chunk[0] != VERSION) {
            throw new IllegalArgumentException("Byte 0: expected chunk version " + VERSION);
        }
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        try (DataInputStream in =
                new DataInputStream(
                        new InflaterInputStream(
                                new ByteArrayInputStream(chunk, 1, chunk.length - 1)))) {
            int count = in.readInt();
            for (int c = 0; c < count; c++) {
                String name = in.readUTF();
                int size = in.readInt();
                if (size < 0 || size > MOST_SAMPLES) {
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

    /** Chunks in their order as one set of columns. */
    public static Map<String, Take.Column> join(Iterable<byte[]> chunks) {
        Map<String, java.util.List<Take.Column>> parts = new LinkedHashMap<>();
        for (byte[] chunk : chunks) {
            read(chunk)
                    .forEach(
                            (name, column) ->
                                    parts.computeIfAbsent(name, n -> new java.util.ArrayList<>())
                                            .add(column));
        }
        Map<String, Take.Column> joined = new LinkedHashMap<>();
        parts.forEach(
                (name, list) -> {
                    int size = list.stream().mapToInt(Take.Column::size).sum();
                    double[] seconds = new double[size];
                    double[] values = new double[size];
                    int at = 0;
                    for (Take.Column column : list) {
                        for (int i = 0; i < column.size(); i++, at++) {
                            seconds[at] = column.seconds(i);
                            values[at] = column.value(i);
                        }
                    }
                    joined.put(name, new Take.Column(seconds, values));
                });
        return joined;
    }
}
