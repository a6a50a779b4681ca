package brightlantern.wire;

/** The other side did not answer within its time. */
public class SilenceException extends WireException {
    private static final long serialVersionUID = 1L;

    /**
     * @param message who was silent, and for how long
     */
    public SilenceException(String message) {
        super(message);
    }
}
