package brightlantern.core.procedure.library;

import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.YamlFile;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * One file that is being read: first its steps as they are written, then what they make known, and
 * then each step with its conditions, which may speak of all of that.
 */
final class ProcedureFile {
    private static final Map<String, ActReader> READERS = new TreeMap<>();

    static {
        READERS.putAll(TalkReaders.ALL);
        READERS.putAll(CommandReaders.ALL);
        READERS.putAll(ReadingReaders.ALL);
        READERS.putAll(DecisionReaders.ALL);
    }

    private final VehicleDescription vehicle;
    private final Equipment equipment;
    private final YamlFile file;
    private final List<String> mistakes;

    /**
     * @param mistakes to which those found are added
     */
    ProcedureFile(
            VehicleDescription vehicle, Equipment equipment, YamlFile file, List<String> mistakes) {
        this.vehicle = vehicle;
        this.equipment = equipment;
        this.file = file;
        this.mistakes = mistakes;
    }

    Procedure procedure(String id) {
        ObjectNode whole = file.content();
        List<RawStep> written = written(whole.withArray("steps"));
        List<Value> knows = knows(written);
        ReadingContext context =
                new ReadingContext(
                        vehicle, equipment, vehicle.withValues(knows).signals(), mistakes);
        List<Procedure.GateRule> gates = gates(whole, context);
        List<Step> steps = steps(written, context);
        if (mistakes.isEmpty()) {
            new ProcedureChecks(steps, written, equipment.routines(), mistakes).check();
        }
        return new Procedure(
                id,
                RawStep.text(whole, "name"),
                Procedure.Kind.valueOf(
                        RawStep.text(whole, "kind").toUpperCase(Locale.ROOT).replace('-', '_')),
                RawStep.text(whole, "why"),
                whole.path("minutes").asDouble(),
                whole.path("mayBeLeft").asBoolean(false),
                RawStep.text(whole, "leaves"),
                RawStep.text(whole, "beware"),
                gates,
                RawStep.texts(whole, "symptoms"),
                RawStep.texts(whole, "codes"),
                RawStep.texts(whole, "suspects"),
                RawStep.texts(whole, "families"),
                equipment.outputs(),
                equipment.routines(),
                equipment.configurations(),
                steps,
                knows);
    }

    private List<Procedure.GateRule> gates(ObjectNode whole, ReadingContext context) {
        List<Procedure.GateRule> gates = new ArrayList<>();
        for (JsonNode gate : whole.path("gates")) {
            String place = file.place(List.of("gates", String.valueOf(gates.size())));
            String when = RawStep.text(gate, "when");
            gates.add(
                    new Procedure.GateRule(
                            when,
                            context.condition(place, when),
                            gate.has("says") ? RawStep.text(gate, "says") : when,
                            RawStep.text(gate, "opens")));
        }
        return gates;
    }

    /** The steps as written, one for each cylinder where they say so. */
    private List<RawStep> written(ArrayNode steps) {
        List<ObjectNode> nodes = new ArrayList<>();
        List<String> places = new ArrayList<>();
        List<Integer> order = vehicle.cylinders().map(Cylinders::order).orElse(List.of());
        for (int i = 0; i < steps.size(); i++) {
            if (!steps.get(i).has("each")) {
                nodes.add((ObjectNode) steps.get(i));
                places.add(place(i));
                continue;
            }
            // a run of steps that are all for each cylinder goes round together
            int end = i;
            while (end + 1 < steps.size() && steps.get(end + 1).has("each")) {
                end++;
            }
            if (order.isEmpty()) {
                mistakes.add(place(i) + ": expected a vehicle whose cylinders are described");
            }
            for (int n : order) {
                for (int k = i; k <= end; k++) {
                    nodes.add((ObjectNode) EquipmentReader.filled(steps.get(k), n));
                    places.add(place(k));
                }
            }
            i = end;
        }
        List<RawStep> written = new ArrayList<>();
        for (int i = 0; i < nodes.size(); i++) {
            String following = i + 1 < nodes.size() ? RawStep.text(nodes.get(i + 1), "id") : "";
            written.add(new RawStep(nodes.get(i), places.get(i), following));
        }
        return written;
    }

    private String place(int step) {
        return file.place(List.of("steps", String.valueOf(step)));
    }

    private static List<String> kinds(RawStep step) {
        return READERS.keySet().stream().filter(step::has).toList();
    }

    /** What the steps make known; what is wrong with them is told when they are read for good. */
    private List<Value> knows(List<RawStep> written) {
        ReadingContext bare =
                new ReadingContext(vehicle, equipment, vehicle.signals(), new ArrayList<>());
        List<Step> telling = new ArrayList<>();
        for (RawStep step : written) {
            kinds(step).stream()
                    .map(READERS::get)
                    .filter(ActReader.Telling.class::isInstance)
                    .findFirst()
                    .ifPresent(r -> telling.add(step(step, r, bare)));
        }
        return Scene.values(vehicle, telling, equipment.routines());
    }

    private List<Step> steps(List<RawStep> written, ReadingContext context) {
        List<Step> steps = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (RawStep step : written) {
            List<String> kinds = kinds(step);
            if (kinds.size() != 1) {
                context.wrong(
                        step,
                        "expected one of "
                                + String.join(", ", READERS.keySet())
                                + ", found "
                                + (kinds.isEmpty() ? "none" : String.join(" and ", kinds)));
                continue;
            }
            if (!seen.add(step.id())) {
                context.wrong(step, "step '" + step.id() + "' stands twice, expected once");
            }
            steps.add(step(step, READERS.get(kinds.get(0)), context));
        }
        return steps;
    }

    /** Tell, ask and conclude say what they are about; the others have a field for it. */
    private static Step step(RawStep step, ActReader reader, ReadingContext context) {
        String says =
                List.of("tell", "ask", "conclude").stream()
                        .filter(step::has)
                        .findFirst()
                        .map(step::text)
                        .orElseGet(() -> step.text("says"));
        return new Step(
                step.id(), says, step.text("why"), step.text("expect"), reader.read(step, context));
    }
}
