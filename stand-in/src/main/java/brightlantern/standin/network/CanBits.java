package brightlantern.standin.network;

import java.util.Arrays;

/**
 * The bits of a frame with an identifier of 11 bits (ISO 11898-1): a classical one, stuffed up to
 * the end of its checksum, or one with flexible data rate, whose data, and the count and checksum
 * behind it, go at the faster rate; then delimiter, acknowledgement, delimiter and end of frame.
 */
final class CanBits {
    /** Of the bits that come after the checksum, the second is the acknowledgement. */
    private static final int TAIL = 10;

    /** Where in its bit a sender switches the rate. */
    private static final double SWITCHES_AT = 0.8;

    private static final int MOST = 900;
    private static final int FEW_BYTES = 16;

    private final boolean[] dominant = new boolean[MOST];
    private final double[] lengths = new double[MOST];
    private final int width;
    private final int polynomial;
    private int count;
    private int run;
    private boolean last;
    private int stuffed;
    private int crc;
    private double length = 1;

    private CanBits(int width, int polynomial, int begins) {
        this.width = width;
        this.polynomial = polynomial;
        this.crc = begins;
    }

    /**
     * @param dominant true for dominant; the acknowledgement is left recessive
     * @param lengths of each bit, in bits at the slower rate
     */
    record Frame(boolean[] dominant, double[] lengths) {
        /** Where the acknowledgement is. */
        int acknowledgement() {
            return dominant.length - TAIL + 1;
        }
    }

    /** A classical frame. */
    static Frame of(int id, byte[] data) {
        CanBits bits = new CanBits(15, 0x4599, 0);
        bits.put(id, 12);
        bits.put(0, 3);
        bits.put(data.length, 4);
        bits.put(data);
        bits.put(bits.crc, 15);
        if (bits.run == 5) {
            bits.add(!bits.last);
        }
        return bits.ended(1);
    }

    /**
     * One with flexible data rate.
     *
     * @param code of its length
     * @param fast length of a bit of data, in bits at the slower rate
     */
    static Frame flexible(int id, byte[] data, int code, double fast) {
        CanBits bits =
                data.length <= FEW_BYTES
                        ? new CanBits(17, 0x1685B, 1 << 16)
                        : new CanBits(21, 0x102899, 1 << 20);
        bits.put(id, 12);
        bits.put(0b0010, 4);
        bits.length = SWITCHES_AT + (1 - SWITCHES_AT) * fast;
        bits.stuff(1);
        bits.put(1, 1);
        bits.length = fast;
        bits.put(code, 5);
        bits.put(data);
        int gray = bits.stuffed % 8 ^ bits.stuffed % 8 >> 1;
        int counted = gray << 1 | Integer.bitCount(gray) & 1;
        for (int i = 3; i >= 0; i--) {
            bits.sum((counted >> i & 1) == 1);
        }
        long tail = (long) counted << bits.width | bits.crc;
        for (int i = bits.width + 3, n = 0; i >= 0; i--, n++) {
            if (n % 4 == 0) {
                bits.add(!bits.last);
            }
            bits.add((tail >> i & 1) == 0);
        }
        return bits.ended(SWITCHES_AT * fast + 1 - SWITCHES_AT);
    }

    private Frame ended(double delimiter) {
        boolean[] all = new boolean[count + TAIL];
        double[] its = new double[all.length];
        Arrays.fill(its, 1);
        System.arraycopy(dominant, 0, all, 0, count);
        System.arraycopy(lengths, 0, its, 0, count);
        its[count] = delimiter;
        return new Frame(all, its);
    }

    private void put(byte[] data) {
        for (byte b : data) {
            put(b & 0xFF, 8);
        }
    }

    private void put(int value, int bits) {
        int told = value;
        for (int i = bits - 1; i >= 0; i--) {
            boolean one = (told >> i & 1) == 1;
            stuff(length);
            add(!one);
            sum(one);
        }
    }

    /** Adds a stuff bit of this length where one is due. */
    private void stuff(double its) {
        if (run == 5) {
            double after = length;
            length = its;
            add(!last);
            length = after;
            stuffed++;
            if (width > 15) {
                sum(!last);
            }
        }
    }

    private void sum(boolean one) {
        boolean next = one ^ (crc >> width - 1 & 1) == 1;
        crc = crc << 1 & (1 << width) - 1;
        crc = next ? crc ^ polynomial : crc;
    }

    private void add(boolean its) {
        run = count > 0 && its == last ? run + 1 : 1;
        last = its;
        lengths[count] = length;
        dominant[count++] = its;
    }
}
