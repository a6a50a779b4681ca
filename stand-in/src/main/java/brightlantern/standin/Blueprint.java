package brightlantern.standin;

import brightlantern.core.description.OrEmpty;
import brightlantern.standin.plant.EngineSpec;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.yaml.snakeyaml.Yaml;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a stand-in is built of and what may be broken in it, as a file of this module's resources
 * tells: nothing of it is in reach of the side that diagnoses.
 *
 * @param plant which kind of plant moves it
 * @param parts names of the parts beside it
 * @param aliases value → the value whose sensor tells it too
 * @param locks codes that forbid a routine while they are stored
 */
record Blueprint(
        PlantSpec plant,
        EngineSpec engine,
        List<PartSpec> parts,
        Map<String, String> aliases,
        List<Lock> locks,
        List<Scenario> scenarios) {
    static final String AS_BUILT = "as built";

    private static final JsonMapper JSON =
            JsonMapper.builder()
                    .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                    .build();

    Blueprint {
        parts = OrEmpty.list(parts);
        aliases = OrEmpty.map(aliases);
        locks = OrEmpty.list(locks);
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
     * @param faults of its parts
     * @param wires that are broken
     * @param monitors that its modules run because of it
     * @param history what it did since, in order
     */
    record Scenario(
            String name,
            Told told,
            List<PartFault> faults,
            List<BrokenWire> wires,
            List<Monitor> monitors,
            List<Past> history) {
        Scenario {
            told = told == null ? Told.NOTHING : told;
            faults = OrEmpty.list(faults);
            wires = OrEmpty.list(wires);
            monitors = OrEmpty.list(monitors);
            history = OrEmpty.list(history);
        }
    }

    /**
     * @param of which of several, such as a cylinder
     */
    record PartFault(String part, String mode, String of, double size) {
        PartFault {
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
     * @param mendedBy id of the repair after which it passes
     * @param repair what that repair is called
     */
    record Monitor(
            String module,
            String code,
            String when,
            double seconds,
            Sees sees,
            String mendedBy,
            String repair) {}

    /**
     * A value above a limit, two values further apart than a limit, or a module that does not hear
     * another one; nothing of it for a monitor that takes the fault itself for the sign.
     */
    record Sees(Optional<Above> above, Optional<Apart> apart, Optional<Deaf> deaf) {}

    record Above(String value, double limit) {}

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
        try (InputStream in =
                Blueprint.class.getResourceAsStream("blueprints/" + vehicleId + ".yaml")) {
            if (in == null) {
                return of("any");
            }
            Object tree = new Yaml().load(in);
            return JSON.treeToValue(JSON.valueToTree(tree), Blueprint.class);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    Optional<Scenario> scenario(String name) {
        return scenarios.stream().filter(s -> s.name().equals(name)).findFirst();
    }
}
