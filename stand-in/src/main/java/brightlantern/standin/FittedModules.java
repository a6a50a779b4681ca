package brightlantern.standin;

import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.odometer.Mileage;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.module.CodeMemory;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.plant.Part;
import brightlantern.wire.Bytes;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.function.BooleanSupplier;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;

/**
 * The modules of a stand-in, each with its identity, the codes that it can set, its values, and
 * what it can command.
 */
final class FittedModules {
    private final VehicleDescription description;
    private final VehicleSimulation simulation;
    private final BusWires wires;
    private final String vin;
    private final Runnable catchUp;
    private final ToDoubleFunction<UdsModule> drivenSeconds;
    private final Map<String, UdsModule> modules = new LinkedHashMap<>();

    /**
     * @param fitted ids of those that it has
     * @param catchUp brings the vehicle to this instant before something is read or commanded
     * @param drivenSeconds seconds driven since the codes of a module were cleared last
     */
    FittedModules(
            VehicleDescription description,
            VehicleSimulation simulation,
            BusWires wires,
            String vin,
            Set<String> fitted,
            Runnable catchUp,
            ToDoubleFunction<UdsModule> drivenSeconds) {
        this.description = description;
        this.simulation = simulation;
        this.wires = wires;
        this.vin = vin;
        this.catchUp = catchUp;
        this.drivenSeconds = drivenSeconds;
        description.modules().stream()
                .filter(m -> fitted.contains(m.id()))
                .forEach(m -> modules.put(m.id(), module(m)));
        simulation.all().forEach(this::equip);
    }

    /** Null when it is not fitted. */
    UdsModule get(String id) {
        return modules.get(id);
    }

    List<UdsModule> all() {
        return List.copyOf(modules.values());
    }

    /** Forgets all codes, and what was learned. */
    void clear() {
        modules.values().forEach(m -> m.memory().clear());
        modules.keySet().forEach(simulation::cleared);
    }

    /** Whether any holds a code as failed. */
    boolean anyFailed(int number) {
        return modules.values().stream().anyMatch(m -> m.memory().failed(number));
    }

    /** Numbers of the codes that any holds as failed. */
    Set<Integer> stored() {
        return codes(CodeMemory::failed);
    }

    /** Numbers of the codes of which any has run the test since it was cleared. */
    Set<Integer> tested() {
        return codes(CodeMemory::tested);
    }

    private Set<Integer> codes(BiPredicate<CodeMemory, Integer> which) {
        return description.codes().stream()
                .filter(c -> modules.containsKey(c.module()))
                .map(c -> Dtc.parse(c.code()).number())
                .filter(n -> modules.values().stream().anyMatch(m -> which.test(m.memory(), n)))
                .collect(Collectors.toSet());
    }

    /** Takes what a module's own monitor found. */
    void report(String module, String code, boolean failed) {
        // what has no supply, or is dead, watches nothing
        if (modules.containsKey(module) && wires.alive(module, simulation.seconds())) {
            modules.get(module)
                    .memory()
                    .report(Dtc.parse(code).number(), failed, failed ? frame(module) : Bytes.EMPTY);
        }
    }

    /** Gives the modules the outputs and routines that act on a part. */
    private void equip(Part part) {
        for (Part.Outlet o : part.outlets()) {
            modules.get(o.module())
                    .output(
                            o.did(),
                            new UdsModule.Output(
                                    () -> o.present().getAsDouble(),
                                    percent -> {
                                        catchUp.run();
                                        o.take().accept(percent);
                                    },
                                    o.allowed()));
        }
        for (Part.Memory m : part.memories()) {
            modules.get(m.module())
                    .memory(
                            m.did(),
                            () -> Bytes.of(m.read().get()),
                            bytes -> {
                                catchUp.run();
                                int[] values = new int[bytes.size()];
                                for (int i = 0; i < values.length; i++) {
                                    values[i] = bytes.at(i);
                                }
                                return m.write().applyAsInt(values);
                            });
        }
        part.doings()
                .forEach(
                        (rid, doing) ->
                                modules.get(doing.module()).routine(rid, routine(rid, doing)));
    }

    /** A code that is stored and forbids a routine refuses it (0x22, conditions not correct). */
    private UdsModule.Routine routine(int rid, Part.Doing doing) {
        return new UdsModule.Routine() {
            @Override
            public int start() {
                catchUp.run();
                boolean locked =
                        simulation.locks(rid).stream().anyMatch(FittedModules.this::anyFailed);
                return locked ? 0x22 : doing.start();
            }

            @Override
            public void stop() {
                doing.stop();
            }

            @Override
            public Bytes result() {
                catchUp.run();
                return Bytes.of(doing.result());
            }
        };
    }

