package brightlantern.standin;

import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.odometer.Mileage;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vin;
import brightlantern.standin.gateway.DoipGateway;
import brightlantern.standin.instrument.Meter;
import brightlantern.standin.instrument.Scope;
import brightlantern.standin.instrument.ScpiServer;
import brightlantern.standin.module.CodeMemory;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.network.BusScope;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.network.MissMonitors;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import brightlantern.wire.Bytes;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;

/**
 * A stand-in vehicle on a loopback address of its own: modules with identities, codes and values on
 * buses that are physical wires, behind a DoIP gateway, in real time or hurried. What goes on
 * inside is its {@link VehicleSimulation}.
 */
public final class StandInVehicle implements AutoCloseable {
    private static final double SLICE_SECONDS = 0.01;
    private static final double DRIVING_KMH = 30;
    private static final long SLICE_NANOS = 10_000_000L;

    /** Missed messages are judged ten times a second. */
    private static final int SLICES_PER_LISTEN = 10;

    /**
     * Sleep between two turns of the clock; whoever looks at the vehicle in between advances it.
     */
    private static final long TURN_NANOS = 20_000_000L;

    /** After a longer gap the machine was asleep; that time is not caught up with. */
    private static final long LONGEST_GAP_NANOS = 1_000_000_000L;

    private final VehicleDescription description;
    private final String vin;
    private final VehicleSimulation simulation;
    private final BusWires wires;
    private final MissMonitors missing;
    private final QuietMonitors quiet;
    private final Set<String> fitted;
    private final Map<String, UdsModule> modules = new LinkedHashMap<>();
    private final Map<String, String> repairs = new HashMap<>();
    private InetAddress address;
    private volatile DoipGateway gateway;
    private final Scope scope;
    private final List<ScpiServer> instruments = new ArrayList<>();
    private volatile int hurry = 1;
    private volatile boolean closed;
    private final Map<UdsModule, Driven> drivenAtClear = new HashMap<>();
    private double driven;
    private int lastKey;
    private int slices;
    private long lived;

    /**
     * @param serial six digits at the end of the VIN
     * @throws IllegalArgumentException when a described value has no sensor
     */
    public StandInVehicle(
            VehicleDescription description,
            VehicleSimulation simulation,
            BusWires wires,
            int serial) {
        this.description = description;
        this.simulation = simulation;
        this.wires = wires;
        this.vin = vin(description, serial);
        this.fitted =
                description.modules().stream()
                        .filter(m -> m.option().isEmpty())
                        .map(ControlModule::id)
                        .collect(Collectors.toSet());
        for (Value value : description.values()) {
            if (simulation.reading(value.id()).isEmpty()) {
                throw new IllegalArgumentException(
                        description.id() + " has no sensor for value '" + value.id() + "'");
            }
        }
        description.modules().stream()
                .filter(m -> fitted.contains(m.id()))
                .forEach(m -> modules.put(m.id(), module(m)));
        simulation.all().forEach(this::equip);
        missing = new MissMonitors(description, wires, fitted::contains);
        scope =
                new Scope(
                        new ScopePlaces(
                                simulation,
                                new BusScope(
                                        description,
                                        wires,
                                        fitted::contains,
                                        () -> simulation.driver().key() == 2,
                                        new Random(serial))));
        quiet = new QuietMonitors(description, simulation.monitored());
        simulation.repairs().forEach(repairs::put);
        new NetworkModel(description.network())
                .elements()
                .forEach(e -> repairs.put("wire-" + e.id(), "On the wire: mend " + e.name()));
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
                                        catchUp();
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
                                catchUp();
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
                catchUp();
                boolean locked =
                        simulation.locks(rid).stream()
                                .anyMatch(
                                        code ->
                                                modules.values().stream()
                                                        .anyMatch(m -> m.memory().failed(code)));
                return locked ? 0x22 : doing.start();
            }

            @Override
            public void stop() {
                doing.stop();
            }

