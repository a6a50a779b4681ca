package brightlantern.core.take.mdf;

import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.take.Take;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Reads MDF 4 files: sorted and unsorted data groups, data in one block, in lists, and deflated;
 * integers and floats of either byte order; conversions one-to-one, linear, rational and value to
 * text. What it cannot read is named and left out.
 */
public final class MdfReader {
    private static final int MOST_CHANNELS = 20_000;

    private final ByteBuffer file;
    private final MdfBlocks blocks;
    private final MdfConversion conversion;
    private final List<String> remarks = new ArrayList<>();
    private final Map<String, Take.Column> columns = new LinkedHashMap<>();
    private final List<Value> values = new ArrayList<>();
    private final Set<String> used = new HashSet<>();

    /** A sample takes 8 bytes, and its column half as much again while it is made. */
    private static final long MOST_SAMPLES = Runtime.getRuntime().maxMemory() / 2 / 12;

    private long samples;

    private MdfReader(ByteBuffer file) {
        this.blocks = new MdfBlocks(file);
        this.file = blocks.file();
        this.conversion = new MdfConversion(blocks, remarks::add);
    }

    /**
     * @param values name, unit and states of each column; the id is the one that stands in the
     *     channel's comment, if this program wrote it, and one made from the name otherwise
     */
    public record Read(Take take, List<Value> values, Instant start, List<String> remarks) {
        /**
         * The same for a vehicle: what its description knows stands in the description's unit, and
         * only what it does not know is a value of its own. What cannot be turned keeps its unit
         * under a name of its own.
         */
        public Read in(Signals signals) {
            Map<String, Take.Column> columns = new LinkedHashMap<>();
            List<Value> own = new ArrayList<>();
            List<String> told = new ArrayList<>(remarks);
            for (Value v : values) {
                Take.Column column = take.columns().get(v.id());
                Optional<Value> known = signals.value(v.id());
                if (known.isEmpty()) {
                    columns.put(v.id(), column);
                    own.add(v);
                    continue;
                }
                try {
                    columns.put(v.id(), turned(column, v, known.get()));
                } catch (IllegalArgumentException other) {
                    String id = "log." + v.id();
                    columns.put(id, column);
                    own.add(v.as(id));
                    told.add(
                            v.name()
                                    + ": "
                                    + other.getMessage()
                                    + "; it stands as a value of its own.");
                }
            }
            return new Read(new Take(columns, take.marks()), own, start, told);
        }

        private static Take.Column turned(Take.Column column, Value from, Value to) {
            if (to.isState() || from.unit().isEmpty() || from.unit().equals(to.unit())) {
                return column;
            }
            double[] seconds = new double[column.size()];
            double[] y = new double[column.size()];
            for (int i = 0; i < y.length; i++) {
                seconds[i] = column.seconds(i);
                y[i] = Units.convert(column.value(i), from.unit(), to.unit());
            }
            return new Take.Column(seconds, y);
        }
    }

    /**
     * @throws IllegalArgumentException names the byte and what was expected there
     */
    public static Read read(byte[] bytes) {
        return new MdfReader(ByteBuffer.wrap(bytes)).whole();
    }

