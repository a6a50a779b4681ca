package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * A loop that a module sends through plugs and back, as it is written: while one of them is not
 * seated, nothing comes back, as in the interlock of a high-voltage system (ISO 6469-3).
 *
 * @param module that sends and watches it
 * @param plug its connector
 * @param out and back its pins
 * @param stud of the module's own earth
 * @param code that it sets when nothing comes back
 * @param links what it passes, in this order
 */
public record Loop(
        String id,
        String name,
        String system,
        String module,
        String plug,
        String out,
        String back,
        String stud,
        String code,
        String colour,
        String place,
        double minutes,
        List<Link> links) {
    public Loop {
        links = OrEmpty.list(links);
    }

    /**
     * A part that the loop passes: two pins of a plug that a probe can touch, and between them a
     * bridge in a plug that is not to be opened.
     *
     * @param plug the low-voltage connector
     * @param pins in and out
     * @param bridge what closes it, in words
     */
    public record Link(
            String id,
            String name,
            String plug,
            List<String> pins,
            String bridge,
            String place,
            double minutes) {
        public Link {
            pins = OrEmpty.list(pins);
        }
    }
}
