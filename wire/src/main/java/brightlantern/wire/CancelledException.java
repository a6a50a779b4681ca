package brightlantern.wire;

/** The work was cancelled on this side while it waited for an answer. */
public class CancelledException extends WireException {
    private static final long serialVersionUID = 1L;

    /**
     * @param message what was being waited for
     */
    public CancelledException(String message) {
        super(message);
    }
}
