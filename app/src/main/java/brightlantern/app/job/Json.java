package brightlantern.app.job;

import java.io.Reader;
import org.springframework.stereotype.Component;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.util.TokenBuffer;

/** Records to JSON text for keeping, and back. */
@Component
public class Json {
    private final JsonMapper mapper =
            JsonMapper.builder()
                    .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                    // what an earlier version kept lacks what a later one added
                    .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                    .build();

    public String write(Object value) {
        return mapper.writeValueAsString(value);
    }

    public String pretty(Object value) {
        return mapper.writerWithDefaultPrettyPrinter().writeValueAsString(value);
    }

    public <T> T read(String text, Class<T> type) {
        return mapper.readValue(text, type);
    }

    /**
     * An object of which one list may be of any length, and each text in it too: what is left out
     * of it is never in memory.
     *
     * @param list name of the list, a part of the object itself
     * @param most entries of it that are read
     * @param longest characters of a text that are kept
     */
    <T> Short<T> readShort(Reader text, String list, int most, int longest, Class<T> type) {
        try (JsonParser in = mapper.createParser(text);
                TokenBuffer kept = TokenBuffer.forGeneration()) {
            int entries = 0;
            int depth = 0;
            boolean inList = false;
            while (in.nextToken() != null) {
                if (inList && depth == 2 && !in.currentToken().isStructEnd() && entries++ >= most) {
                    in.skipChildren();
                    continue;
                }
                inList = depth == 1 ? list.equals(in.currentName()) : inList;
                depth += in.currentToken().isStructStart() ? 1 : 0;
                depth -= in.currentToken().isStructEnd() ? 1 : 0;
                copy(in, kept, longest);
            }
            return new Short<>(
                    mapper.readValue(kept.asParser(), type), Math.max(0, entries - most));
        }
    }

    private static void copy(JsonParser in, JsonGenerator kept, int longest) {
        if (in.currentToken() == JsonToken.VALUE_STRING) {
            kept.writeString(Cut.to(longest, in.getString()));
        } else {
            kept.copyCurrentEvent(in);
        }
    }

    /**
     * What was read of something.
     *
     * @param leftOut entries of its list that were not
     */
    record Short<T>(T read, int leftOut) {}
}
