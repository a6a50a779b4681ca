package brightlantern.wire;

/** The gateway says that it knows no module at this address (ISO 13400-2, code 0x03). */
public class NotThereException extends WireException {
    private static final long serialVersionUID = 1L;

    /**
     * @param message whose address it is
     */
    public NotThereException(String message) {
        super(message);
    }
}
