package brightlantern.core.capture.bus;

/** A cyclic redundancy check, bit by bit (ISO 11898-1, 10.4.2.6). */
final class Checksum {
    private final int width;
    private final int polynomial;
    private final boolean stuffBits;
    private int value;

    private Checksum(int width, int polynomial, int begins, boolean stuffBits) {
        this.width = width;
        this.polynomial = polynomial;
        this.value = begins;
        this.stuffBits = stuffBits;
    }

    static Checksum classical() {
        return new Checksum(15, 0x4599, 0, false);
    }

    /** Of frames with flexible data rate and at most sixteen bytes. */
    static Checksum ofFew() {
        return new Checksum(17, 0x1685B, 1 << 16, true);
    }

    /** Of frames with flexible data rate and more bytes. */
    static Checksum ofMany() {
        return new Checksum(21, 0x102899, 1 << 20, true);
    }

    void take(boolean one) {
        boolean next = one ^ (value >> width - 1 & 1) == 1;
        value = value << 1 & (1 << width) - 1;
        value = next ? value ^ polynomial : value;
    }

    int value() {
        return value;
    }

    int width() {
        return width;
    }

    /** Whether it is taken over the stuff bits as well. */
    boolean coversStuffBits() {
        return stuffBits;
    }
}
