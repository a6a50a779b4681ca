package brightlantern.core.take.mdf;

import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.take.Take;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
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
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/**
 * Reads MDF 4 files: sorted and unsorted data groups, data in one block, in lists, and deflated;
 * integers and floats of either byte order; conversions one-to-one, linear, rational and value to
 * text. What it cannot read is named and left out.
 */
public final class MdfReader {
    private static final int HEADER = 24;
    private static final int MOST_BYTES = 1 << 30;
    private static final int MOST_CHANNELS = 20_000;

    /** Deflate cannot make more out of a byte than this (RFC 1951). */
    private static final long MOST_INFLATED = 1032;

    private final ByteBuffer file;
    private final List<String> remarks = new ArrayList<>();
    private final Map<String, Take.Column> columns = new LinkedHashMap<>();
    private final List<Value> values = new ArrayList<>();
    private final Set<String> used = new HashSet<>();

    /** A sample takes 8 bytes, and its column half as much again while it is made. */
    private static final long MOST_SAMPLES = Runtime.getRuntime().maxMemory() / 2 / 12;

    /** More different texts than this are no states. */
    private static final int MOST_WORDS = 200;

    private long samples;

    private MdfReader(ByteBuffer file) {
        this.file = file.order(ByteOrder.LITTLE_ENDIAN);
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

    private record Block(String kind, long at, long length, int links) {
        int data() {
            return (int) at + HEADER + 8 * links;
        }

        long dataLength() {
            return length - HEADER - 8L * links;
        }
    }

    /** A channel of a group. */
    private record Channel(
            String name,
            String unit,
            String comment,
            boolean master,
            int type,
            int bitOffset,
            int byteOffset,
            int bits,
            long conversion,
            int invalidBit) {
        boolean isText() {
            return type >= 6 && type <= 9;
        }
    }

    /** A channel group: where its records are in the data. */
    private record Group(
            long recordId, long cycles, int width, int invalid, List<Channel> channels) {}

    private Read whole() {
        String mark = file.capacity() < 64 + 104 ? "" : ascii(0, 8);
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
        Block head = block(64, "HD");
        long nanos = file.getLong(head.data());
        Set<Long> seen = new HashSet<>();
        for (long at = link(head, 0); at != 0; ) {
            Block group = block(at, "DG");
            fresh(seen, at);
            dataGroup(group);
            at = link(group, 0);
        }
        List<Take.Mark> marks = new ArrayList<>();
        for (long at = link(head, 4); at != 0; ) {
            Block event = block(at, "EV");
            fresh(seen, at);
            int data = event.data();
            if (file.get(data + 1) == 1) {
                marks.add(
                        new Take.Mark(
                                file.getLong(data + 16) * file.getDouble(data + 24),
                                text(link(event, 3)).orElse("mark")));
            }
            at = link(event, 0);
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

    private static void fresh(Set<Long> seen, long at) {
        if (!seen.add(at)) {
            throw new IllegalArgumentException("Byte " + at + ": the blocks go round in a circle");
        }
    }

    private String ascii(int at, int length) {
        byte[] letters = new byte[length];
        file.get(at, letters);
        return new String(letters, StandardCharsets.US_ASCII);
    }

    private Block block(long at, String expected) {
        Block block = block(at);
        if (!block.kind().equals(expected)) {
            throw new IllegalArgumentException(
                    "Byte "
                            + at
                            + ": expected a block ##"
                            + expected
                            + ", found ##"
                            + block.kind());
        }
        return block;
    }

    private Block block(long at) {
        if (at < 64 || at > file.capacity() - HEADER) {
            throw new IllegalArgumentException(
                    "Byte " + at + ": expected a block, but the file ends at " + file.capacity());
        }
        int a = (int) at;
        long length = file.getLong(a + 8);
        long links = file.getLong(a + 16);
        if (file.get(a) != '#'
                || length < HEADER
                || links < 0
                || links > (length - HEADER) / 8
                || length > file.capacity() - at) {
            throw new IllegalArgumentException(
                    "Byte "
                            + at
                            + ": expected a whole block, found one of "
                            + length
                            + " bytes with "
                            + links
                            + " links in a file of "
                            + file.capacity());
        }
        return new Block(ascii(a + 2, 2), at, length, (int) links);
    }

    private long link(Block block, int number) {
        return number < block.links() ? file.getLong((int) block.at() + HEADER + 8 * number) : 0;
    }

    private Optional<String> text(long at) {
        if (at == 0) {
            return Optional.empty();
        }
        Block block = block(at);
        int end = block.data();
        int most = (int) (block.at() + block.length());
        while (end < most && file.get(end) != 0) {
            end++;
        }
        byte[] letters = new byte[end - block.data()];
        file.get(block.data(), letters);
        String text = new String(letters, StandardCharsets.UTF_8);
        return Optional.of((block.kind().equals("MD") ? told(text) : text).trim());
    }

    /** What stands in the last element TX of a comment; the comment itself when it has none. */
    private static String told(String comment) {
        int end = comment.lastIndexOf("</TX>");
        int begin = end < 0 ? -1 : comment.lastIndexOf("<TX", end);
        int from = begin < 0 ? -1 : comment.indexOf('>', begin);
        return from < 0 || from > end ? comment : comment.substring(from + 1, end);
    }

    private void dataGroup(Block dg) {
        int idSize = file.get(dg.data());
        if (idSize != 0 && idSize != 1 && idSize != 2 && idSize != 4 && idSize != 8) {
            throw new IllegalArgumentException(
                    "Byte "
                            + dg.data()
                            + ": expected a record id of 0, 1, 2, 4 or 8 bytes, found "
                            + idSize);
        }
        List<Group> groups = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        for (long at = link(dg, 1); at != 0; ) {
            Block cg = block(at, "CG");
            fresh(seen, at);
            int data = cg.data();
            boolean variable = (file.getShort(data + 16) & 1) != 0;
            groups.add(
                    new Group(
                            file.getLong(data),
                            file.getLong(data + 8),
                            variable ? -1 : file.getInt(data + 24),
                            file.getInt(data + 28),
                            variable ? List.of() : channels(link(cg, 1))));
            at = link(cg, 0);
        }
        ByteBuffer bytes = link(dg, 2) == 0 ? ByteBuffer.allocate(0) : data(link(dg, 2));
        for (Group group : groups) {
            if (group.width() >= 0) {
                read(group, bytes, records(bytes, idSize, group, groups));
            } else {
                remarks.add("Channels of varying length were left out.");
            }
        }
    }

    private List<Channel> channels(long first) {
        List<Channel> channels = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        for (long at = first; at != 0; ) {
            Block cn = block(at, "CN");
            fresh(seen, at);
            if (channels.size() == MOST_CHANNELS) {
                throw new IllegalArgumentException(
                        "More than " + MOST_CHANNELS + " channels in a group");
            }
            int d = cn.data();
            channels.add(
                    new Channel(
                            text(link(cn, 2)).orElse("channel"),
                            text(link(cn, 6)).orElse(""),
                            text(link(cn, 7)).orElse(""),
                            file.get(d) == 2 || file.get(d) == 3,
                            file.get(d) == 3 ? -1 : file.get(d + 2),
                            file.get(d + 3),
                            file.getInt(d + 4),
                            file.getInt(d + 8),
                            link(cn, 4),
                            (file.getInt(d + 12) & 2) != 0 ? file.getInt(d + 16) : -1));
            at = link(cn, 0);
        }
        return channels;
    }

    /** The bytes of a data block, of a list of them, or of deflated ones. */
    private ByteBuffer data(long at) {
        Block block = block(at);
        if (block.kind().equals("DT")) {
            // one block is read where it stands
            return file.slice(block.data(), (int) block.dataLength());
        }
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        gather(at, all, new HashSet<>());
        return ByteBuffer.wrap(all.toByteArray());
    }

    private void gather(long at, ByteArrayOutputStream all, Set<Long> seen) {
        for (long next = at; next != 0; ) {
            fresh(seen, next);
            Block block = block(next);
            next = 0;
            switch (block.kind()) {
                case "DT", "RD" -> {
                    byte[] part = new byte[(int) block.dataLength()];
                    file.get(block.data(), part);
                    all.writeBytes(part);
                }
                case "DZ" -> inflate(block, all);
                case "HL" -> next = link(block, 0);
                case "DL" -> {
                    for (int i = 1; i < block.links(); i++) {
                        if (link(block, i) != 0) {
                            gather(link(block, i), all, seen);
                        }
                    }
                    next = link(block, 0);
                }
                default ->
                        throw new IllegalArgumentException(
                                "Byte " + block.at() + ": expected data, found ##" + block.kind());
            }
            if (all.size() > Math.min(MOST_BYTES, Runtime.getRuntime().maxMemory() / 3)) {
                throw new IllegalArgumentException(
                        "A data group is larger than this machine's memory takes at once; export a part of it");
            }
        }
    }

    private void inflate(Block block, ByteArrayOutputStream all) {
        int d = block.data();
        int kind = file.get(d + 2);
        long parameter = file.getInt(d + 4);
        long original = file.getLong(d + 8);
        long packed = file.getLong(d + 16);
        if (original < 0
                || original > MOST_BYTES
                || packed < 0
                || packed > block.dataLength() - 24
                || original > MOST_INFLATED * Math.max(packed, 64)) {
            throw new IllegalArgumentException(
                    "Byte "
                            + d
                            + ": expected the sizes of deflated data, found "
                            + original
                            + " and "
                            + packed);
        }
        byte[] out = new byte[(int) original];
        Inflater inflater = new Inflater();
        try {
            inflater.setInput(file.slice(d + 24, (int) packed));
            int n = 0;
            while (n < out.length) {
                int got = inflater.inflate(out, n, out.length - n);
                if (got == 0) {
                    throw new IllegalArgumentException(
                            "Byte " + d + ": the deflated data ends early");
                }
                n += got;
            }
        } catch (DataFormatException damaged) {
            throw new IllegalArgumentException(
                    "Byte " + d + ": the deflated data is damaged: " + damaged.getMessage(),
                    damaged);
        } finally {
            inflater.end();
        }
        if (kind == 1 && parameter > 0) {
            // columns were written one after the other; what is left over stands at the end
            int width = (int) parameter;
            int rows = out.length / width;
            byte[] turned = out.clone();
            for (int c = 0; c < width; c++) {
                for (int r = 0; r < rows; r++) {
                    turned[r * width + c] = out[c * rows + r];
                }
            }
            out = turned;
        }
        all.writeBytes(out);
    }

    /** Where the records of a group begin within the data. */
    private int[] records(ByteBuffer bytes, int idSize, Group wanted, List<Group> groups) {
        int width = wanted.width() + wanted.invalid();
        if (width <= 0) {
            return new int[0];
        }
        if (idSize == 0) {
            int n = (int) Math.min(Math.max(0, wanted.cycles()), bytes.limit() / width);
            if (n < wanted.cycles()) {
                remarks.add(
                        Words.counted(
                                wanted.cycles()
                                        - n
                                        + " record(s) missing at the end; the file is torn."));
            }
            int[] at = new int[n];
            Arrays.setAll(at, i -> i * width);
            return at;
        }
        ByteBuffer data = bytes.order(ByteOrder.LITTLE_ENDIAN);
        int[] found = new int[bytes.limit() / (width + idSize) + 1];
        int n = 0;
        int at = 0;
        while (at + idSize <= bytes.limit()) {
            long id =
                    switch (idSize) {
                        case 1 -> data.get(at) & 0xFF;
                        case 2 -> data.getShort(at) & 0xFFFF;
                        case 4 -> data.getInt(at) & 0xFFFFFFFFL;
                        default -> data.getLong(at);
                    };
            at += idSize;
            Group its = groups.stream().filter(g -> g.recordId() == id).findFirst().orElse(null);
            if (its == null) {
                remarks.add(
                        "A record of an unknown group " + id + "; what follows it was left out.");
                break;
            }
            int length =
                    its.width() >= 0
                            ? its.width() + its.invalid()
                            : at + 4 <= bytes.limit() ? 4 + data.getInt(at) : 4;
            if (length < 0 || at + length > bytes.limit()) {
                break;
            }
            if (its == wanted) {
                found[n++] = at;
            }
            at += length;
        }
        return Arrays.copyOf(found, n);
    }

    private void read(Group group, ByteBuffer bytes, int[] records) {
        samples += (long) records.length * group.channels().size();
        if (samples > MOST_SAMPLES) {
            throw new IllegalArgumentException(
                    "It holds more than "
                            + MOST_SAMPLES / 1_000_000
                            + " million samples, which is what this machine's memory takes at once; export fewer channels or a shorter part");
        }
        Channel master = group.channels().stream().filter(Channel::master).findFirst().orElse(null);
        double[] times = new double[records.length];
        if (master == null || master.type() == -1) {
            // without a channel of times the number of the record is all there is
            Arrays.setAll(times, i -> i);
        } else if (!numbers(master, bytes, records, times)) {
            remarks.add(master.name() + ": times that cannot be read; its group was left out.");
            return;
        } else {
            convert(master, times);
        }
        for (Channel channel : group.channels()) {
            if (channel.master()) {
                continue;
            }
            double[] y = new double[records.length];
            Map<Integer, String> words = Map.of();
            if (channel.isText()) {
                words = texts(channel, bytes, records, y);
                if (words.size() >= MOST_WORDS) {
                    remarks.add(
                            channel.name()
                                    + ": more than "
                                    + MOST_WORDS
                                    + " different texts; left out.");
                    continue;
                }
            } else if (!numbers(channel, bytes, records, y)) {
                remarks.add(
                        channel.name()
                                + ": data type "
                                + channel.type()
                                + " is not read; left out.");
                continue;
            }
            Map<Integer, String> states = channel.isText() ? words : convert(channel, y);
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
    private void invalid(Group group, Channel c, ByteBuffer bytes, int[] records, double[] y) {
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

    /** Texts of fixed length as states, each one a number; {@link #MOST_WORDS} of them at most. */
    private static Map<Integer, String> texts(
            Channel c, ByteBuffer bytes, int[] records, double[] into) {
        Charset letters =
                switch (c.type()) {
                    case 6 -> StandardCharsets.ISO_8859_1;
                    case 8 -> StandardCharsets.UTF_16LE;
                    case 9 -> StandardCharsets.UTF_16BE;
                    default -> StandardCharsets.UTF_8;
                };
        Map<String, Integer> numbers = new LinkedHashMap<>();
        byte[] one = new byte[Math.max(0, c.bits() / 8)];
        for (int i = 0; i < records.length && numbers.size() < MOST_WORDS; i++) {
            int at = records[i] + c.byteOffset();
            if (at < 0 || at + one.length > bytes.limit()) {
                into[i] = Double.NaN;
                continue;
            }
            bytes.get(at, one);
            String text = new String(one, letters);
            int end = text.indexOf('\0');
            into[i] =
                    numbers.computeIfAbsent(
                            (end < 0 ? text : text.substring(0, end)).trim(), t -> numbers.size());
        }
        Map<Integer, String> words = new LinkedHashMap<>();
        numbers.forEach((text, n) -> words.put(n, text));
        return words;
    }

    private static boolean numbers(Channel c, ByteBuffer bytes, int[] records, double[] into) {
        boolean whole = c.type() >= 0 && c.type() <= 3 && c.bits() >= 1 && c.bits() <= 64;
        boolean real = (c.type() == 4 || c.type() == 5) && (c.bits() == 32 || c.bits() == 64);
        int length = (c.bitOffset() + c.bits() + 7) / 8;
        if (!whole && !real || c.byteOffset() < 0 || length > 8) {
            return false;
        }
        boolean big = c.type() == 1 || c.type() == 3 || c.type() == 5;
        for (int i = 0; i < records.length; i++) {
            int at = records[i] + c.byteOffset();
            if (at + length > bytes.limit()) {
                return false;
            }
            long raw = 0;
            for (int b = 0; b < length; b++) {
                long one = bytes.get(big ? at + length - 1 - b : at + b) & 0xFFL;
                raw |= one << (8 * b);
            }
            raw >>>= c.bitOffset();
            if (real) {
                into[i] =
                        c.bits() == 64
                                ? Double.longBitsToDouble(raw)
                                : Float.intBitsToFloat((int) raw);
            } else if (c.type() >= 2) {
                into[i] = raw << (64 - c.bits()) >> (64 - c.bits());
            } else {
                raw = c.bits() == 64 ? raw : raw & (1L << c.bits()) - 1;
                into[i] = raw >= 0 ? raw : raw * 1.0 + 0x1p64;
            }
        }
        return true;
    }

    /** Raw numbers become physical ones in place; the words for numbers, when they are states. */
    private Map<Integer, String> convert(Channel channel, double[] y) {
        if (channel.conversion() == 0) {
            return Map.of();
        }
        Block cc = block(channel.conversion(), "CC");
        int d = cc.data();
        int kind = file.get(d);
        int references = file.getShort(d + 4) & 0xFFFF;
        int count = file.getShort(d + 6) & 0xFFFF;
        if (24 + 8L * count > cc.dataLength()) {
            throw new IllegalArgumentException(
                    "Byte "
                            + d
                            + ": expected "
                            + count
                            + " numbers of a conversion, but the block ends");
        }
        double[] p = new double[count];
        for (int i = 0; i < count; i++) {
            p[i] = file.getDouble(d + 24 + 8 * i);
        }
        switch (kind) {
            case 0 -> {
                // one to one
            }
            case 1 -> {
                for (int i = 0; i < y.length && count >= 2; i++) {
                    y[i] = p[0] + p[1] * y[i];
                }
            }
            case 2 -> {
                for (int i = 0; i < y.length && count >= 6; i++) {
                    double x = y[i];
                    y[i] = (p[0] * x * x + p[1] * x + p[2]) / (p[3] * x * x + p[4] * x + p[5]);
                }
            }
            case 7 -> {
                Map<Integer, String> words = new LinkedHashMap<>();
                for (int i = 0; i < count && i < references; i++) {
                    int number = (int) p[i];
                    text(link(cc, 4 + i)).ifPresent(word -> words.put(number, word));
                }
                return words;
            }
            case 8 -> {
                return ranges(cc, p, references, y);
            }
            default ->
                    remarks.add(
                            channel.name()
                                    + ": conversion "
                                    + kind
                                    + " is not read; raw numbers are shown.");
        }
        return Map.of();
    }

    /** Value range to text: each range is a state, and one more for what lies in none. */
    private Map<Integer, String> ranges(Block cc, double[] p, int references, double[] y) {
        int count = Math.min(p.length / 2, references);
        Map<Integer, String> words = new LinkedHashMap<>();
        for (int i = 0; i < count; i++) {
            words.put(i, text(link(cc, 4 + i)).orElse("state " + i));
        }
        words.put(count, text(link(cc, 4 + count)).orElse("other"));
        for (int k = 0; k < y.length; k++) {
            int state = count;
            for (int i = 0; i < count && state == count; i++) {
                state = y[k] >= p[2 * i] && y[k] <= p[2 * i + 1] ? i : count;
            }
            y[k] = Double.isNaN(y[k]) ? Double.NaN : state;
        }
        return words;
    }
}
