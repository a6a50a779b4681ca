package brightlantern.core.procedure;

import brightlantern.core.configuration.Configuration;
import brightlantern.core.filter.Filter;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.Value;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * A guided test, as its description says. Made by the library, which has checked that every step
 * can be reached, every wait ends and every command has a way back.
 *
 * @param minutes that it takes, about
 * @param mayBeLeft whether it goes on when nobody looks; otherwise outputs are given back then
 * @param leaves what is left undone when it is broken off; empty when nothing is
 * @param beware what must be read and agreed to before it begins; empty for nothing
 * @param knows what its conditions may speak of beside live values
 * @param symptoms and codes and suspects: by which it is proposed
 * @param families of symptoms and codes: by which it is proposed after those that name it
 */
public record Procedure(
        String id,
        String name,
        Kind kind,
        String why,
        double minutes,
        boolean mayBeLeft,
        String leaves,
        String beware,
        List<GateRule> gates,
        List<String> symptoms,
        List<String> codes,
        List<String> suspects,
        List<String> families,
        List<Output> outputs,
        List<Routine> routines,
        List<Configuration> configurations,
        List<Step> steps,
        List<Value> knows) {
    public Procedure {
        knows = List.copyOf(knows);
        gates = List.copyOf(gates);
        symptoms = List.copyOf(symptoms);
        codes = List.copyOf(codes);
        suspects = List.copyOf(suspects);
        families = List.copyOf(families);
        outputs = List.copyOf(outputs);
        routines = List.copyOf(routines);
        configurations = List.copyOf(configurations);
        steps = List.copyOf(steps);
    }

    /** What a test is, and the words for it. */
    public enum Kind {
        SELF_CHECK("Self-checks"),
        ACTUATOR("Actuators"),
        CYLINDERS("Cylinders"),
        ROUTINE("Routines"),
        TANK("Tank system"),
        REPLACEMENT("Module replacement"),
        PLAN("Check plans");

        private final String title;

        Kind(String title) {
            this.title = title;
        }

        /** As people read it. */
        public String title() {
            return title;
        }
    }

    /**
     * A condition that must hold from the first command on.
     *
     * @param when as it was written, {@code filter} is the same understood
     * @param opens what would open it
     */
    public record GateRule(String when, Filter filter, String says, String opens) {
        /** The same as a condition over one value. */
        public static GateRule of(Condition c) {
            List<Filter> limits = new ArrayList<>();
            c.min()
                    .ifPresent(
                            least ->
                                    limits.add(
                                            new Filter.Compare(
                                                    c.value(),
                                                    Filter.Operator.MORE_OR_EQUAL,
                                                    least)));
            c.max()
                    .ifPresent(
                            most ->
                                    limits.add(
                                            new Filter.Compare(
                                                    c.value(),
                                                    Filter.Operator.LESS_OR_EQUAL,
                                                    most)));
            return new GateRule(c.says(), new Filter.And(limits), c.says(), c.opens());
        }
    }

    /**
     * An output that can be taken over (0x2F), one byte a percentage × 2.
     *
     * @param did identifier on the wire
     */
    public record Output(String id, String name, String module, int did) {}

    /**
     * A routine of a module (0x31).
     *
     * @param endsItself whether it comes to its end without being stopped
     * @param results what its result bytes mean, in the order of the wire
     */
    public record Routine(
            String id,
            String name,
            String module,
            int rid,
            boolean endsItself,
            List<Result> results) {
        public Routine {
            results = List.copyOf(results);
        }
    }

    /**
     * One figure of a routine's result: physical = raw × scale.
     *
     * @param states raw number → word; empty for a number
     */
    public record Result(
            String id,
            String name,
            int bytes,
            double scale,
            String unit,
            Map<Integer, String> states) {
        public Result {
            states = Map.copyOf(states);
        }
    }

    /**
     * @throws java.util.NoSuchElementException when it has no such step
     */
    public Step step(String stepId) {
        return steps.stream().filter(s -> s.id().equals(stepId)).findFirst().orElseThrow();
    }

    /** The step that it begins with. */
    public Step first() {
        return steps.get(0);
    }

    /** Place of a step, from 1; empty when it has none of that id. */
    public OptionalInt number(String stepId) {
        for (int i = 0; i < steps.size(); i++) {
            if (steps.get(i).id().equals(stepId)) {
                return OptionalInt.of(i);
            }
        }
        return OptionalInt.empty();
    }

    /** The output of an id, if it may be commanded. */
    public Optional<Output> output(String outputId) {
        return outputs.stream().filter(o -> o.id().equals(outputId)).findFirst();
    }

    /** The routine of an id, if it may be commanded. */
    public Optional<Routine> routine(String routineId) {
        return routines.stream().filter(r -> r.id().equals(routineId)).findFirst();
    }

    /** The configuration of an id, if there is one. */
    public Optional<Configuration> configuration(String configurationId) {
        return configurations.stream().filter(c -> c.id().equals(configurationId)).findFirst();
    }

    /** Whether it writes into a module, for which more is needed than for a command. */
    public boolean writes() {
        return steps.stream().anyMatch(s -> s.act() instanceof Act.Write);
    }

    /** Whether it makes the vehicle do something, so that a role and the lease are needed. */
    public boolean commands() {
        return steps.stream()
                .anyMatch(
                        s ->
                                s.act() instanceof Act.Command
                                        || s.act() instanceof Act.RunRoutine
                                        || s.act() instanceof Act.Write);
    }

    /** Live values at which its gates and waits look. */
    public List<String> watched() {
        Map<String, Boolean> ids = new LinkedHashMap<>();
        gates.forEach(g -> g.filter().values().forEach(v -> ids.put(v, true)));
        return List.copyOf(ids.keySet());
    }
}
