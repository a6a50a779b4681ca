package brightlantern.core.vehicle;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.IntNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/**
 * Reads a vehicle's folder of YAML files into one {@link VehicleDescription}: each file against the
 * published JSON Schema, then all references between the parts. Every mistake names file, line and
 * what was expected.
 */
public final class DescriptionReader {
    /** A code of a missing message says something is amiss on the wire, not what. */
    private static final double MISSED_WEIGHT = 0.5;

    private final Schema schema;
    private final JsonMapper json =
            JsonMapper.builder()
                    .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                    .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                    .build();

    /**
     * @throws IOException when the schema cannot be read
     */
    public DescriptionReader(Path schemaFile) throws IOException {
        String text = Files.readString(schemaFile);
        schema =
                SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                        .getSchema(text, InputFormat.JSON);
    }

    /** Where an item of a section stands in a file. */
    private record Place(YamlFile file, List<String> path) {
        String told() {
            return file.place(path);
        }
    }

    /**
     * @throws DescriptionException lists all mistakes
     * @throws IOException when a file cannot be read
     */
    public VehicleDescription read(Path folder) throws IOException {
        List<String> mistakes = new ArrayList<>();
        ObjectNode whole = json.createObjectNode();
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
            repeat(whole, places, mistakes);
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
        VehicleDescription description;
        try {
            description = json.treeToValue(whole, VehicleDescription.class);
        } catch (JacksonException wrong) {
            throw new DescriptionException(
                    List.of(folder.getFileName() + ": " + wrong.getOriginalMessage()));
        }
        description = withoutNulls(description);
        new References(description, places, mistakes).check();
        if (!mistakes.isEmpty()) {
            throw new DescriptionException(mistakes);
        }
        return description;
    }

