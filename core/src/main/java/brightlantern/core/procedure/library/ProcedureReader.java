package brightlantern.core.procedure.library;

import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.network.ControlModule;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.YamlFile;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads the procedures of a vehicle: the files of its folder {@code procedures} and, for every
 * vehicle, those of {@code shared/plans}. A mistake names file, line and what was expected: a step
 * that cannot be reached, a wait without a limit, a command without a way back, a circle without an
 * end.
 */
public final class ProcedureReader {
    private static final String EQUIPMENT = "equipment.yaml";
    private static final List<String> ACTS =
            List.of(
                    "tell",
                    "ask",
                    "wait",
                    "command",
                    "giveBack",
                    "routine",
                    "keep",
                    "build",
                    "write",
                    "codes",
                    "read",
                    "measure",
                    "judge",
                    "branch",
                    "study",
                    "repeat",
                    "conclude");

    private final Path vehicles;
    private final Schema schema;

    /**
     * @param vehicles the folder with all vehicles
     * @throws IOException when the schema cannot be read
     */
    public ProcedureReader(Path vehicles) throws IOException {
        this.vehicles = vehicles;
        schema =
                SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                        .getSchema(
                                Files.readString(vehicles.resolve("procedure.schema.json")),
                                InputFormat.JSON);
    }

    /**
     * @param mistakes of those procedures that are left out
     */
    public record Result(List<Procedure> procedures, Equipment equipment, List<String> mistakes) {}

    /** Reads all that a vehicle can be made to do. */
    public Result read(VehicleDescription d) throws IOException {
        List<String> mistakes = new ArrayList<>();
        Path folder = vehicles.resolve(d.id()).resolve("procedures");
        Equipment equipment = Equipment.of(d);
        if (Files.exists(folder.resolve(EQUIPMENT))) {
            String place = d.id() + "/procedures/" + EQUIPMENT;
            equipment =
                    YamlFile.read(vehicles, folder.resolve(EQUIPMENT), schema, mistakes)
                            .map(y -> EquipmentReader.read(d, y.content(), place, mistakes))
                            .orElse(equipment);
        }
        List<Path> files = new ArrayList<>(in(folder));
        files.addAll(in(vehicles.resolve("shared").resolve("plans")));
        List<Procedure> procedures = new ArrayList<>(ActuatorProcedures.of(d, equipment));
        for (Path file : files) {
            List<String> its = new ArrayList<>();
            Optional<YamlFile> yaml = YamlFile.read(vehicles, file, schema, its);
            if (yaml.isPresent() && its.isEmpty()) {
                String id = file.getFileName().toString().replace(".yaml", "");
                Procedure read = new Reading(d, yaml.get(), equipment, its).procedure(id);
                if (its.isEmpty()) {
                    procedures.add(read);
                }
            }
            mistakes.addAll(its);
        }
        return new Result(List.copyOf(procedures), equipment, List.copyOf(mistakes));
    }

