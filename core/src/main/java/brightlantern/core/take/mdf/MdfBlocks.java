package brightlantern.core.take.mdf;

import brightlantern.core.signal.Words;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/** The blocks of an MDF 4 file, their links, their texts, and the bytes of their data. */
final class MdfBlocks {
    private static final int HEADER = 24;
    private static final int MOST_BYTES = 1 << 30;

    /** Deflate cannot make more out of a byte than this (RFC 1951). */
    private static final long MOST_INFLATED = 1032;

    private final ByteBuffer file;

    MdfBlocks(ByteBuffer file) {
        this.file = file.order(ByteOrder.LITTLE_ENDIAN);
    }

    /** The whole file, low byte first. */
    ByteBuffer file() {
        return file;
    }

    /** Bytes beside its links that a block of a kind has at least (ASAM MDF 4.1). */
    private static final Map<String, Integer> LEAST_DATA =
            Map.of("HD", 31, "DG", 1, "CG", 32, "CN", 24, "CC", 24, "EV", 32, "DZ", 24, "DL", 8);

    record Block(String kind, long at, long length, int links) {
        int data() {
            return (int) at + HEADER + 8 * links;
        }

        long dataLength() {
            return length - HEADER - 8L * links;
        }
    }

    static void fresh(Set<Long> seen, long at) {
        if (!seen.add(at)) {
            throw new IllegalArgumentException("Byte " + at + ": the blocks go round in a circle");
        }
    }

    String ascii(int at, int length) {
        byte[] letters = new byte[length];
        file.get(at, letters);
        return new String(letters, StandardCharsets.US_ASCII);
    }

    Block block(long at, String expected) {
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

    Block block(long at) {
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
        Block block = new Block(ascii(a + 2, 2), at, length, (int) links);
        int least = LEAST_DATA.getOrDefault(block.kind(), 0);
        if (block.dataLength() < least) {
            throw new IllegalArgumentException(
                    "Byte "
                            + at
                            + ": expected a block ##"
                            + block.kind()
                            + " with "
                            + Words.count(least, "byte")
                            + " of its own, found "
                            + block.dataLength());
        }
        return block;
    }

    long link(Block block, int number) {
        return number < block.links() ? file.getLong((int) block.at() + HEADER + 8 * number) : 0;
    }

    Optional<String> text(long at) {
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

    /** The bytes of a data block, of a list of them, or of deflated ones. */
    ByteBuffer data(long at) {
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
}
