package brightlantern.core.vehicle;

import brightlantern.core.description.Slice;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * The JSON Schema of descriptions (draft 2020-12): each slice has its sections in a resource beside
 * its class, and all together are published as one.
 */
public final class DescriptionSchema {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private DescriptionSchema() {}

    /** The whole schema as text. */
    public static String composed() {
        ObjectNode whole = part(VehicleDescription.class);
        ObjectNode sections = (ObjectNode) whole.get("properties");
        for (Class<? extends Slice> kind : Slices.kinds()) {
            sections.setAll(part(kind));
        }
        return JSON.writeValueAsString(whole) + "\n";
    }

    static Schema schema() {
        return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(composed(), InputFormat.JSON);
    }

    private static ObjectNode part(Class<?> owner) {
        String name = owner.getSimpleName() + ".schema.json";
        try (InputStream in = owner.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException(owner.getName() + " has no " + name + " beside it");
            }
            return (ObjectNode) JSON.readTree(in);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }
}
