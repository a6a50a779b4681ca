package brightlantern.core.take.mdf;

import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Writes a take as MDF 4.10: one data group for values that share their times, times and values as
 * IEEE 754 doubles, states with a value-to-text conversion, marks as events.
 */
public final class MdfWriter {
    private static final int HEADER = 24;
    private static final int VERSION = 410;

    private final List<byte[]> blocks = new ArrayList<>();
    private long end;

    private MdfWriter() {}

    /**
     * @throws IOException when it cannot be written
     */
    public static void write(Take take, Signals signals, Instant start, OutputStream out)
            throws IOException {
        new MdfWriter().compose(take, signals, start, out);
    }

    /** Values with the same times, by those times. */
    private static List<List<Map.Entry<String, Take.Column>>> groups(Take take) {
        Map<Integer, List<List<Map.Entry<String, Take.Column>>>> byHash = new LinkedHashMap<>();
        List<List<Map.Entry<String, Take.Column>>> groups = new ArrayList<>();
        for (Map.Entry<String, Take.Column> entry : take.columns().entrySet()) {
            double[] times = times(entry.getValue());
            List<List<Map.Entry<String, Take.Column>>> alike =
                    byHash.computeIfAbsent(Arrays.hashCode(times), h -> new ArrayList<>());
            List<Map.Entry<String, Take.Column>> group =
                    alike.stream()
                            .filter(g -> Arrays.equals(times(g.get(0).getValue()), times))
                            .findFirst()
                            .orElse(null);
            if (group == null) {
                group = new ArrayList<>();
                alike.add(group);
                groups.add(group);
            }
            group.add(entry);
        }
        return groups;
    }

    private static double[] times(Take.Column column) {
        double[] times = new double[column.size()];
        for (int i = 0; i < times.length; i++) {
            times[i] = column.seconds(i);
        }
        return times;
    }

    private void compose(Take take, Signals signals, Instant start, OutputStream out)
            throws IOException {
        end = 64;
        ByteBuffer head = block("HD", 6, 32);
        long headAt = place(head);
        ByteBuffer history = block("FH", 2, 16);
        long nanos = start.getEpochSecond() * 1_000_000_000L + start.getNano();
        history.putLong(
                HEADER + 8,
                text(
                        "MD",
                        "<FHcomment><TX>recorded</TX><tool_id>Bright Lantern</tool_id>"
                                + "<tool_vendor>Bright Lantern</tool_vendor>"
                                + "<tool_version>1</tool_version></FHcomment>"));
        history.putLong(HEADER + 16, nanos);
        long historyAt = place(history);
        long next = 0;
        List<List<Map.Entry<String, Take.Column>>> groups = groups(take);
        for (int g = groups.size() - 1; g >= 0; g--) {
            next = group(groups.get(g), signals, next);
        }
        long event = 0;
        for (int m = take.marks().size() - 1; m >= 0; m--) {
            event = mark(take.marks().get(m), event);
        }
        head.putLong(HEADER, next);
        head.putLong(HEADER + 8, historyAt);
        head.putLong(HEADER + 32, event);
        head.putLong(HEADER + 48, nanos);
        assert headAt == 64;
        ByteBuffer id = ByteBuffer.allocate(64).order(ByteOrder.LITTLE_ENDIAN);
        id.put("MDF     4.10    BrLanter".getBytes(StandardCharsets.US_ASCII));
        id.putShort(28, (short) VERSION);
        out.write(id.array());
        for (byte[] block : blocks) {
            out.write(block);
        }
        out.flush();
    }