    /**
     * Reads a file without holding all of it in memory.
     *
     * @throws IOException when it cannot be read
     * @throws IllegalArgumentException names the byte and what was expected there, or says what is
     *     too large
     */
    public static Read read(Path path) throws IOException {
        try (FileChannel channel = FileChannel.open(path, StandardOpenOption.READ)) {
            if (channel.size() > Integer.MAX_VALUE) {
                throw new IllegalArgumentException(
                        "The file is larger than 2 GB; export a part of it");
            }
            return new MdfReader(channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size()))
                    .whole();
        }
    }

    private Read whole() {
        String mark = file.capacity() < 64 + 104 ? "" : blocks.ascii(0, 8);
        if (mark.startsWith("UnFinMF")) {
            throw new IllegalArgumentException(
                    "Byte 0: this MDF was never finished ('UnFinMF'): its recorder stopped while it wrote. Let the recorder's own tool finish it, then bring it in");
        }
        if (!mark.startsWith("MDF ")) {
            throw new IllegalArgumentException(
                    "Byte 0: expected an MDF file ('MDF'), found another");
        }
        int version = file.getShort(28);
        if (version < 400 || version >= 500) {
            throw new IllegalArgumentException(
                    "Byte 28: expected MDF version 4, found "
                            + version / 100
                            + "."
                            + version % 100);
        }
        MdfBlocks.Block head = blocks.block(64, "HD");
        long nanos = file.getLong(head.data());
        Set<Long> seen = new HashSet<>();
        for (long at = blocks.link(head, 0); at != 0; ) {
            MdfBlocks.Block group = blocks.block(at, "DG");
            MdfBlocks.fresh(seen, at);
            dataGroup(group);
            at = blocks.link(group, 0);
        }
        List<Take.Mark> marks = new ArrayList<>();
        for (long at = blocks.link(head, 4); at != 0; ) {
            MdfBlocks.Block event = blocks.block(at, "EV");
            MdfBlocks.fresh(seen, at);
            int data = event.data();
            if (file.get(data + 1) == 1) {
                marks.add(
                        new Take.Mark(
                                file.getLong(data + 16) * file.getDouble(data + 24),
                                blocks.text(blocks.link(event, 3)).orElse("mark")));
            }
            at = blocks.link(event, 0);
        }
        if (columns.isEmpty()) {
            remarks.add("The file holds no channel that can be read.");
        }
        return new Read(
                new Take(columns, marks),
                List.copyOf(values),
                Instant.ofEpochSecond(
                        Math.floorDiv(nanos, 1_000_000_000L), Math.floorMod(nanos, 1_000_000_000L)),
                List.copyOf(remarks));
    }

    private void dataGroup(MdfBlocks.Block dg) {
        int idSize = file.get(dg.data());
        if (idSize != 0 && idSize != 1 && idSize != 2 && idSize != 4 && idSize != 8) {
            throw new IllegalArgumentException(
                    "Byte "
                            + dg.data()
                            + ": expected a record id of 0, 1, 2, 4 or 8 bytes, found "
                            + idSize);
        }
        List<MdfGroup> groups = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        for (long at = blocks.link(dg, 1); at != 0; ) {
            MdfBlocks.Block cg = blocks.block(at, "CG");
            MdfBlocks.fresh(seen, at);
            int data = cg.data();
            boolean variable = (file.getShort(data + 16) & 1) != 0;
            groups.add(
                    new MdfGroup(
                            file.getLong(data),
                            file.getLong(data + 8),
                            variable ? -1 : file.getInt(data + 24),
                            file.getInt(data + 28),
                            variable ? List.of() : channels(blocks.link(cg, 1))));
            at = blocks.link(cg, 0);
        }
        ByteBuffer bytes =
                blocks.link(dg, 2) == 0 ? ByteBuffer.allocate(0) : blocks.data(blocks.link(dg, 2));
        for (MdfGroup group : groups) {
            if (group.width() >= 0) {
                read(group, bytes, group.records(bytes, idSize, groups, remarks));
            } else {
                remarks.add("Channels of varying length were left out.");
            }
        }
    }

    private List<MdfChannel> channels(long first) {
        List<MdfChannel> channels = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        for (long at = first; at != 0; ) {
            MdfBlocks.Block cn = blocks.block(at, "CN");
            MdfBlocks.fresh(seen, at);
            if (channels.size() == MOST_CHANNELS) {
                throw new IllegalArgumentException(
                        "More than " + MOST_CHANNELS + " channels in a group");
            }
            int d = cn.data();
            channels.add(
                    new MdfChannel(
                            blocks.text(blocks.link(cn, 2)).orElse("channel"),
                            blocks.text(blocks.link(cn, 6)).orElse(""),
                            blocks.text(blocks.link(cn, 7)).orElse(""),
                            file.get(d) == 2 || file.get(d) == 3,
                            file.get(d) == 3 ? -1 : file.get(d + 2),
                            file.get(d + 3),
                            file.getInt(d + 4),
                            file.getInt(d + 8),
                            blocks.link(cn, 4),
                            (file.getInt(d + 12) & 2) != 0 ? file.getInt(d + 16) : -1));
            at = blocks.link(cn, 0);
        }
        return channels;
    }

    private void read(MdfGroup group, ByteBuffer bytes, int[] records) {
        samples += (long) records.length * group.channels().size();
        if (samples > MOST_SAMPLES) {
            throw new IllegalArgumentException(
                    "It holds more than "
                            + MOST_SAMPLES / 1_000_000
                            + " million samples, which is what this machine's memory takes at once; export fewer channels or a shorter part");
        }
        MdfChannel master =
                group.channels().stream().filter(MdfChannel::master).findFirst().orElse(null);
        double[] times = new double[records.length];
        if (master == null || master.type() == -1) {
            // without a channel of times the number of the record is all there is
            Arrays.setAll(times, i -> i);
        } else if (!MdfSamples.numbers(master, bytes, records, times)) {
            remarks.add(master.name() + ": times that cannot be read; its group was left out.");
            return;
        } else {
            conversion.convert(master, times);
        }
        for (MdfChannel channel : group.channels()) {
            if (channel.master()) {
                continue;
            }
            double[] y = new double[records.length];
            Map<Integer, String> words = Map.of();
            if (channel.isText()) {
                words = MdfSamples.texts(channel, bytes, records, y);
                if (words.size() >= MdfSamples.MOST_WORDS) {
                    remarks.add(
                            channel.name()
                                    + ": more than "
                                    + MdfSamples.MOST_WORDS
                                    + " different texts; left out.");
                    continue;
                }
            } else if (!MdfSamples.numbers(channel, bytes, records, y)) {
                remarks.add(
                        channel.name()
                                + ": data type "
                                + channel.type()
                                + " is not read; left out.");
                continue;
            }
            Map<Integer, String> states = channel.isText() ? words : conversion.convert(channel, y);
            invalid(group, channel, bytes, records, y);
            String id =
                    channel.comment().matches("[A-Za-z][A-Za-z0-9.+-]*")
                            ? channel.comment()
                            : "log."
                                    + channel.name()
                                            .toLowerCase(Locale.ROOT)
                                            .replaceAll("[^a-z0-9]+", "-");
            while (!used.add(id)) {
                id += "-2";
            }
            columns.put(id, new Take.Column(times, y));
            values.add(
                    new Value(
                            id,
                            "log",
                            0,
                            4,
                            true,
                            1,
                            0,
                            channel.name(),
                            channel.unit(),
                            channel.unit(),
                            2,
                            states,
                            List.of(),
                            List.of()));
        }
    }

    /** What the recorder marked as not valid is a gap. */
    private void invalid(
            MdfGroup group, MdfChannel c, ByteBuffer bytes, int[] records, double[] y) {
        if (c.invalidBit() < 0 || c.invalidBit() / 8 >= group.invalid()) {
            return;
        }
        int gaps = 0;
        for (int i = 0; i < y.length; i++) {
            int at = records[i] + group.width() + c.invalidBit() / 8;
            if (at < bytes.limit() && (bytes.get(at) >> (c.invalidBit() % 8) & 1) != 0) {
                y[i] = Double.NaN;
                gaps++;
            }
        }
        if (gaps > 0) {
            remarks.add(
                    c.name()
                            + ": "
                            + Words.count(gaps, "sample")
                            + " marked as not valid are gaps.");
        }
    }
}
