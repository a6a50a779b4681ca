package brightlantern.wire;

/**
 * Bytes that are not what the protocol says; names the place, what was expected and what was there.
 */
public class WireFormatException extends WireException {
    private static final long serialVersionUID = 1L;
    private final int offset;

    /**
     * @param offset index of the first wrong byte in the message, from 0
     */
    public WireFormatException(int offset, String expected, String found) {
        super("byte " + offset + ": expected " + expected + ", found " + found);
        this.offset = offset;
    }

    /** Byte at which it went wrong, from 0. */
    public int offset() {
        return offset;
    }
}