    private long group(List<Map.Entry<String, Take.Column>> values, Signals signals, long next) {
        int n = values.get(0).getValue().size();
        int width = 8 * (values.size() + 1);
        ByteBuffer data = block("DT", 0, n * width);
        for (int i = 0; i < n; i++) {
            data.putDouble(HEADER + i * width, values.get(0).getValue().seconds(i));
            for (int v = 0; v < values.size(); v++) {
                // target and actual in one unit: that in which they are shown
                data.putDouble(
                        HEADER + i * width + 8 * (v + 1),
                        shown(signals, values.get(v).getKey(), values.get(v).getValue().value(i)));
            }
        }
        long dataAt = place(data);
        long channel = 0;
        for (int v = values.size() - 1; v >= 0; v--) {
            String id = values.get(v).getKey();
            Value value = signals.value(id).orElse(null);
            channel =
                    channel(
                            value == null ? id : value.name(),
                            value == null || value.isState() ? "" : value.show(),
                            id,
                            value == null ? Map.of() : value.states(),
                            8 * (v + 1),
                            false,
                            channel);
        }
        channel = channel("time", "s", "", Map.of(), 0, true, channel);
        ByteBuffer cg = block("CG", 6, 32);
        cg.putLong(HEADER + 8, channel);
        cg.putLong(HEADER + 48 + 8, n);
        cg.putInt(HEADER + 48 + 24, width);
        long cgAt = place(cg);
        ByteBuffer dg = block("DG", 4, 8);
        dg.putLong(HEADER, next);
        dg.putLong(HEADER + 8, cgAt);
        dg.putLong(HEADER + 16, dataAt);
        return place(dg);
    }

    private static double shown(Signals signals, String id, double physical) {
        return signals.value(id).map(v -> Scaling.shown(v, physical)).orElse(physical);
    }

    private long channel(
            String name,
            String unit,
            String comment,
            Map<Integer, String> states,
            int offset,
            boolean master,
            long next) {
        ByteBuffer cn = block("CN", 8, 72);
        cn.putLong(HEADER, next);
        cn.putLong(HEADER + 16, text("TX", name));
        cn.putLong(HEADER + 32, states.isEmpty() ? 0 : words(states));
        cn.putLong(HEADER + 48, unit.isEmpty() ? 0 : text("TX", unit));
        cn.putLong(HEADER + 56, comment.isEmpty() ? 0 : text("TX", comment));
        int at = HEADER + 64;
        cn.put(at, (byte) (master ? 2 : 0));
        cn.put(at + 1, (byte) (master ? 1 : 0));
        cn.put(at + 2, (byte) 4);
        cn.putInt(at + 4, offset);
        cn.putInt(at + 8, 64);
        return place(cn);
    }

    /** Value to text: the n numbers, then n texts and one for all others. */
    private long words(Map<Integer, String> states) {
        int n = states.size();
        ByteBuffer cc = block("CC", 4 + n + 1, 24 + 8 * n);
        int data = HEADER + 8 * (4 + n + 1);
        cc.put(data, (byte) 7);
        cc.putShort(data + 4, (short) (n + 1));
        cc.putShort(data + 6, (short) n);
        int i = 0;
        for (Map.Entry<Integer, String> state : states.entrySet()) {
            cc.putLong(HEADER + 8 * (4 + i), text("TX", state.getValue()));
            cc.putDouble(data + 24 + 8 * i, state.getKey());
            i++;
        }
        return place(cc);
    }

    private long mark(Take.Mark mark, long next) {
        ByteBuffer ev = block("EV", 5, 32);
        ev.putLong(HEADER, next);
        ev.putLong(HEADER + 24, text("TX", mark.text()));
        int data = HEADER + 40;
        ev.put(data, (byte) 6);
        ev.put(data + 1, (byte) 1);
        ev.putLong(data + 16, Math.round(mark.seconds() * 1e9));
        ev.putDouble(data + 24, 1e-9);
        return place(ev);
    }

    private long text(String kind, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        ByteBuffer block = block(kind, 0, bytes.length + 1);
        block.position(HEADER);
        block.put(bytes);
        return place(block);
    }

    private static ByteBuffer block(String kind, int links, int data) {
        int length = HEADER + 8 * links + data;
        ByteBuffer block = ByteBuffer.allocate((length + 7) / 8 * 8).order(ByteOrder.LITTLE_ENDIAN);
        block.put(("##" + kind).getBytes(StandardCharsets.US_ASCII));
        block.putLong(8, length);
        block.putLong(16, links);
        return block;
    }

    /** Puts a block at the end of the file; its address. It may still be filled in. */
    private long place(ByteBuffer block) {
        long at = end;
        blocks.add(block.array());
        end += block.capacity();
        return at;
    }
}