    private UdsModule module(ControlModule described) {
        // bus and age decide how fast a module answers: 6 to some 30 ms
        long answer =
                6
                        + Math.floorMod(described.address() * 7, 9)
                        + (kbit(described.bus()) >= 500 ? 0 : 9);
        String id = described.id();
        List<CodeMemory.Supported> codes =
                description.codes().stream()
                        .filter(c -> c.module().equals(id))
                        .map(
                                c ->
                                        new CodeMemory.Supported(
                                                Dtc.parse(c.code()).number(),
                                                severity(c),
                                                EmissionSide.concerns(c.code())))
                        .toList();
        boolean always = id.equals(Network.GATEWAY) || id.equals("body");
        BooleanSupplier reached =
                () ->
                        (always || simulation.driver().key() == 2)
                                && wires.gets(Network.GATEWAY, id, simulation.seconds())
                                && wires.gets(id, Network.GATEWAY, simulation.seconds());
        UdsModule module =
                new UdsModule(described.address(), answer, new CodeMemory(codes), reached);
        module.memory().afterClear(() -> simulation.cleared(id));
        identify(module, described);
        if (described.emission()) {
            EmissionSide.give(
                    module,
                    description.engine().contains("diesel"),
                    () -> drivenSeconds.applyAsDouble(module),
                    code -> id.equals(monitoredBy(code)),
                    id.equals("engine"));
        }
        tell(module, id);
        return module;
    }

    private void identify(UdsModule module, ControlModule described) {
        String stored = simulation.foreignVins().getOrDefault(described.id(), vin);
        int number = described.address();
        module.identifier(0xF190, () -> Bytes.text(stored));
        module.identifier(
                0xF187, () -> Bytes.text("%s-%04X-21A".formatted(prefix(), number * 13 & 0xFFFF)));
        module.identifier(0xF191, () -> Bytes.text("H0%d".formatted(1 + described.order() % 4)));
        module.identifier(0xF189, () -> Bytes.text("S%03d".formatted(100 + number % 77)));
        module.identifier(
                0xF18C,
                () ->
                        Bytes.text(
                                "%08d"
                                        .formatted(
                                                Math.floorMod(
                                                        stored.hashCode() * 31L + number,
                                                        100_000_000L))));
        // ISO 14229-1 table C.1: manufacturing date; here as year, month and day in BCD
        module.identifier(
                0xF18B,
                () ->
                        Bytes.of(
                                0x20,
                                0x10 + number % 10,
                                0x01 + number % 9,
                                packed(1 + number % 28)));
    }

    /** Its values, and its copies of the mileage. */
    private void tell(UdsModule module, String id) {
        for (Value value : description.values()) {
            if (value.module().equals(id)) {
                module.identifier(
                        value.did(),
                        () -> {
                            catchUp.run();
                            return raw(value);
                        });
            }
        }
        for (Mileage mileage : description.mileage()) {
            if (mileage.module().equals(id)) {
                simulation
                        .mileage(mileage.id())
                        .ifPresent(
                                b ->
                                        module.identifier(
                                                mileage.did(),
                                                () ->
                                                        simulation
                                                                .mileage(mileage.id())
                                                                .orElseThrow()));
            }
        }
    }

    /** A number up to 99 as packed decimal. */
    private static int packed(int number) {
        return number / 10 * 16 + number % 10;
    }

    /** ISO 14229-1 annex D.3: brakes and steering at once, what is heavy at the next halt. */
    private static int severity(Code code) {
        return code.code().startsWith("C") ? 0x80 : code.weight() >= 0.5 ? 0x40 : 0x20;
    }

    /** The module that can set a code; what nobody can set, the engine module looks after. */
    private String monitoredBy(int code) {
        return description.codes().stream()
                .filter(c -> Dtc.parse(c.code()).number() == code)
                .map(Code::module)
                .findFirst()
                .orElse("engine");
    }

    private String prefix() {
        return description.name().replaceAll("[^A-Z]", "");
    }

    private int kbit(String bus) {
        return description.buses().stream()
                .filter(b -> b.id().equals(bus))
                .findFirst()
                .map(Bus::kbit)
                .orElse(500);
    }

    private Bytes raw(Value value) {
        return Bytes.of(Scaling.raw(value, simulation.reading(value.id()).orElseThrow()));
    }

    /** The freeze frame of a module now: number of identifiers, then each with its value. */
    private Bytes frame(String moduleId) {
        List<String> ids = description.module(moduleId).orElseThrow().freezeFrame();
        Bytes frame = Bytes.of(ids.size());
        for (String id : ids) {
            Value value = description.value(id).orElseThrow();
            frame = frame.plus(Bytes.of(value.did() >> 8, value.did())).plus(raw(value));
        }
        return frame;
    }
}
