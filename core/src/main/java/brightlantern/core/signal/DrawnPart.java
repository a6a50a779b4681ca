package brightlantern.core.signal;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * @param shape box, round or tank
 * @param x and y: grid column and row of its middle
 */
public record DrawnPart(
        String id, String name, String shape, double x, double y, List<String> values) {
    public DrawnPart {
        shape = shape == null ? "box" : shape;
        values = OrEmpty.list(values);
    }
}