    private void readFile(
            Path file, ObjectNode whole, Map<String, List<Place>> places, List<String> mistakes)
            throws IOException {
        Optional<YamlFile> read =
                YamlFile.read(file.getParent().getParent(), file, schema, mistakes);
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

    /**
     * Items that say {@code each} stand for many: one for each module, for each cylinder, or for
     * each number up to the one given. In all their texts {@code {n}} becomes the number and {@code
     * {module}} the module, and identifiers count on from the first.
     */
    private static void repeat(
            ObjectNode whole, Map<String, List<Place>> places, List<String> mistakes) {
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

    private static <T> List<T> list(List<T> maybe) {
        return maybe == null ? List.of() : List.copyOf(maybe);
    }

    private static <K, V> Map<K, V> map(Map<K, V> maybe) {
        return maybe == null ? Map.of() : maybe;
    }

    private static String text(String maybe) {
        return maybe == null ? "" : maybe;
    }

    /** Sections and fields that a file may leave out become empty ones. */
    private static VehicleDescription withoutNulls(VehicleDescription d) {
        List<VehicleDescription.Module> modules =
                list(d.modules()).stream().map(DescriptionReader::whole).toList();
        return new VehicleDescription(
                d.id(),
                d.name(),
                d.engine(),
                d.vinPattern(),
                list(d.buses()).stream().map(DescriptionReader::whole).toList(),
                modules,
                list(d.feeds()).stream()
                        .map(
                                f ->
                                        new VehicleDescription.Feed(
                                                f.id(),
                                                f.name(),
                                                f.kind(),
                                                f.place(),
                                                f.minutes(),
                                                orOne(f.common()),
                                                list(f.modules())))
                        .toList(),
                list(d.values()).stream().map(DescriptionReader::whole).toList(),
                codes(d, modules),
                list(d.symptoms()).stream()
                        .map(
                                s ->
                                        new VehicleDescription.Symptom(
                                                s.id(),
                                                s.system(),
                                                s.name(),
                                                s.when(),
                                                list(s.families()),
                                                list(s.under())))
                        .toList(),
                list(d.actuators()).stream().map(DescriptionReader::whole).toList(),
                list(d.circuits()),
                list(d.findings()),
                list(d.suspects()).stream()
                        .map(
                                s ->
                                        new VehicleDescription.Suspect(
                                                s.id(),
                                                s.name(),
                                                s.common(),
                                                s.effect(),
                                                map(s.codes()),
                                                map(s.symptoms()),
                                                map(s.tells()),
                                                list(s.chain()),
                                                s.repair()))
                        .toList(),
                list(d.checks()).stream()
                        .map(
                                c ->
                                        new VehicleDescription.Check(
                                                c.id(),
                                                c.name(),
                                                c.kind(),
                                                c.stage(),
                                                list(c.of()),
                                                text(c.circuit()),
                                                list(c.moving()),
                                                c.load() == null ? "nothing" : c.load(),
                                                c.minutes(),
                                                text(c.why()),
                                                text(c.at())))
                        .toList(),
                list(d.follows()),
                list(d.agreements()),
                list(d.trims()).stream()
                        .map(
                                t ->
                                        new VehicleDescription.TrimSet(
                                                t.id(),
                                                t.name(),
                                                t.shortTerm(),
                                                t.longTerm(),
                                                t.finding(),
                                                text(t.refuelled()),
                                                t.lean(),
                                                t.rich(),
                                                t.leastSeconds(),
                                                list(t.regimes())))
                        .toList(),
                list(d.mileage()).stream()
                        .map(
                                m ->
                                        new VehicleDescription.Mileage(
                                                m.id(),
                                                m.name(),
                                                m.module(),
                                                m.kind(),
                                                m.did(),
                                                m.bytes(),
                                                orOne(m.scale()),
                                                orOne(m.least()),
                                                orOne(m.most()),
                                                m.independent(),
                                                m.history()))
                        .toList(),
                d.cylinders().map(DescriptionReader::whole),
                list(d.drawings()).stream().map(DescriptionReader::whole).toList(),
                d.live());
    }

    private static VehicleDescription.Cylinders whole(VehicleDescription.Cylinders c) {
        return new VehicleDescription.Cylinders(
                list(c.order()),
                map(c.banks()),
                c.deviation(),
                c.misfires(),
                c.speed(),
                text(c.roughness()),
                text(c.finding()),
                c.weak(),
                c.scatter(),
                c.soundTo(),
                c.leastSeconds(),
                list(c.when()));
    }

    private static VehicleDescription.Drawing whole(VehicleDescription.Drawing d) {
        return new VehicleDescription.Drawing(
                d.id(),
                d.name(),
                list(d.parts()).stream()
                        .map(
                                p ->
                                        new VehicleDescription.DrawnPart(
                                                p.id(),
                                                p.name(),
                                                p.shape() == null ? "box" : p.shape(),
                                                p.x(),
                                                p.y(),
                                                list(p.values())))
                        .toList(),
                list(d.pipes()));
    }

    private static double orOne(double maybe) {
        return maybe == 0 ? 1 : maybe;
    }

    private static VehicleDescription.Bus whole(VehicleDescription.Bus b) {
        return new VehicleDescription.Bus(
                b.id(),
                b.name(),
                b.kbit(),
                list(b.terminators()),
                list(b.connectors()).stream()
                        .map(
                                c ->
                                        new VehicleDescription.Connector(
                                                c.id(),
                                                c.name(),
                                                c.after(),
                                                c.place(),
                                                c.minutes(),
                                                orOne(c.common())))
                        .toList());
    }

    private static VehicleDescription.Module whole(VehicleDescription.Module m) {
        return new VehicleDescription.Module(
                m.id(),
                m.name(),
                m.address(),
                m.bus(),
                m.order(),
                list(m.freezeFrame()),
                text(m.missed()),
                list(m.watches()),
                text(m.option()),
                text(m.under()),
                m.emission());
    }

    /**
     * The described codes, and for each module that watches another one the code of missing it.
     * What is written wins.
     */
    private static List<VehicleDescription.Code> codes(
            VehicleDescription d, List<VehicleDescription.Module> modules) {
        List<VehicleDescription.Code> codes = new ArrayList<>();
        Set<String> written = new HashSet<>();
        Map<String, VehicleDescription.Module> byMissed = new LinkedHashMap<>();
        Map<String, VehicleDescription.Module> byId = new LinkedHashMap<>();
        for (VehicleDescription.Module m : modules) {
            byId.put(m.id(), m);
            if (!m.missed().isEmpty()) {
                byMissed.put(m.missed(), m);
            }
        }
        for (VehicleDescription.Code c : list(d.codes())) {
            VehicleDescription.Module missed = byMissed.get(c.code());
            written.add(c.module() + " " + c.code());
            codes.add(
                    new VehicleDescription.Code(
                            c.code(),
                            c.module(),
                            c.name(),
                            c.weight(),
                            text(c.family()),
                            text(c.why()),
                            text(c.sets()),
                            missed == null ? "" : missed.id(),
                            list(c.brings()),
                            text(c.about()),
                            list(c.uses())));
        }
        for (VehicleDescription.Module m : modules) {
            for (String watched : m.watches()) {
                VehicleDescription.Module other = byId.get(watched);
                if (other != null
                        && !other.missed().isEmpty()
                        && written.add(m.id() + " " + other.missed())) {
                    codes.add(
                            new VehicleDescription.Code(
                                    other.missed(),
                                    m.id(),
                                    "No messages from " + other.name(),
                                    MISSED_WEIGHT,
                                    "network",
                                    "",
                                    "",
                                    other.id(),
                                    List.of(),
                                    "",
                                    List.of()));
                }
            }
        }
        return List.copyOf(codes);
    }

    private static VehicleDescription.Value whole(VehicleDescription.Value v) {
        return new VehicleDescription.Value(
                v.id(),
                v.module(),
                v.did(),
                v.bytes(),
                v.signed(),
                v.scale() == 0 ? 1 : v.scale(),
                v.offset(),
                v.name(),
                text(v.unit()),
                v.show() == null ? text(v.unit()) : v.show(),
                v.digits(),
                map(v.states()),
                list(v.words()),
                list(v.ranges()));
    }

    private static VehicleDescription.Actuator whole(VehicleDescription.Actuator a) {
        return new VehicleDescription.Actuator(
                a.id(),
                a.name(),
                a.module(),
                a.did(),
                a.command(),
                text(a.feedback()),
                a.current(),
                a.low(),
                a.high(),
                a.moveSeconds(),
                a.endError(),
                text(a.circuit()),
                text(a.motor()),
                list(a.responds()),
                list(a.gates()));
    }

    /** Checks that what one part names exists in another. */
    private record References(
            VehicleDescription d, Map<String, List<Place>> places, List<String> mistakes) {
        void check() {
            Set<String> buses = ids("buses", d.buses(), VehicleDescription.Bus::id);
            Set<String> modules = ids("modules", d.modules(), VehicleDescription.Module::id);
            Set<String> values = ids("values", d.values(), VehicleDescription.Value::id);
            Set<String> findings = ids("findings", d.findings(), VehicleDescription.Finding::id);
            Set<String> actuators =
                    ids("actuators", d.actuators(), VehicleDescription.Actuator::id);
            Set<String> symptoms = ids("symptoms", d.symptoms(), VehicleDescription.Symptom::id);
            ids("suspects", d.suspects(), VehicleDescription.Suspect::id);
            ids("checks", d.checks(), VehicleDescription.Check::id);
            Set<String> codes =
                    d.codes().stream()
                            .map(VehicleDescription.Code::code)
                            .collect(Collectors.toSet());
            each(
                    "modules",
                    d.modules(),
                    (m, at) -> {
                        needs(at, "a bus", buses, m.bus());
                        m.freezeFrame().forEach(v -> needs(at, "a value", values, v));
                        m.watches().forEach(w -> needs(at, "a module", modules, w));
                        if (!m.under().isEmpty()) {
                            needs(at, "a module", modules, m.under());
                        }
                    });
            ids("feeds", d.feeds(), VehicleDescription.Feed::id);
            each(
                    "buses",
                    d.buses(),
                    (b, at) -> {
                        b.terminators().forEach(t -> needs(at, "a module", modules, t));
                        b.connectors().forEach(c -> needs(at, "a module", modules, c.after()));
                    });
            each(
                    "feeds",
                    d.feeds(),
                    (f, at) -> f.modules().forEach(m -> needs(at, "a module", modules, m)));
            each("mileage", d.mileage(), (m, at) -> needs(at, "a module", modules, m.module()));
            each(
                    "values",
                    d.values(),
                    (v, at) -> {
                        needs(at, "a module", modules, v.module());
                        v.ranges()
                                .forEach(
                                        r ->
                                                r.when()
                                                        .forEach(
                                                                c ->
                                                                        needs(
                                                                                at, "a value",
                                                                                values,
                                                                                c.value())));
                    });
            each(
                    "codes",
                    d.codes(),
                    (c, at) -> {
                        needs(at, "a module", modules, c.module());
                        c.uses().forEach(v -> needs(at, "a value", values, v));
                        if (!c.about().isEmpty()) {
                            needs(at, "a value", values, c.about());
                        }
                    });
            each(
                    "actuators",
                    d.actuators(),
                    (a, at) -> {
                        needs(at, "a module", modules, a.module());
                        needs(at, "a value", values, a.command());
                        a.current().ifPresent(v -> needs(at, "a value", values, v));
                        a.responds().forEach(r -> needs(at, "a value", values, r.value()));
                        a.gates().forEach(g -> needs(at, "a value", values, g.value()));
                        if (a.hasFeedback()) {
                            needs(at, "a value", values, a.feedback());
                        }
                        if (a.circuit().isEmpty()) {
                            return;
                        }
                        Set<String> motors =
                                d.circuit(a.circuit()).stream()
                                        .flatMap(c -> c.motors().stream())
                                        .map(VehicleDescription.MotorPart::id)
                                        .collect(Collectors.toSet());
                        needs(at, "a motor of circuit " + a.circuit(), motors, a.motor());
                    });
            each(
                    "circuits",
                    d.circuits(),
                    (c, at) -> {
                        Set<String> points =
                                c.points().stream()
                                        .map(VehicleDescription.Point::id)
                                        .collect(Collectors.toSet());
                        needs(at, "a point", points, "BAT+");
                        needs(at, "a point", points, "BAT-");
                        c.segments()
                                .forEach(
                                        s ->
                                                Stream.of(s.from(), s.to())
                                                        .forEach(
                                                                p ->
                                                                        needs(
                                                                                at, "a point",
                                                                                points, p)));
                        c.motors()
                                .forEach(
                                        m ->
                                                Stream.of(m.from(), m.to())
                                                        .forEach(
                                                                p ->
                                                                        needs(
                                                                                at, "a point",
                                                                                points, p)));
                    });
            each(
                    "suspects",
                    d.suspects(),
                    (s, at) -> {
                        s.codes().keySet().forEach(c -> needs(at, "a code", codes, c));
                        s.symptoms().keySet().forEach(c -> needs(at, "a symptom", symptoms, c));
                        s.tells().keySet().forEach(f -> needs(at, "a finding", findings, f));
                        s.tells()
                                .forEach(
                                        (f, odds) -> {
                                            double sum =
                                                    odds.values().stream()
                                                            .mapToDouble(x -> x)
                                                            .sum();
                                            if (Math.abs(sum - 1) > 1e-6) {
                                                mistakes.add(
                                                        at
                                                                + ": the probabilities of '"
                                                                + f
                                                                + "' add up to "
                                                                + sum
                                                                + ", expected 1");
                                            }
                                        });
                    });
            each(
                    "checks",
                    d.checks(),
                    (c, at) -> {
                        switch (c.kind()) {
                            case "run" ->
                                    c.of().forEach(a -> needs(at, "an actuator", actuators, a));
                            case "finding" ->
                                    c.of().forEach(f -> needs(at, "a finding", findings, f));
                            default ->
                                    needs(
                                            at,
                                            "a circuit",
                                            d.circuits().stream()
                                                    .map(VehicleDescription.Circuit::id)
                                                    .collect(Collectors.toSet()),
                                            c.circuit());
                        }
                    });
            each(
                    "trims",
                    d.trims(),
                    (t, at) -> {
                        needs(at, "a finding", findings, t.finding());
                        if (!t.refuelled().isEmpty()) {
                            needs(at, "a finding", findings, t.refuelled());
                        }
                        Stream.of(t.shortTerm(), t.longTerm())
                                .forEach(v -> needs(at, "a value", values, v));
                        t.regimes()
                                .forEach(
                                        r ->
                                                r.when()
                                                        .forEach(
                                                                c ->
                                                                        needs(
                                                                                at, "a value",
                                                                                values,
                                                                                c.value())));
                    });
            d.cylinders()
                    .ifPresent(
                            c -> {
                                String at = "cylinders";
                                c.order()
                                        .forEach(
                                                n -> {
                                                    needs(at, "a value", values, c.deviationOf(n));
                                                    needs(at, "a value", values, c.misfiresOf(n));
                                                });
                                needs(at, "a value", values, c.speed());
                                if (!c.roughness().isEmpty()) {
                                    needs(at, "a value", values, c.roughness());
                                }
                                c.when().forEach(w -> needs(at, "a value", values, w.value()));
                                if (!c.finding().isEmpty()) {
                                    needs(at, "a finding", findings, c.finding());
                                }
                            });
            each(
                    "drawings",
                    d.drawings(),
                    (drawing, at) -> {
                        Set<String> parts =
                                drawing.parts().stream()
                                        .map(VehicleDescription.DrawnPart::id)
                                        .collect(Collectors.toSet());
                        drawing.parts()
                                .forEach(
                                        p ->
                                                p.values()
                                                        .forEach(
                                                                v ->
                                                                        needs(
                                                                                at, "a value",
                                                                                values, v)));
                        drawing.pipes()
                                .forEach(pipe -> pipe.forEach(p -> needs(at, "a part", parts, p)));
                    });
            each(
                    "follows",
                    d.follows(),
                    (f, at) -> {
                        needs(at, "a finding", findings, f.finding());
                        Stream.of(f.target(), f.actual(), f.command(), f.feedback())
                                .forEach(v -> needs(at, "a value", values, v));
                    });
        }

        private <T> Set<String> ids(String section, List<T> parts, Function<T, String> id) {
            Set<String> seen = new HashSet<>();
            each(
                    section,
                    parts,
                    (part, at) -> {
                        if (!seen.add(id.apply(part))) {
                            mistakes.add(
                                    at + ": '" + id.apply(part) + "' stands twice, expected once");
                        }
                    });
            return seen;
        }

        private <T> void each(
                String section, List<T> parts, java.util.function.BiConsumer<T, String> visit) {
            List<Place> its = places.getOrDefault(section, List.of());
            for (int i = 0; i < parts.size(); i++) {
                // what the reader adds of its own comes after what was written
                String at = i < its.size() ? its.get(i).told() : section;
                visit.accept(parts.get(i), at);
            }
        }

        private void needs(String at, String what, Set<String> known, String id) {
            if (!known.contains(id)) {
                mistakes.add(
                        at + ": expected " + what + ", found '" + id + "', which is not described");
            }
        }
    }
}
