package brightlantern.core.procedure.library;

import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Step;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What must hold of the steps of a procedure together: each is reached and leads somewhere, what is
 * started is stopped, and nothing goes round without end.
 */
final class ProcedureChecks {
    private final List<Step> steps;
    private final List<RawStep> written;
    private final List<Procedure.Routine> routines;
    private final Map<String, Integer> numbers = new HashMap<>();
    private final List<String> mistakes;

    /**
     * @param written the same steps as they are written
     * @param mistakes to which those found are added
     */
    ProcedureChecks(
            List<Step> steps,
            List<RawStep> written,
            List<Procedure.Routine> routines,
            List<String> mistakes) {
        this.steps = steps;
        this.written = written;
        this.routines = routines;
        this.mistakes = mistakes;
        for (int i = 0; i < steps.size(); i++) {
            numbers.put(steps.get(i).id(), i);
        }
    }

    void check() {
        exits();
        if (!mistakes.isEmpty()) {
            return;
        }
        boolean[] reached = new boolean[steps.size()];
        reach(0, reached);
        for (int i = 0; i < steps.size(); i++) {
            if (!reached[i]) {
                wrong(i, "no step leads to '" + steps.get(i).id() + "'; it can never be reached");
            }
            if (steps.get(i).act() instanceof Act.RunRoutine r
                    && r.how() == Act.How.START
                    && !wayBack(r.routine())) {
                wrong(
                        i,
                        "routine '"
                                + r.routine()
                                + "' does not end by itself and no step stops it; a command needs a way back");
            }
        }
        for (int i = 0; i < steps.size(); i++) {
            if (circles(i, new HashSet<>(), i)) {
                wrong(
                        i,
                        "from '"
                                + steps.get(i).id()
                                + "' the program comes back to it without end; use 'repeat' with a limit");
                return;
            }
        }
    }

    private void wrong(int step, String sentence) {
        mistakes.add(written.get(step).place() + ": " + sentence);
    }

    private void exits() {
        for (int i = 0; i < steps.size(); i++) {
            for (Step.Exit exit : steps.get(i).exits()) {
                if (!numbers.containsKey(exit.to())) {
                    wrong(
                            i,
                            "'"
                                    + exit.when()
                                    + "' leads to "
                                    + (exit.to().isEmpty()
                                            ? "nothing; a procedure ends with 'conclude'"
                                            : "step '" + exit.to() + "', which is not there"));
                }
            }
        }
    }

    private boolean wayBack(String routine) {
        return routines.stream().anyMatch(r -> r.id().equals(routine) && r.endsItself())
                || steps.stream()
                        .anyMatch(
                                s ->
                                        s.act() instanceof Act.RunRoutine r
                                                && r.routine().equals(routine)
                                                && r.how() == Act.How.STOP);
    }

    private void reach(int at, boolean[] reached) {
        if (reached[at]) {
            return;
        }
        reached[at] = true;
        for (Step.Exit exit : steps.get(at).exits()) {
            reach(numbers.get(exit.to()), reached);
        }
    }

    /** Whether a step is come back to without a person or a count in between. */
    private boolean circles(int at, Set<Integer> seen, int home) {
        Act act = steps.get(at).act();
        if (!act.automatic() || act instanceof Act.Repeat) {
            return false;
        }
        for (Step.Exit exit : act.exits()) {
            int to = numbers.get(exit.to());
            if (to == home || seen.add(to) && circles(to, seen, home)) {
                return true;
            }
        }
        return false;
    }
}
