package brightlantern.core.procedure;

import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * What conditions of a procedure may speak of beside live values: {@code answer.x} (a choice or a
 * number given at step x), {@code study.x} (the outcome of a study), {@code code.p0305-00} (absent
 * or stored), readings by the name that a measurement gave them, and results of routines.
 */
public final class Scene {
    /** Beginnings of the names of codes. */
    public static final String CODE = "code.";

    private static final Map<Integer, String> CODE_STATES = Map.of(0, "absent", 1, "stored");

    private Scene() {}

    /** Under which what is to be written is kept. */
    public static final String WANTED = "wanted";

    /** Under which what a new module holds is kept. */
    public static final String PRESENT = "present";

    /** Name of an item of a configuration as it was kept. */
    public static String item(String as, String item) {
        return as + "." + item;
    }

    /** Id of the value that holds the answer of a step. */
    public static String answer(String step) {
        return "answer." + step;
    }

    /** Id of the value that holds what a step's study came to. */
    public static String study(String step) {
        return "study." + step;
    }

    static String rounds(String step) {
        return "rounds." + step;
    }

    /** Id of the value that tells whether a code is stored. */
    public static String code(String code) {
        return CODE + code.toLowerCase(Locale.ROOT);
    }

    /** Name of the mean of a measured value; least, most and spread follow with a dot. */
    public static String reading(String as, String value) {
        return as + "." + value;
    }

    /** Id of the value that holds a result of a routine. */
    public static String result(String routine, String result) {
        return routine + "." + result;
    }

    /** All that conditions of these steps may speak of, as values. */
    public static List<Value> values(
            VehicleDescription d, List<Step> steps, List<Procedure.Routine> routines) {
        Map<String, Value> all = new LinkedHashMap<>();
        d.codes().forEach(c -> add(all, state(code(c.code()), c.code(), CODE_STATES)));
        for (Procedure.Routine r : routines) {
            for (Procedure.Result result : r.results()) {
                String id = result(r.id(), result.id());
                add(
                        all,
                        result.states().isEmpty()
                                ? number(id, result.name(), result.unit(), result.scale())
                                : state(id, result.name(), result.states()));
            }
        }
        for (Step step : steps) {
            if (step.act() instanceof Act.Ask ask) {
                String id = answer(step.id());
                if (ask.figure().isPresent()) {
                    Act.Figure f = ask.figure().get();
                    add(all, number(id, f.name(), f.unit(), 0.01));
                } else {
                    List<String> choices = ask.choices().stream().map(Act.Choice::id).toList();
                    add(all, state(id, step.says(), numbered(choices)));
                }
            } else if (step.act() instanceof Act.Codes codes && codes.since().isPresent()) {
                add(all, state(study(step.id()), step.says(), numbered(Act.Codes.OUTCOMES)));
            } else if (step.act() instanceof Act.Study study) {
                add(all, state(study(step.id()), step.says(), numbered(study.outcomes())));
            } else if (step.act() instanceof Act.Measure measure) {
                for (String id : measure.values()) {
                    d.value(id).ifPresent(v -> readings(all, step, measure.as(), v));
                }
            }
        }
        return List.copyOf(all.values());
    }

    private static void readings(Map<String, Value> all, Step step, String as, Value v) {
        String id = reading(as, v.id());
        String when = step.says().isEmpty() ? "" : " (" + lowered(step.says()) + ")";
        if (v.isState()) {
            add(all, state(id, v.name() + when, v.states()));
            return;
        }
        for (String part : List.of("", ".least", ".most", ".spread")) {
            String name = part.isEmpty() ? v.name() : v.name() + ", " + part.substring(1);
            add(all, number(id + part, name + when, v));
        }
    }

    private static Map<Integer, String> numbered(List<String> words) {
        Map<Integer, String> numbered = new LinkedHashMap<>();
        words.forEach(w -> numbered.put(numbered.size(), w));
        return numbered;
    }

    private static String lowered(String says) {
        return says.substring(0, 1).toLowerCase(Locale.ROOT) + says.substring(1);
    }

    /** A figure of the same kind as a described value. */
    private static Value number(String id, String name, Value like) {
        return new Value(
                id,
                "",
                0,
                2,
                false,
                like.scale(),
                0,
                name,
                like.unit(),
                like.show(),
                like.digits(),
                Map.of(),
                List.of(),
                List.of());
    }

    private static void add(Map<String, Value> all, Value value) {
        all.put(value.id(), value);
    }

    private static Value state(String id, String name, Map<Integer, String> states) {
        return new Value(
                id,
                "",
                0,
                1,
                false,
                1,
                0,
                name,
                "",
                "",
                0,
                Map.copyOf(states),
                List.of(),
                List.of());
    }

    private static Value number(String id, String name, String unit, double scale) {
        int digits = (int) Math.max(0, Math.min(3, Math.ceil(-Math.log10(Math.abs(scale)))));
        return new Value(
                id, "", 0, 2, false, scale, 0, name, unit, unit, digits, Map.of(), List.of(),
                List.of());
    }

    /** A reading, an answer or a result in words. */
    static String told(Procedure procedure, String id, double value) {
        return procedure.knows().stream()
                .filter(v -> v.id().equals(id))
                .findFirst()
                .map(v -> v.name() + ": " + shown(v, value))
                .orElse(id + ": " + value);
    }

    private static String shown(Value value, double reading) {
        return (Scaling.show(value, reading) + (value.isState() ? "" : " " + value.show())).trim();
    }

    /** Present state of the values at which a gate looks, in words. */
    static String present(VehicleDescription d, Procedure.GateRule rule, Map<String, Double> now) {
        List<String> parts = new ArrayList<>();
        for (String id : rule.filter().values().stream().sorted().toList()) {
            Double reading = now.get(id);
            if (id.startsWith(CODE)) {
                String code = id.substring(CODE.length()).toUpperCase(Locale.ROOT);
                parts.add(
                        code
                                + (reading == null
                                        ? " not known"
                                        : reading > 0 ? " stored" : " absent"));
            } else {
                Optional<Value> value = d.value(id);
                parts.add(
                        value.map(Value::name).orElse(id)
                                + " "
                                + (reading == null || reading.isNaN() || value.isEmpty()
                                        ? "not known"
                                        : shown(value.get(), reading)));
            }
        }
        return String.join(", ", parts);
    }
}
