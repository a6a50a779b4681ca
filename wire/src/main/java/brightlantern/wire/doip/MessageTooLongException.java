package brightlantern.wire.doip;

import brightlantern.wire.WireFormatException;

/** A header that announces more than is accepted; what it announces may be skipped. */
public final class MessageTooLongException extends WireFormatException {
    private static final long serialVersionUID = 1L;

    /** Bytes of payload that its header announces. */
    private final long length;

    MessageTooLongException(long length) {
        super(4, "a payload of at most " + DoipCodec.MAX_PAYLOAD + " bytes", length + " bytes");
        this.length = length;
    }

    /** Bytes of payload that its header announces. */
    public long length() {
        return length;
    }
}
