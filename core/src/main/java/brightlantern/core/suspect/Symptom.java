package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Condition;
import java.util.List;

/**
 * @param under what must hold for the complaint to show, as far as live values tell; may be empty
 */
public record Symptom(
        String id,
        String system,
        String name,
        String when,
        List<String> families,
        List<Condition> under) {
    public Symptom {
        families = OrEmpty.list(families);
        under = OrEmpty.list(under);
    }
}
