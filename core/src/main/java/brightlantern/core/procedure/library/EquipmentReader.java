package brightlantern.core.procedure.library;

import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/** Reads what procedures of a vehicle can command from the file that describes it. */
final class EquipmentReader {
    private EquipmentReader() {}

    /**
     * @param place the file, for mistakes
     * @param mistakes to which those found are added
     */
    static Equipment read(
            VehicleDescription d, ObjectNode written, String place, List<String> mistakes) {
        List<Procedure.Output> outputs = new ArrayList<>(Equipment.of(d).outputs());
        for (JsonNode o : written.withArray("outputs")) {
            each(o, d)
                    .forEach(
                            n -> {
                                JsonNode one = filled(o, n);
                                outputs.add(
                                        new Procedure.Output(
                                                text(one, "id"),
                                                text(one, "name"),
                                                module(d, one, place, mistakes),
                                                one.path("did").asInt() + n - 1));
                            });
        }
        List<Procedure.Routine> routines = new ArrayList<>();
        for (JsonNode r : written.withArray("routines")) {
            List<Procedure.Result> results = new ArrayList<>();
            for (JsonNode result : r.path("results")) {
                results.add(
                        new Procedure.Result(
                                text(result, "id"),
                                text(result, "name"),
                                result.path("bytes").asInt(1),
                                result.path("scale").asDouble(1),
                                text(result, "unit"),
                                words(result.path("states"))));
            }
            routines.add(
                    new Procedure.Routine(
                            text(r, "id"),
                            text(r, "name"),
                            module(d, r, place, mistakes),
                            r.path("rid").asInt(),
                            text(r, "ends").equals("itself"),
                            results));
        }
        List<Configuration> configurations = new ArrayList<>();
        for (JsonNode c : written.withArray("configurations")) {
            List<Item> items = new ArrayList<>();
            for (JsonNode i : c.path("items")) {
                each(i, d).forEach(n -> items.add(item(filled(i, n), n)));
            }
            configurations.add(
                    new Configuration(
                            text(c, "id"), text(c, "name"), module(d, c, place, mistakes), items));
        }
        List<Procedure.GateRule> writing = new ArrayList<>();
        for (JsonNode g : written.withArray("writing")) {
            String when = text(g, "when");
            try {
                writing.add(
                        new Procedure.GateRule(
                                when,
                                FilterParser.parse(when, d.signals()),
                                g.has("says") ? text(g, "says") : when,
                                text(g, "opens")));
            } catch (FilterException wrong) {
                mistakes.add(place + ": writing: '" + when + "': " + wrong.getMessage());
            }
        }
        return new Equipment(outputs, routines, configurations, writing);
    }

    private static Item item(JsonNode i, int n) {
        return new Item(
                text(i, "id"),
                text(i, "name"),
                i.path("did").asInt() + n - 1,
                Item.Kind.valueOf(text(i, "kind").toUpperCase(Locale.ROOT)),
                i.path("bytes").asInt(1),
                words(i.path("words")),
                i.path("scale").asDouble(1),
                text(i, "unit"),
                i.path("least").asDouble(0),
                i.path("most").asDouble(255));
    }

    private static Map<Integer, String> words(JsonNode node) {
        Map<Integer, String> words = new LinkedHashMap<>();
        node.properties()
                .forEach(s -> words.put(Integer.parseInt(s.getKey()), s.getValue().asString()));
        return words;
    }

    /** 1 for what stands once, 1 to n for what there is for each cylinder. */
    private static IntStream each(JsonNode of, VehicleDescription d) {
        return IntStream.rangeClosed(
                1, of.has("each") ? d.cylinders().map(c -> c.order().size()).orElse(0) : 1);
    }

    private static String module(
            VehicleDescription d, JsonNode of, String place, List<String> mistakes) {
        String module = text(of, "module");
        if (d.module(module).isEmpty()) {
            mistakes.add(
                    place + ": expected a module, found '" + module + "', which is not described");
        }
        return module;
    }

    /** A pattern with the number of a cylinder put in for {@code {n}}. */
    static JsonNode filled(JsonNode pattern, int n) {
        if (pattern instanceof ObjectNode map) {
            ObjectNode filled = map.objectNode();
            map.properties().forEach(e -> filled.set(e.getKey(), filled(e.getValue(), n)));
            return filled;
        }
        if (pattern instanceof ArrayNode list) {
            ArrayNode filled = list.arrayNode();
            list.forEach(item -> filled.add(filled(item, n)));
            return filled;
        }
        return pattern.isString()
                ? StringNode.valueOf(pattern.asString().replace("{n}", String.valueOf(n)))
                : pattern;
    }

    private static String text(JsonNode node, String field) {
        return node.has(field) ? node.path(field).asString() : "";
    }
}
