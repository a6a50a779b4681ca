package brightlantern.core.vehicle;

import java.util.List;

/**
 * A vehicle description with mistakes; every line of the message names file, line and what was
 * expected.
 */
public class DescriptionException extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final transient List<String> mistakes;

    /**
     * @param mistakes each with file, line, what was expected and what was found
     */
    public DescriptionException(List<String> mistakes) {
        super(String.join("\n", mistakes));
        this.mistakes = List.copyOf(mistakes);
    }

    /** Each with file, line, what was expected and what was found. */
    public List<String> mistakes() {
        return mistakes;
    }
}
