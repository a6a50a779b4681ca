package brightlantern.core.procedure.library;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A step as it is written.
 *
 * @param place file and line, for mistakes
 * @param following id of the step that is written after it; empty for the last
 */
record RawStep(ObjectNode node, String place, String following) {
    static String text(JsonNode node, String field) {
        return node.has(field) ? node.path(field).asString() : "";
    }

    static List<String> texts(JsonNode node, String field) {
        List<String> all = new ArrayList<>();
        JsonNode value = node.path(field);
        if (value.isString()) {
            all.add(value.asString());
        }
        value.forEach(v -> all.add(v.asString()));
        return List.copyOf(all);
    }

    String id() {
        return text("id");
    }

    boolean has(String field) {
        return node.has(field);
    }

    String text(String field) {
        return text(node, field);
    }

    List<String> texts(String field) {
        return texts(node, field);
    }

    double number(String field) {
        return node.path(field).asDouble();
    }

    /** The step that comes next where nothing else decides. */
    String next() {
        return has("next") ? text("next") : following;
    }

    /** The step to go on with when the vehicle refuses. */
    Optional<String> refused() {
        return has("refused") ? Optional.of(text("refused")) : Optional.empty();
    }
}
