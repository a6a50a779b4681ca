package brightlantern.core.filter;

/** A condition that cannot be understood, with the place where it goes wrong. */
public final class FilterException extends Exception {
    private static final long serialVersionUID = 1L;

    private final int position;

    /**
     * @param position index of the first character that does not fit, 0 the first
     */
    public FilterException(String message, int position) {
        super(message);
        this.position = position;
    }

    /** Place in the text, from 0. */
    public int position() {
        return position;
    }

    /** The text with a mark under the place. */
    public String shownIn(String text) {
        return text + "\n" + " ".repeat(Math.min(position, text.length())) + "^ " + getMessage();
    }
}
