package brightlantern.core.vehicle;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.IntNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/** Patterns in a description that stand for many items. */
final class Repetition {
    private Repetition() {}

    /**
     * Items that say {@code each} stand for many: one for each module, for each cylinder, or for
     * each number up to the one given. In all their texts {@code {n}} becomes the number and {@code
     * {module}} the module, and identifiers count on from the first.
     */
    static void unfold(ObjectNode whole, Map<String, List<Place>> places, List<String> mistakes) {
        for (Map.Entry<String, List<Place>> section : places.entrySet()) {
            if (!(whole.get(section.getKey()) instanceof ArrayNode items)) {
                continue;
            }
            ArrayNode all = items.arrayNode();
            List<Place> its = new ArrayList<>();
            for (int i = 0; i < items.size(); i++) {
                Place place = section.getValue().get(i);
                List<JsonNode> made = repeated(items.get(i), whole);
                if (made.isEmpty()) {
                    mistakes.add(
                            place.told()
                                    + ": expected the section 'cylinders' with their order, which is missing");
                }
                made.forEach(
                        one -> {
                            all.add(one);
                            its.add(place);
                        });
            }
            whole.set(section.getKey(), all);
            section.setValue(its);
        }
    }

    /** An item, or as many as it stands for; lists within it likewise. */
    private static List<JsonNode> repeated(JsonNode item, ObjectNode whole) {
        if (!(item instanceof ObjectNode map)) {
            return List.of(item);
        }
        ObjectNode pattern = map.objectNode();
        map.properties()
                .forEach(
                        field -> {
                            JsonNode value = field.getValue();
                            if (value instanceof ArrayNode list) {
                                ArrayNode inner = list.arrayNode();
                                list.forEach(i -> repeated(i, whole).forEach(inner::add));
                                value = inner;
                            }
                            pattern.set(field.getKey(), value);
                        });
        if (!pattern.has("each")) {
            return List.of(pattern);
        }
        String each = pattern.remove("each").asString();
        List<JsonNode> made = new ArrayList<>();
        if (each.equals("modules")) {
            whole.withArray("modules")
                    .forEach(
                            m ->
                                    made.add(
                                            filled(
                                                    pattern,
                                                    m.path("id").asString(),
                                                    m.path("name").asString(),
                                                    0)));
        } else {
            int count =
                    each.equals("cylinders")
                            ? whole.path("cylinders").path("order").size()
                            : Integer.parseInt(each);
            for (int n = 1; n <= count; n++) {
                made.add(filled(pattern, "", "", n));
            }
        }
        return made;
    }

    private static JsonNode filled(JsonNode pattern, String module, String name, int n) {
        if (pattern.isString()) {
            return StringNode.valueOf(
                    pattern.asString()
                            .replace("{n}", String.valueOf(n))
                            .replace("{module}", module)
                            .replace("{name}", name));
        }
        if (pattern instanceof ArrayNode list) {
            ArrayNode filled = list.arrayNode();
            list.forEach(item -> filled.add(filled(item, module, name, n)));
            return filled;
        }
        if (pattern instanceof ObjectNode map) {
            ObjectNode filled = map.objectNode();
            map.properties()
                    .forEach(
                            e ->
                                    filled.set(
                                            e.getKey().replace("{n}", String.valueOf(n)),
                                            e.getKey().equals("did")
                                                    ? IntNode.valueOf(
                                                            e.getValue().asInt()
                                                                    + Math.max(0, n - 1))
                                                    : filled(e.getValue(), module, name, n)));
            return filled;
        }
        return pattern;
    }
}
