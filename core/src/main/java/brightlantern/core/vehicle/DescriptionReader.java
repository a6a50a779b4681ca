package brightlantern.core.vehicle;

import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import com.networknt.schema.Schema;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads a vehicle's folder of YAML files into one {@link VehicleDescription}: each file against the
 * published JSON Schema, then all references between the parts. Every mistake names file, line and
 * what was expected.
 */
public final class DescriptionReader {
    private static final Schema SCHEMA = DescriptionSchema.schema();
    private static final JsonMapper JSON =
            JsonMapper.builder()
                    .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                    .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                    .build();

    /**
     * @throws DescriptionException lists all mistakes
     * @throws IOException when a file cannot be read
     */
    public VehicleDescription read(Path folder) throws IOException {
        List<String> mistakes = new ArrayList<>();
        ObjectNode whole = JSON.createObjectNode();
        whole.put("id", folder.getFileName().toString());
        Map<String, List<Place>> places = new LinkedHashMap<>();
        List<Path> files;
        try (Stream<Path> entries = Files.list(folder)) {
            files = entries.filter(f -> f.toString().endsWith(".yaml")).sorted().toList();
        }
        for (Path file : files) {
            readFile(file, whole, places, mistakes);
        }
        if (whole.remove("shares") instanceof ArrayNode shares) {
            for (int i = 0; i < shares.size(); i++) {
                Path file =
                        folder.resolveSibling("shared").resolve(shares.get(i).asString() + ".yaml");
                if (Files.exists(file)) {
                    readFile(file, whole, places, mistakes);
                } else {
                    mistakes.add(
                            places.get("shares").get(i).told()
                                    + ": expected a file of the folder 'shared', found '"
                                    + shares.get(i).asString()
                                    + "', which is not there");
                }
            }
        }
        if (mistakes.isEmpty()) {
            Repetition.unfold(whole, places, mistakes);
        }
        for (String needed : List.of("name", "engine", "vinPattern", "buses", "modules", "live")) {
            if (!whole.has(needed) && mistakes.isEmpty()) {
                mistakes.add(
                        folder.getFileName()
                                + "/vehicle.yaml:1: expected '"
                                + needed
                                + "', which is missing");
            }
        }
        if (!mistakes.isEmpty()) {
            throw new DescriptionException(mistakes);
        }
        VehicleDescription description = composed(whole, folder.getFileName().toString());
        References references = new References((section, i) -> place(places, section, i), mistakes);
        List<Slice> slices = Slices.of(description);
        slices.forEach(s -> s.define(references));
        slices.forEach(s -> s.check(references));
        if (!mistakes.isEmpty()) {
            throw new DescriptionException(mistakes);
        }
        return description;
    }

    private VehicleDescription composed(ObjectNode whole, String id) {
        List<Slice> slices = new ArrayList<>();
        try {
            for (Class<? extends Slice> kind : Slices.kinds()) {
                slices.add(Slices.read(kind, whole, JSON));
            }
        } catch (JacksonException wrong) {
            throw new DescriptionException(List.of(id + ": " + wrong.getOriginalMessage()));
        }
        VehicleDescription written =
                Slices.compose(
                        id,
                        whole.path("name").asString(),
                        whole.path("engine").asString(),
                        whole.path("vinPattern").asString(),
                        slices);
        return Slices.replaced(
                written,
                List.of(
                        written.codeTable()
                                .withMissed(written.network())
                                .with(written.wiring().codes())));
    }

    /** What is derived comes after what was written, and stands nowhere. */
    private static String place(Map<String, List<Place>> places, String section, int i) {
        List<Place> its = places.getOrDefault(section, List.of());
        return i < its.size() ? its.get(i).told() : section;
    }

    private void readFile(
            Path file, ObjectNode whole, Map<String, List<Place>> places, List<String> mistakes)
            throws IOException {
        Optional<YamlFile> read =
                YamlFile.read(file.getParent().getParent(), file, SCHEMA, mistakes);
        if (read.isEmpty()) {
            return;
        }
        YamlFile yaml = read.get();
        yaml.content()
                .properties()
                .forEach(
                        section -> {
                            String title = section.getKey();
                            List<Place> its = places.computeIfAbsent(title, t -> new ArrayList<>());
                            for (int i = 0; i < section.getValue().size(); i++) {
                                its.add(new Place(yaml, List.of(title, String.valueOf(i))));
                            }
                            if (whole.get(title) instanceof ArrayNode before
                                    && section.getValue() instanceof ArrayNode more) {
                                before.addAll(more);
                            } else {
                                whole.set(title, section.getValue());
                            }
                        });
    }
}
