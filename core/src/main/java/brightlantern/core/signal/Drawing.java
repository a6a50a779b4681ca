package brightlantern.core.signal;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * A system as a picture: parts with the values that are measured there, and what joins them.
 *
 * @param pipes pairs of part ids, in the direction of the flow
 */
public record Drawing(String id, String name, List<DrawnPart> parts, List<List<String>> pipes) {
    public Drawing {
        parts = OrEmpty.list(parts);
        pipes = OrEmpty.list(pipes);
    }
}
