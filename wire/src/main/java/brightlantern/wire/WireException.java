package brightlantern.wire;

import java.io.IOException;

/** Something went wrong on the wire; the message is fit to be shown to a technician. */
public class WireException extends IOException {
    private static final long serialVersionUID = 1L;

    /**
     * @param message what went wrong, for the technician
     */
    public WireException(String message) {
        super(message);
    }

    /**
     * @param message what went wrong, for the technician
     */
    public WireException(String message, Throwable cause) {
        super(message, cause);
    }
}
