package brightlantern.wire;

/**
 * Reads big-endian fields one after another; running short is a protocol error that names the byte.
 */
public final class ByteCursor {
    private final Bytes bytes;
    private final int base;
    private int position;

    /**
     * @param base offset of the first byte within the whole message, for error texts
     */
    public ByteCursor(Bytes bytes, int base) {
        this.bytes = bytes;
        this.base = base;
    }

    /** How many bytes are left. */
    public int left() {
        return bytes.size() - position;
    }

    /** Offset of the next byte within the whole message. */
    public int offset() {
        return base + position;
    }

    /** The next byte, unsigned. */
    public int u8(String field) throws WireFormatException {
        need(1, field);
        return bytes.at(position++);
    }

    /** The next two bytes, big-endian, unsigned. */
    public int u16(String field) throws WireFormatException {
        need(2, field);
        return u8(field) << 8 | u8(field);
    }

    /** The next three bytes, big-endian, unsigned. */
    public int u24(String field) throws WireFormatException {
        need(3, field);
        return u8(field) << 16 | u16(field);
    }

    /** The next four bytes, big-endian, unsigned. */
    public long u32(String field) throws WireFormatException {
        need(4, field);
        return (long) u16(field) << 16 | u16(field);
    }

    /** The next so many bytes. */
    public Bytes take(int length, String field) throws WireFormatException {
        need(length, field);
        Bytes taken = bytes.slice(position, length);
        position += length;
        return taken;
    }

    /** All that is left. */
    public Bytes rest() {
        Bytes taken = bytes.from(position);
        position = bytes.size();
        return taken;
    }

    /**
     * @throws WireFormatException when bytes are left over
     */
    public void end(String message) throws WireFormatException {
        if (left() > 0) {
            throw new WireFormatException(
                    offset(),
                    "the end of the " + message,
                    left() + " more byte(s), first " + bytes.slice(position, 1));
        }
    }

    private void need(int length, String field) throws WireFormatException {
        if (length < 0 || left() < length) {
            throw new WireFormatException(
                    offset(), length + " byte(s) of " + field, "only " + left() + " byte(s) left");
        }
    }
}