    private static List<Path> in(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(f -> f.toString().endsWith(".yaml"))
                    .filter(f -> !f.getFileName().toString().equals(EQUIPMENT))
                    .sorted()
                    .toList();
        }
    }

    /** One file being read. */
    private static final class Reading {
        private final VehicleDescription vehicle;
        private final YamlFile file;
        private final List<String> mistakes;
        private final Equipment equipment;

        /** Steps as written, one for each cylinder where they say so, and their lines. */
        private final List<ObjectNode> written = new ArrayList<>();

        private final List<String> places = new ArrayList<>();
        private VehicleDescription scene;

        Reading(
                VehicleDescription vehicle,
                YamlFile file,
                Equipment equipment,
                List<String> mistakes) {
            this.equipment = equipment;
            this.vehicle = vehicle;
            this.file = file;
            this.mistakes = mistakes;
        }

        Procedure procedure(String id) {
            ObjectNode whole = file.content();
            repeat(whole.withArray("steps"));
            List<Step> bare = steps(false);
            List<Value> knows = Scene.values(vehicle, bare, equipment.routines());
            scene = vehicle.withValues(knows);
            List<Procedure.GateRule> gates = new ArrayList<>();
            int g = 0;
            for (JsonNode gate : whole.path("gates")) {
                String place = file.place(List.of("gates", String.valueOf(g++)));
                String when = text(gate, "when");
                gates.add(
                        new Procedure.GateRule(
                                when,
                                filter(when, place),
                                gate.has("says") ? text(gate, "says") : when,
                                text(gate, "opens")));
            }
            List<Step> steps = steps(true);
            if (mistakes.isEmpty()) {
                check(steps);
            }
            return new Procedure(
                    id,
                    text(whole, "name"),
                    Procedure.Kind.valueOf(
                            text(whole, "kind").toUpperCase(Locale.ROOT).replace('-', '_')),
                    text(whole, "why"),
                    whole.path("minutes").asDouble(),
                    whole.path("mayBeLeft").asBoolean(false),
                    text(whole, "leaves"),
                    text(whole, "beware"),
                    gates,
                    texts(whole, "symptoms"),
                    texts(whole, "codes"),
                    texts(whole, "suspects"),
                    texts(whole, "families"),
                    equipment.outputs(),
                    equipment.routines(),
                    equipment.configurations(),
                    steps,
                    knows);
        }

        private void repeat(ArrayNode steps) {
            List<Integer> order = vehicle.cylinders().map(Cylinders::order).orElse(List.of());
            for (int i = 0; i < steps.size(); i++) {
                String place = file.place(List.of("steps", String.valueOf(i)));
                ObjectNode step = (ObjectNode) steps.get(i);
                if (!step.has("each")) {
                    written.add(step);
                    places.add(place);
                    continue;
                }
                // a run of steps that are all for each cylinder goes round together
                int end = i;
                while (end + 1 < steps.size() && steps.get(end + 1).has("each")) {
                    end++;
                }
                if (order.isEmpty()) {
                    mistakes.add(place + ": expected a vehicle whose cylinders are described");
                }
                for (int n : order) {
                    for (int k = i; k <= end; k++) {
                        written.add((ObjectNode) EquipmentReader.filled(steps.get(k), n));
                        places.add(file.place(List.of("steps", String.valueOf(k))));
                    }
                }
                i = end;
            }
        }

        /**
         * @param whole false while conditions cannot be read yet, as they may speak of any step
         */
        private List<Step> steps(boolean whole) {
            List<Step> steps = new ArrayList<>();
            Set<String> seen = new HashSet<>();
            for (int i = 0; i < written.size(); i++) {
                ObjectNode node = written.get(i);
                String place = places.get(i);
                List<String> acts = ACTS.stream().filter(node::has).toList();
                String following = i + 1 < written.size() ? text(written.get(i + 1), "id") : "";
                if (acts.size() != 1) {
                    if (whole) {
                        mistakes.add(
                                place
                                        + ": expected one of "
                                        + String.join(", ", ACTS)
                                        + ", found "
                                        + (acts.isEmpty() ? "none" : String.join(" and ", acts)));
                    }
                    continue;
                }
                String id = text(node, "id");
                if (whole && !seen.add(id)) {
                    mistakes.add(place + ": step '" + id + "' stands twice, expected once");
                }
                Act act = act(acts.get(0), node, following, whole, place);
                String says =
                        acts.get(0).matches("tell|ask|conclude")
                                ? text(node, acts.get(0))
                                : text(node, "says");
                steps.add(new Step(id, says, text(node, "why"), text(node, "expect"), act));
            }
            return steps;
        }

        private Act act(
                String kind, ObjectNode node, String following, boolean whole, String place) {
            String next = node.has("next") ? text(node, "next") : following;
            Optional<String> refused =
                    node.has("refused") ? Optional.of(text(node, "refused")) : Optional.empty();
            switch (kind) {
                case "tell":
                    return new Act.Tell(next);
                case "ask":
                    return ask(node, next, whole, place);
                case "wait":
                    if (whole && !node.has("seconds")) {
                        mistakes.add(
                                place
                                        + ": expected 'seconds', a limit; a wait without one never ends");
                    }
                    if (whole && !node.has("late")) {
                        mistakes.add(
                                place
                                        + ": expected 'late', the step to go on with when the limit is reached");
                    }
                    return new Act.Wait(
                            text(node, "wait"),
                            whole ? filter(text(node, "wait"), place) : null,
                            node.path("seconds").asDouble(),
                            node.path("asked").asBoolean(false),
                            next,
                            text(node, "late"));
                case "command":
                    known(
                            whole,
                            place,
                            "an output",
                            equipment.outputs().stream().map(Procedure.Output::id),
                            text(node, kind));
                    return command(node, next, refused, whole, place);
                case "giveBack":
                    return new Act.GiveBack(next);
                case "routine":
                    known(
                            whole,
                            place,
                            "a routine",
                            equipment.routines().stream().map(Procedure.Routine::id),
                            text(node, kind));
                    return new Act.RunRoutine(
                            text(node, "routine"),
                            Act.How.valueOf(text(node, "how").toUpperCase(Locale.ROOT)),
                            next,
                            refused);
                case "keep":
                    configuration(whole, place, text(node, kind));
                    return new Act.Keep(text(node, kind), text(node, "as"), next, refused);
                case "build":
                    configuration(whole, place, text(node, kind));
                    Map<String, Filter> options = new LinkedHashMap<>();
                    node.path("options")
                            .properties()
                            .forEach(
                                    o ->
                                            options.put(
                                                    o.getKey(),
                                                    whole
                                                            ? filter(o.getValue().asString(), place)
                                                            : new Filter.And(List.of())));
                    return new Act.Build(text(node, kind), Map.copyOf(options), next);
                case "write":
                    configuration(whole, place, text(node, kind));
                    return new Act.Write(text(node, kind), next, refused);
                case "codes":
                    texts(node, kind)
                            .forEach(
                                    m ->
                                            known(
                                                    whole,
                                                    place,
                                                    "a module",
                                                    vehicle.modules().stream()
                                                            .map(ControlModule::id),
                                                    m));
                    return new Act.Codes(
                            texts(node, kind),
                            text(node, "as"),
                            node.has("since") ? Optional.of(text(node, "since")) : Optional.empty(),
                            next);
                case "read", "measure":
                    List<String> values = values(node, kind, whole, place);
                    if (whole && kind.equals("measure") && !node.has("seconds")) {
                        mistakes.add(place + ": expected 'seconds', how long to measure");
                    }
                    return new Act.Measure(
                            values,
                            node.path("seconds").asDouble(0),
                            whole && node.has("until")
                                    ? Optional.of(filter(text(node, "until"), place))
                                    : Optional.empty(),
                            node.has("as") ? text(node, "as") : text(node, "id"),
                            next);
                case "judge", "branch":
                    return decide(node, kind, following, whole, place);
                case "study":
                    if (whole && !Studies.knows(text(node, "study"))) {
                        mistakes.add(place + ": there is no study '" + text(node, "study") + "'");
                    }
                    Map<String, Double> with = new LinkedHashMap<>();
                    node.path("with")
                            .properties()
                            .forEach(e -> with.put(e.getKey(), e.getValue().asDouble()));
                    String finding = text(node, "finding");
                    if (whole && !finding.isEmpty() && vehicle.finding(finding).isEmpty()) {
                        mistakes.add(
                                place
                                        + ": expected a finding, found '"
                                        + finding
                                        + "', which is not described");
                    }
                    return new Act.Study(
                            text(node, "study"),
                            text(node, "about"),
                            text(node, "finding"),
                            with,
                            next,
                            Studies.outcomes(text(node, "study")));
                case "repeat":
                    if (whole && node.path("times").asInt(0) < 1) {
                        mistakes.add(place + ": expected 'times', how often at most");
                    }
                    return new Act.Repeat(
                            text(node, "repeat"),
                            text(node, "until"),
                            whole ? filter(text(node, "until"), place) : null,
                            node.path("times").asInt(1),
                            next,
                            node.has("otherwise") ? text(node, "otherwise") : next);
                default:
                    return new Act.Conclude(passes(node), tells(node, whole, place));
            }
        }

        private void configuration(boolean whole, String place, String id) {
            known(
                    whole,
                    place,
                    "a configuration",
                    equipment.configurations().stream().map(c -> c.id()),
                    id);
        }

        private List<String> values(ObjectNode node, String field, boolean whole, String place) {
            // cell.* stands for all that are called so
            List<String> values =
                    texts(node, field).stream()
                            .flatMap(
                                    v ->
                                            v.endsWith("*")
                                                    ? vehicle.values().stream()
                                                            .map(Value::id)
                                                            .filter(
                                                                    id ->
                                                                            id.matches(
                                                                                    Pattern.quote(
                                                                                                    v
                                                                                                            .substring(
                                                                                                                    0,
                                                                                                                    v
                                                                                                                                    .length()
                                                                                                                            - 1))
                                                                                            + "\\d+"))
                                                    : Stream.of(v))
                            .toList();
            values.forEach(
                    v ->
                            known(
                                    whole,
                                    place,
                                    "a value",
                                    vehicle.values().stream().map(Value::id),
                                    v));
            return values;
        }

        /** One position, or a sequence of them with the seconds for which each is held. */
        private Act command(
                ObjectNode node,
                String next,
                Optional<String> refused,
                boolean whole,
                String place) {
            List<Act.Leg> legs = new ArrayList<>();
            for (JsonNode leg : node.path("sequence")) {
                legs.add(new Act.Leg(leg.path(0).asDouble(), leg.path(1).asDouble()));
            }
            if (whole && legs.isEmpty() == !node.has("to")) {
                mistakes.add(place + ": expected 'to' or a 'sequence', one of them");
            }
            if (node.has("to")) {
                legs.add(new Act.Leg(node.path("to").asDouble(), 0));
            }
            return new Act.Command(
                    text(node, "command"),
                    List.copyOf(legs),
                    values(node, "values", whole, place),
                    next,
                    refused);
        }

        private Act ask(ObjectNode node, String next, boolean whole, String place) {
            List<Act.Choice> choices = new ArrayList<>();
            for (JsonNode c : node.path("choices")) {
                choices.add(
                        new Act.Choice(
                                text(c, "id"),
                                text(c, "name"),
                                c.has("next") ? text(c, "next") : next));
            }
            Optional<Act.Figure> figure = Optional.empty();
            if (node.path("number") instanceof ObjectNode n) {
                figure =
                        Optional.of(
                                new Act.Figure(
                                        text(n, "name"),
                                        text(n, "unit"),
                                        n.path("least").asDouble(),
                                        n.path("most").asDouble()));
            }
            if (whole && choices.isEmpty() == figure.isEmpty()) {
                mistakes.add(
                        place + ": expected 'choices' or a 'number' as the answer, one of them");
            }
            if (node.has("shows")) {
                configuration(whole, place, text(node, "shows"));
            }
            return new Act.Ask(choices, figure, text(node, "shows"), next);
        }

        private Act decide(
                ObjectNode node, String kind, String following, boolean whole, String place) {
            List<Act.Case> cases = new ArrayList<>();
            for (JsonNode c : node.path(kind)) {
                cases.add(
                        new Act.Case(
                                text(c, "when"),
                                whole ? filter(text(c, "when"), place) : null,
                                text(c, "says"),
                                passes(c),
                                tells(c, whole, place),
                                c.has("next") ? text(c, "next") : following));
            }
            return new Act.Decide(
                    cases, node.has("otherwise") ? text(node, "otherwise") : following);
        }

        private Filter filter(String text, String place) {
            try {
                return FilterParser.parse(text, scene.signals());
            } catch (FilterException wrong) {
                mistakes.add(place + ": '" + text + "': " + wrong.getMessage());
                return new Filter.And(List.of());
            }
        }

        private Map<String, String> tells(JsonNode node, boolean whole, String place) {
            Map<String, String> tells = new LinkedHashMap<>();
            node.path("tells")
                    .properties()
                    .forEach(
                            e -> {
                                String outcome = e.getValue().asString();
                                boolean there =
                                        vehicle.finding(e.getKey()).stream()
                                                .flatMap(f -> f.outcomes().stream())
                                                .anyMatch(o -> o.id().equals(outcome));
                                if (whole && !there) {
                                    mistakes.add(
                                            place
                                                    + ": expected a finding with this outcome, found '"
                                                    + e.getKey()
                                                    + ": "
                                                    + outcome
                                                    + "', which is not described");
                                }
                                tells.put(e.getKey(), outcome);
                            });
            return tells;
        }

        private static Optional<Boolean> passes(JsonNode node) {
            return node.has("passes")
                    ? Optional.of(node.path("passes").asBoolean())
                    : Optional.empty();
        }

        private void known(
                boolean whole, String place, String what, Stream<String> ids, String id) {
            if (whole && ids.noneMatch(id::equals)) {
                mistakes.add(
                        place
                                + ": expected "
                                + what
                                + ", found '"
                                + id
                                + "', which is not described");
            }
        }

        private void check(List<Step> steps) {
            Map<String, Integer> numbers = new HashMap<>();
            for (int i = 0; i < steps.size(); i++) {
                numbers.put(steps.get(i).id(), i);
            }
            for (int i = 0; i < steps.size(); i++) {
                for (Step.Exit exit : steps.get(i).exits()) {
                    if (!numbers.containsKey(exit.to())) {
                        mistakes.add(
                                places.get(i)
                                        + ": '"
                                        + exit.when()
                                        + "' leads to "
                                        + (exit.to().isEmpty()
                                                ? "nothing; a procedure ends with 'conclude'"
                                                : "step '" + exit.to() + "', which is not there"));
                    }
                }
            }
            if (!mistakes.isEmpty()) {
                return;
            }
            boolean[] reached = new boolean[steps.size()];
            reach(steps, numbers, 0, reached);
            for (int i = 0; i < steps.size(); i++) {
                if (!reached[i]) {
                    mistakes.add(
                            places.get(i)
                                    + ": no step leads to '"
                                    + steps.get(i).id()
                                    + "'; it can never be reached");
                }
                if (steps.get(i).act() instanceof Act.RunRoutine r
                        && r.how() == Act.How.START
                        && !wayBack(steps, r.routine())) {
                    mistakes.add(
                            places.get(i)
                                    + ": routine '"
                                    + r.routine()
                                    + "' does not end by itself and no step stops it; a command needs a way back");
                }
            }
            for (int i = 0; i < steps.size(); i++) {
                if (circles(steps, numbers, i, new HashSet<>(), i)) {
                    mistakes.add(
                            places.get(i)
                                    + ": from '"
                                    + steps.get(i).id()
                                    + "' the program comes back to it without end; use 'repeat' with a limit");
                    return;
                }
            }
        }

        private boolean wayBack(List<Step> steps, String routine) {
            return equipment.routines().stream()
                            .anyMatch(r -> r.id().equals(routine) && r.endsItself())
                    || steps.stream()
                            .anyMatch(
                                    s ->
                                            s.act() instanceof Act.RunRoutine r
                                                    && r.routine().equals(routine)
                                                    && r.how() == Act.How.STOP);
        }

        private static void reach(
                List<Step> steps, Map<String, Integer> numbers, int at, boolean[] reached) {
            if (reached[at]) {
                return;
            }
            reached[at] = true;
            for (Step.Exit exit : steps.get(at).exits()) {
                reach(steps, numbers, numbers.get(exit.to()), reached);
            }
        }

        /** Whether a step is come back to without a person or a count in between. */
        private static boolean circles(
                List<Step> steps,
                Map<String, Integer> numbers,
                int at,
                Set<Integer> seen,
                int home) {
            Act act = steps.get(at).act();
            if (!act.automatic() || act instanceof Act.Repeat) {
                return false;
            }
            for (Step.Exit exit : act.exits()) {
                int to = numbers.get(exit.to());
                if (to == home || seen.add(to) && circles(steps, numbers, to, seen, home)) {
                    return true;
                }
            }
            return false;
        }

        private static String text(JsonNode node, String field) {
            return node.has(field) ? node.path(field).asString() : "";
        }

        private static List<String> texts(JsonNode node, String field) {
            List<String> all = new ArrayList<>();
            node.path(field).forEach(n -> all.add(n.asString()));
            return all;
        }
    }
}
