package brightlantern.core.procedure;

import java.util.List;

/**
 * One step of a procedure.
 *
 * @param says what to do, or what is done
 * @param why it is done, and what to expect; either may be empty
 */
public record Step(String id, String says, String why, String expect, Act act) {
    /** A way out of a step. */
    public record Exit(String when, String to) {}

    /** Where it may lead. */
    public List<Exit> exits() {
        return act.exits();
    }
}
