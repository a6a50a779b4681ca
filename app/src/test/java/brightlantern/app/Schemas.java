package brightlantern.app;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** The schemas that are published of the program's own files. */
final class Schemas {
    private Schemas() {}

    /** What is wrong with a file by its schema. */
    static List<String> mistakes(String kind, String file) throws IOException {
        String schema = Files.readString(Path.of("src/main/resources/schemas/" + kind + ".json"));
        return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(schema, InputFormat.JSON)
                .validate(file, InputFormat.JSON)
                .stream()
                .map(e -> e.getInstanceLocation() + ": " + e.getMessage())
                .toList();
    }
}
