package brightlantern.wire;

/** The work was cancelled on this side while it waited for an answer. */
public class CancelledException extends WireException {
    private static final long serialVersionUID = 1L;

    public CancelledException(String message) {
        super(message);
    }
}
