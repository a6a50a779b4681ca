package brightlantern.core.study.trim;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Condition;
import java.util.List;

/** A way in which the engine runs, held by its conditions. */
public record Regime(String id, String name, List<Condition> when) {
    public Regime {
        when = OrEmpty.list(when);
    }
}
