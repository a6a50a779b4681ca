package brightlantern.standin;

import brightlantern.core.description.OrEmpty;
import brightlantern.standin.plant.EngineSpec;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.yaml.snakeyaml.Yaml;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a stand-in is built of and what may be broken in it, as a file of this module's resources
 * tells: nothing of it is in reach of the side that diagnoses.
 *
 * @param plant which kind of plant moves it
 * @param parts names of the parts beside it
 * @param systems names of its systems that are not electrical ({@link Mechanics})
 * @param aliases value → the value whose sensor tells it too
 * @param monitors that its modules run, whatever is broken, beside those of its systems
 * @param locks codes that forbid a routine while they are stored
 */
record Blueprint(
        PlantSpec plant,
        EngineSpec engine,
        List<PartSpec> parts,
        List<String> systems,
        Map<String, String> aliases,
        List<Lock> locks,
        List<Monitor> monitors,
        List<Scenario> scenarios) {
    static final String AS_BUILT = "as built";

    private static final JsonMapper JSON =
            JsonMapper.builder()
                    .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                    .build();

    Blueprint {
        parts = OrEmpty.list(parts);
        systems = OrEmpty.list(systems);
        aliases = OrEmpty.map(aliases);
        locks = OrEmpty.list(locks);
        monitors = OrEmpty.list(monitors);
        scenarios = OrEmpty.list(scenarios);
    }

    /**
     * @param kind boosted-diesel or plain
     * @param kilometres at least, that it has been driven
     * @param within scatter of its kilometres
     * @param kilometresAnHour that it was driven on the mean
     * @param rpmPerMetre engine speed that belongs to a road speed of 1 m/s
     * @param fastest road speed, m/s
     */
    record PlantSpec(
            String kind,
            double kilometres,
            int within,
            double kilometresAnHour,
            double rpmPerMetre,
            double fastest) {}

    /**
     * @param module that looks after it, where that differs from vehicle to vehicle
     * @param bank of cylinders, as the ids of its values end
     */
    record PartSpec(String kind, String module, String bank) {
        PartSpec {
            module = OrEmpty.text(module);
            bank = OrEmpty.text(bank);
        }

        /** Its name in faults: its kind, with the bank where there are several. */
        String name() {
            return kind + bank;
        }
    }

    record Lock(int routine, List<String> codes) {
        Lock {
            codes = OrEmpty.list(codes);
        }
    }

    /**
     * What happened to a vehicle before it came in.
     *
     * @param told how the driver tells it
     * @param faults of its systems and parts
     * @param wires that are broken
     * @param history what it did since, in order
     */
    record Scenario(
            String name,
            Told told,
            List<PartFault> faults,
            List<BrokenWire> wires,
            List<Past> history) {
        Scenario {
            told = told == null ? Told.NOTHING : told;
            faults = OrEmpty.list(faults);
            wires = OrEmpty.list(wires);
            history = OrEmpty.list(history);
        }
    }

    /**
     * @param failure id of what breaks in one of its systems; empty for a fault of a part alone
     * @param of which of several, such as a cylinder
     */
    record PartFault(String failure, String part, String mode, String of, double size) {
        PartFault {
            failure = OrEmpty.text(failure);
            part = OrEmpty.text(part);
            mode = OrEmpty.text(mode);
            of = OrEmpty.text(of);
        }
    }

    /**
     * A wire of a bus that lets too little through.
     *
     * @param at how many stations, counted from the gateway, lie before the bad place
     * @param wire HIGH, LOW or BOTH
     */
    record BrokenWire(
            String id,
            String bus,
            int at,
            String wire,
            double ohm,
            double badSeconds,
            double goodSeconds) {}

    /**
     * @param sees what it takes for a fault
     */
    record Monitor(String module, String code, String when, double seconds, Sees sees) {}

    /**
     * A value above or below a limit, two values further apart than a limit, or a module that does
     * not hear another one.
     */
    record Sees(
            Optional<Limit> above,
            Optional<Limit> below,
            Optional<Apart> apart,
            Optional<Deaf> deaf) {}

    record Limit(String value, double limit) {}

    record Apart(String a, String b, double limit) {}

    record Deaf(String listener, String to) {}

    /** Something that a vehicle did before it came in. */
    enum Past {
        BREAKS,
        NIGHT_WITH_DOORS_OPEN,
        DRIVE,
        CLIMB_WITH_TRAILER,
        CLIMB,
        WAITS
    }

    /** The blueprint of a vehicle; of modules alone when there is none. */
    static Blueprint of(String vehicleId) {
        String file = "blueprints/" + vehicleId + ".yaml";
        return Blueprint.class.getResource(file) == null
                ? of("any")
                : read(file, tree -> tree, Blueprint.class);
    }

    /** A file of this module's resources. */
    static <T> T read(String file, UnaryOperator<Object> changed, Class<T> type) {
        try (InputStream in = Blueprint.class.getResourceAsStream(file)) {
            if (in == null) {
                throw new IllegalArgumentException("There is no file " + file);
            }
            Object tree = changed.apply(new Yaml().load(in));
            return JSON.treeToValue(JSON.valueToTree(tree), type);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    Optional<Scenario> scenario(String name) {
        return scenarios.stream().filter(s -> s.name().equals(name)).findFirst();
    }
}
