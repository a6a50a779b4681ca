package brightlantern.core.procedure.library;

import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
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
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Reads the procedures of a vehicle: the files of its folder {@code procedures} and, for every
 * vehicle, those of {@code shared/plans}. A mistake names file, line and what was expected: a step
 * that cannot be reached, a wait without a limit, a command without a way back, a circle without an
 * end.
 */
public final class ProcedureReader {
    private static final String EQUIPMENT = "equipment.yaml";
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
                Procedure read = new ProcedureFile(d, equipment, yaml.get(), its).procedure(id);
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
}
