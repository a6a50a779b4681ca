package brightlantern.standin;

import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vin;
import brightlantern.standin.gateway.DoipGateway;
import brightlantern.standin.instrument.Meter;
import brightlantern.standin.instrument.Scope;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.network.BusScope;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.network.MissMonitors;
import brightlantern.standin.plant.Driver;
import brightlantern.wire.scpi.InstrumentSearch;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
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

    /** Monitors look twenty times a second. */
    private static final int SLICES_PER_LOOK = 5;

    /** Missed messages are judged five times a second. */
    private static final int SLICES_PER_LISTEN = 20;

    /**
     * Sleep between two turns of the clock; whoever looks at the vehicle in between advances it.
     */
    private static final long TURN_NANOS = 20_000_000L;

    /** After a longer gap the machine was asleep; that time is not caught up with. */
    private static final long LONGEST_GAP_NANOS = 1_000_000_000L;

    /**
     * Whoever asks waits no longer than this for time to be caught up with: on a machine that is
     * too busy a hurried vehicle goes slower, but it answers.
     */
    private static final long LONGEST_CATCH_UP_NANOS = 100_000_000L;

    private final VehicleDescription description;
    private final String vin;
    private final VehicleSimulation simulation;
    private final BusWires wires;
    private final MissMonitors missing;
    private final QuietMonitors quiet;
    private final Set<String> fitted;
    private final FittedModules modules;
    private final Map<String, String> repairs = new HashMap<>();
    private InetAddress address;
    private volatile DoipGateway gateway;
    private final ToolBox tools;
    private final OwnInstruments instruments;
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
        modules =
                new FittedModules(
                        description,
                        simulation,
                        wires,
                        vin,
                        fitted,
                        this::catchUp,
                        this::drivenSeconds);
        tools = new ToolBox(simulation, wires);
        missing = new MissMonitors(description, wires, fitted::contains);
        ScopePlaces places =
                new ScopePlaces(
                        simulation,
                        new BusScope(
                                description,
                                wires,
                                fitted::contains,
                                () -> simulation.driver().key() == 2,
                                new Random(serial)));
        instruments = new OwnInstruments(simulation, tools, places, this::catchUp);
        quiet = new QuietMonitors(description, simulation.monitored());
        simulation.damage().repairs().forEach(repairs::put);
        new NetworkModel(description.network())
                .elements()
                .forEach(e -> repairs.put("wire-" + e.id(), "On the wire: mend " + e.name()));
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
        instruments.open(address);
        lived = System.nanoTime();
        Thread clock = new Thread(this::live, "stand-in-" + address.getHostAddress());
        clock.setDaemon(true);
        clock.start();
    }

    /**
     * Announces its instruments.
     *
     * @param at an address of which something can be announced
     * @throws IOException when they cannot be announced
     */
    public void announce(InetAddress at, InstrumentSearch.Announcer by) throws IOException {
        instruments.announce(at, by, description.name() + ", " + address.getHostAddress());
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
                        modules.all());
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

    /** The meter that is connected to it. */
    Meter meter() {
        return instruments.meter();
    }

    /** The oscilloscope that is connected to it. */
    Scope scope() {
        return instruments.scope();
    }

    public BusWires wires() {
        return wires;
    }

    /** What a technician measures at it. */
    public ToolBox tools() {
        return tools;
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
        simulation.damage().repair(id);
    }

    /** Numbers of the codes that its modules hold as failed. */
    Set<Integer> stored() {
        return modules.stored();
    }

    /** Numbers of the codes whose test has run since they were cleared. */
    Set<Integer> tested() {
        return modules.tested();
    }

    /** Mends whatever is broken, and forgets what it led to. */
    synchronized void whole() {
        repairs.keySet().forEach(this::repair);
        modules.clear();
        // who still waits for somebody begins to wait anew
        missing.reset();
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
        instruments.step(SLICE_SECONDS);
        int key = simulation.driver().key();
        if (key == 2 && lastKey != 2) {
            modules.all().forEach(m -> m.memory().newCycle());
            simulation.keyOn();
            missing.reset();
            quiet.reset();
        }
        lastKey = key;
        if (simulation.running() && simulation.reading("vehicle.speed").orElse(0.0) > DRIVING_KMH) {
            driven += SLICE_SECONDS;
        }
        if (key == 2) {
            slices++;
            look();
        }
    }

    /** Lets the monitors look whose turn it is. */
    private void look() {
        if (slices % SLICES_PER_LOOK == 0) {
            double seconds = SLICES_PER_LOOK * SLICE_SECONDS;
            simulation.watch(seconds, this::report);
            quiet.watch(
                    seconds,
                    simulation.running(),
                    simulation.reading("body.supply").orElse(12.0),
                    this::report);
        }
        if (slices % SLICES_PER_LISTEN == 0) {
            missing.watch(simulation.seconds(), SLICES_PER_LISTEN * SLICE_SECONDS, this::report);
        }
    }

    /** Takes what a module's own monitor found. */
    void report(String module, String code, boolean failed) {
        modules.report(module, code, failed);
    }

    /**
     * Brings the vehicle to this instant. Whoever reads or commands it comes through here, so that
     * what they see does not depend on when the clock's thread last got its turn.
     */
    public synchronized void catchUp() {
        long began = System.nanoTime();
        lived = Math.max(lived, began - LONGEST_GAP_NANOS);
        while (!closed && gateway != null && System.nanoTime() - lived >= SLICE_NANOS) {
            if (System.nanoTime() - began > LONGEST_CATCH_UP_NANOS) {
                lived = System.nanoTime();
                return;
            }
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

    private record Driven(int clears, double seconds) {}

    /** The warning lamp in the cluster: as its own modules or as a code asks for it. */
    public boolean lamp() {
        return simulation.driver().key() == 2
                && (simulation.warning()
                        || modules.all().stream().anyMatch(m -> m.memory().asksForLamp()));
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
        instruments.close();
    }
}