            @Override
            public Bytes result() {
                catchUp();
                return Bytes.of(doing.result());
            }
        };
    }

    /**
     * A VIN that fits a description: its pattern with the first of each choice, the serial number
     * at the end, and the right check digit.
     */
    static String vin(VehicleDescription description, int serial) {
        String open =
                description.vinPattern().substring(0, 8)
                        + "0"
                        + description
                                .vinPattern()
                                .replaceAll("\\[[^]]*\\](\\{\\d+\\})?", "?")
                                .substring(9, 10)
                        + "1%06d".formatted(serial);
        char digit = new Vin(open).expectedCheckDigit();
        return open.substring(0, 8) + digit + open.substring(9);
    }

    /**
     * Begins to live on its address.
     *
     * @throws IOException when the address cannot be taken
     */
    public void open(InetAddress address) throws IOException {
        this.address = address;
        startGateway();
        if (simulation.plant().hasCircuits() || simulation.circuits().isPresent()) {
            instruments.add(
                    new ScpiServer(
                            address,
                            Meter.PORT,
                            new Meter(
                                    point -> {
                                        catchUp();
                                        return simulation.volts(point);
                                    },
                                    simulation::hang)));
        }
        instruments.add(new ScpiServer(address, Scope.PORT, scope));
        lived = System.nanoTime();
        Thread clock = new Thread(this::live, "stand-in-" + address.getHostAddress());
        clock.setDaemon(true);
        clock.start();
    }

    /** The gateway goes down and comes up again, as after a dip of its supply. */
    public void restartGateway() throws IOException {
        gateway.close();
        startGateway();
    }

    private void startGateway() throws IOException {
        gateway =
                new DoipGateway(
                        address,
                        modules.get(Network.GATEWAY).address(),
                        vin,
                        () -> simulation.driver().key() == 2 ? 1 : 0,
                        List.copyOf(modules.values()));
    }

    public String vin() {
        return vin;
    }

    /** A sensor's reading at this instant; NaN when there is no such sensor. */
    public double reading(String valueId) {
        catchUp();
        return simulation.reading(valueId).orElse(Double.NaN);
    }

    public VehicleSimulation simulation() {
        return simulation;
    }

    /** The oscilloscope that is connected to it. */
    Scope scope() {
        return scope;
    }

    public BusWires wires() {
        return wires;
    }

    public VehicleDescription description() {
        return description;
    }

    public UdsModule module(String id) {
        return modules.get(id);
    }

    public DoipGateway gateway() {
        return gateway;
    }

    /** Lets the vehicle's time run so many times faster, 1..20. */
    public void hurry(int factor) {
        hurry = Math.max(1, Math.min(20, factor));
    }

    public int hurry() {
        return hurry;
    }

    /** Offered repairs, id → name. */
    public Map<String, String> repairs() {
        return Map.copyOf(repairs);
    }

    public void repair(String id) {
        wires.mend(id.replaceFirst("^wire-", ""));
        simulation.repair(id);
    }

    /** Numbers of the codes that its modules hold as failed. */
    Set<Integer> stored() {
        return description.codes().stream()
                .filter(c -> modules.containsKey(c.module()))
                .map(c -> Dtc.parse(c.code()).number())
                .filter(n -> modules.values().stream().anyMatch(m -> m.memory().failed(n)))
                .collect(Collectors.toSet());
    }

    /** Mends whatever is broken, and forgets what it led to. */
    synchronized void whole() {
        repairs.keySet().forEach(this::repair);
        modules.values().forEach(m -> m.memory().clear());
        modules.keySet().forEach(simulation::cleared);
    }

    public void announceTo(InetSocketAddress listener) {
        gateway.announceTo(listener);
    }

    /** Lets time pass before it is opened, as fast as it can be computed. */
    public void live(double seconds) {
        long count = Math.round(seconds / SLICE_SECONDS);
        for (long i = 0; i < count; i++) {
            slice();
        }
    }

    private synchronized void slice() {
        simulation.advance(SLICE_SECONDS);
        scope.step(SLICE_SECONDS);
        int key = simulation.driver().key();
        if (key == 2 && lastKey != 2) {
            modules.values().forEach(m -> m.memory().newCycle());
            simulation.keyOn();
            missing.reset();
            quiet.reset();
        }
        lastKey = key;
        if (simulation.running() && simulation.reading("vehicle.speed").orElse(0.0) > DRIVING_KMH) {
            driven += SLICE_SECONDS;
        }
        simulation.watch(SLICE_SECONDS, this::report);
        if (key == 2) {
            quiet.watch(
                    SLICE_SECONDS,
                    simulation.running(),
                    simulation.reading("body.supply").orElse(12.0),
                    this::report);
        }
        if (key == 2 && ++slices % SLICES_PER_LISTEN == 0) {
            missing.watch(simulation.seconds(), SLICES_PER_LISTEN * SLICE_SECONDS, this::report);
        }
    }

    /** Takes what a module's own monitor found. */
    void report(String module, String code, boolean failed) {
        if (modules.containsKey(module)) {
            modules.get(module)
                    .memory()
                    .report(Dtc.parse(code).number(), failed, failed ? frame(module) : Bytes.EMPTY);
        }
    }

    /**
     * Brings the vehicle to this instant. Whoever reads or commands it comes through here, so that
     * what they see does not depend on when the clock's thread last got its turn.
     */
    public synchronized void catchUp() {
        long behind = System.nanoTime() - lived;
        if (behind > LONGEST_GAP_NANOS) {
            lived += behind - LONGEST_GAP_NANOS;
        }
        while (!closed && gateway != null && System.nanoTime() - lived >= SLICE_NANOS) {
            for (int i = 0; i < hurry; i++) {
                slice();
            }
            lived += SLICE_NANOS;
        }
    }

    private void live() {
        while (!closed) {
            catchUp();
            LockSupport.parkNanos(TURN_NANOS);
        }
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
        String stored = simulation.foreignVins().getOrDefault(id, vin);
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
        if (described.emission()) {
            EmissionSide.give(
                    module,
                    description.engine().contains("diesel"),
                    () -> drivenSeconds(module),
                    code -> id.equals(monitoredBy(code)),
                    id.equals("engine"));
        }
        for (Value value : description.values()) {
            if (value.module().equals(id)) {
                module.identifier(
                        value.did(),
                        () -> {
                            catchUp();
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
        return module;
    }

    /** A number up to 99 as packed decimal. */
    private static int packed(int number) {
        return number / 10 * 16 + number % 10;
    }

    /** Seconds driven since the codes of a module were cleared last. */
    private synchronized double drivenSeconds(UdsModule module) {
        int clears = module.memory().clears();
        Driven since = drivenAtClear.get(module);
        if (since == null || since.clears() != clears) {
            since = new Driven(clears, clears == 0 ? 0 : driven);
            drivenAtClear.put(module, since);
        }
        return driven - since.seconds();
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

    private record Driven(int clears, double seconds) {}

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

    /** The warning lamp in the cluster: as its own modules or as a code asks for it. */
    public boolean lamp() {
        return simulation.driver().key() == 2
                && (simulation.warning()
                        || modules.values().stream().anyMatch(m -> m.memory().asksForLamp()));
    }

    /** The driver does something. */
    public void driver(Driver next) {
        catchUp();
        simulation.driver(next);
    }

    @Override
    public void close() {
        closed = true;
        if (gateway != null) {
            gateway.close();
        }
        instruments.forEach(ScpiServer::close);
    }
}
