package brightlantern.standin.network;

/**
 * The bits of a classical frame with an identifier of 11 bits (ISO 11898-1): stuffed up to the end
 * of its checksum, then delimiter, acknowledgement, delimiter and end of frame.
 */
final class CanBits {
    /** Of the bits that come after the stuffed ones, the second is the acknowledgement. */
    private static final int TAIL = 10;

    private final boolean[] stuffed = new boolean[200];
    private int count;
    private int run;
    private boolean last;
    private int crc;

    private CanBits() {}

    /**
     * @return true for dominant; the acknowledgement is left recessive
     */
    static boolean[] of(int id, byte[] data) {
        CanBits bits = new CanBits();
        bits.put(0, 1);
        bits.put(id, 11);
        bits.put(0, 3);
        bits.put(data.length, 4);
        for (byte b : data) {
            bits.put(b & 0xFF, 8);
        }
        bits.put(bits.crc, 15);
        if (bits.run == 5) {
            bits.add(!bits.last);
        }
        boolean[] all = new boolean[bits.count + TAIL];
        System.arraycopy(bits.stuffed, 0, all, 0, bits.count);
        return all;
    }

    /** Where the acknowledgement is in a frame of so many bits. */
    static int acknowledgement(int length) {
        return length - TAIL + 1;
    }

    private void put(int value, int width) {
        int told = value;
        for (int i = width - 1; i >= 0; i--) {
            boolean one = (told >> i & 1) == 1;
            if (run == 5) {
                add(!last);
            }
            add(!one);
            boolean next = one ^ (crc >> 14 & 1) == 1;
            crc = crc << 1 & 0x7FFF;
            crc = next ? crc ^ 0x4599 : crc;
        }
    }

    private void add(boolean dominant) {
        run = count > 0 && dominant == last ? run + 1 : 1;
        last = dominant;
        stuffed[count++] = dominant;
    }
}
