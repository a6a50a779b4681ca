package brightlantern.standin;

import brightlantern.core.code.Dtc;
import brightlantern.core.signal.Scaling;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Value;
import brightlantern.core.vehicle.Vin;
import brightlantern.standin.gateway.DoipGateway;
import brightlantern.standin.instrument.MeterServer;
import brightlantern.standin.module.CodeMemory;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Faults;
import brightlantern.standin.plant.PortagePlant;
import brightlantern.standin.plant.PortagePlant.Moment;
import brightlantern.wire.Bytes;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.Function;

/**
 * The stand-in Tamarack Portage: plant, modules with their monitors, DoIP gateway and meter,
 * running in real time (or hurried) on a loopback address of its own.
 */
public final class PortageVan implements AutoCloseable {
    /** What was broken before the van came in. Only the stand-in knows. */
    public enum Scenario {
        AS_BUILT,
        FLAT_ON_CLIMBS;

        Faults faults() {
            Faults faults = new Faults();
            return this == FLAT_ON_CLIMBS
                    ? faults.series("G12", 0.9).trailerLampOpen(true)
                    : faults;
        }
    }

    private static final int SLICE_MILLIS = 10;

    private static final long SLICE_NANOS = SLICE_MILLIS * 1_000_000L;

    /** Sleep between two turns of the clock; whoever looks at the van in between advances it. */
    private static final long TURN_NANOS = 20_000_000L;

    /** After a longer gap the machine was asleep; that time is not caught up with. */
    private static final long LONGEST_GAP_NANOS = 1_000_000_000L;

    private final VehicleDescription description;
    private final String vin;
    private final Faults faults;
    private final PortagePlant plant;
    private final Map<String, UdsModule> modules = new HashMap<>();
    private final Map<String, Function<Moment, Double>> readings = PortageReadings.all();
    private final PortageMonitors monitors;
    private final DoipGateway gateway;
    private final MeterServer meter;
    private final Thread clock;
    private volatile Moment moment;
    private volatile int hurry = 1;
    private volatile boolean closed;
    private int lastKey;
    private long lived = System.nanoTime();

    /**
     * @param serial six digits at the end of the VIN; also seeds how its parts scatter
     * @throws IOException when the address cannot be taken
     */
    public PortageVan(
            VehicleDescription description, InetAddress address, Scenario scenario, int serial)
            throws IOException {
        this(description, address, scenario.faults(), scenario != Scenario.AS_BUILT, serial);
    }

    /**
     * @param driven whether its faults had their chance to show before it came in
     */
    public PortageVan(
            VehicleDescription description,
            InetAddress address,
            Faults faults,
            boolean driven,
            int serial)
            throws IOException {
        this.description = description;
        this.vin = vin(serial);
        this.faults = faults;
        this.plant =
                new PortagePlant(
                        description.circuit("air-actuators").orElseThrow(),
                        faults,
                        serial,
                        84_211 + serial % 1000);
        this.moment = plant.moment();
        description.modules().forEach(module -> modules.put(module.id(), module(module)));
        outputs(modules.get("engine"));
        this.monitors = new PortageMonitors(this);
        if (driven) {
            pastDrives();
        }
        plant.driver(Driver.away().key(2));
        this.gateway =
                new DoipGateway(
                        address,
                        modules.get("gateway").address(),
                        vin,
                        () -> plant.driver().key() == 2 ? 1 : 0,
                        List.copyOf(modules.values()));
        this.meter =
                new MeterServer(
                        address,
                        point -> {
                            now();
                            return plant.volts(point);
                        },
                        plant::hang);
        this.clock = new Thread(this::live, "stand-in-plant-" + address.getHostAddress());
        clock.setDaemon(true);
        clock.start();
    }

    private static String vin(int serial) {
        String open = "ZZTPG22D0M1%06d".formatted(serial);
        char digit = new Vin(open).expectedCheckDigit();
        return open.substring(0, 8) + digit + open.substring(9);
    }

    public String vin() {
        return vin;
    }

    public PortagePlant plant() {
        return plant;
    }

    public UdsModule module(String id) {
        return modules.get(id);
    }

    public DoipGateway gateway() {
        return gateway;
    }

    public Moment moment() {
        return moment;
    }

    public VehicleDescription description() {
        return description;
    }

    /** Lets the van's time run so many times faster, 1..20. */
    public void hurry(int factor) {
        hurry = Math.max(1, Math.min(20, factor));
    }

    public int hurry() {
        return hurry;
    }

    public void announceTo(InetSocketAddress listener) {
        gateway.announceTo(listener);
    }

    /** Carries out an offered repair by its id; mends what it concerns, if that was broken. */
    public void repair(String repairId) {
        description.suspects().stream()
                .filter(s -> s.repair().id().equals(repairId))
                .forEach(
                        s -> {
                            s.effect().ifPresent(effect -> faults.mend(effect.of()));
                            if (s.id().equals("boost-hose")) {
                                faults.hoseLeak(0);
                            }
                        });
    }

    /** Two drives up a long hill before the visit, the first one with a trailer. */
    private void pastDrives() {
        for (boolean trailer : new boolean[] {true, false}) {
            plant.driver(Driver.away().key(2).trailer(trailer));
            run(2);
            plant.crank();
            run(4);
            plant.driver(plant.driver().drive(Driver.Program.CLIMB));
            run(75);
            plant.driver(plant.driver().drive(Driver.Program.STAND));
            run(20);
            plant.driver(Driver.away());
            run(30);
        }
    }

    private void run(double seconds) {
        int slices = (int) Math.round(seconds * 1000 / SLICE_MILLIS);
        for (int i = 0; i < slices; i++) {
            slice();
        }
    }

    private void slice() {
        int steps = (int) Math.round(SLICE_MILLIS / 1000.0 / PortagePlant.STEP);
        for (int i = 0; i < steps; i++) {
            plant.step();
        }
        moment = plant.moment();
        if (moment.key() == 2 && lastKey != 2) {
            modules.values().forEach(m -> m.memory().newCycle());
            monitors.reset();
        }
        lastKey = moment.key();
        monitors.watch(moment, SLICE_MILLIS / 1000.0);
    }

    /**
     * The van as it stands at this instant. Whoever reads or commands it comes through here, so
     * that what they see does not depend on when the clock's thread last got its turn.
     */
    public synchronized Moment now() {
        long behind = System.nanoTime() - lived;
        if (behind > LONGEST_GAP_NANOS) {
            lived += behind - LONGEST_GAP_NANOS;
        }
        while (!closed && System.nanoTime() - lived >= SLICE_NANOS) {
            for (int i = 0; i < hurry; i++) {
                slice();
            }
            lived += SLICE_NANOS;
        }
        return moment;
    }

    private void live() {
        while (!closed) {
            now();
            LockSupport.parkNanos(TURN_NANOS);
        }
    }

    private UdsModule module(VehicleDescription.Module described) {
        // bus and age decide how fast a module answers: 6 to some 30 ms
        long answer =
                6
                        + Math.floorMod(described.address() * 7, 9)
                        + (described.bus().equals("drive") ? 0 : 9);
        List<Integer> codes =
                description.codes().stream()
                        .filter(c -> c.module().equals(described.id()))
                        .map(c -> Dtc.parse(c.code()).number())
                        .toList();
        boolean always = described.id().equals("gateway") || described.id().equals("body");
        BooleanSupplier awake = () -> always || plant.driver().key() == 2;
        UdsModule module = new UdsModule(described.address(), answer, new CodeMemory(codes), awake);
        module.identifier(0xF190, () -> Bytes.text(vin));
        module.identifier(
                0xF187,
                () -> Bytes.text("TP-%04X-21A".formatted(described.address() * 13 & 0xFFFF)));
        module.identifier(0xF191, () -> Bytes.text("H0%d".formatted(1 + described.order() % 4)));
        module.identifier(
                0xF189, () -> Bytes.text("S%03d".formatted(100 + described.address() % 77)));
        module.identifier(
                0xF18C,
                () ->
                        Bytes.text(
                                "%08d"
                                        .formatted(
                                                Math.floorMod(
                                                        vin.hashCode() * 31L + described.address(),
                                                        100_000_000L))));
        for (Value value : description.values()) {
            if (value.module().equals(described.id())) {
                module.identifier(value.did(), () -> raw(value, now()));
            }
        }
        return module;
    }

    private Bytes raw(Value value, Moment at) {
        return Bytes.of(Scaling.raw(value, readings.get(value.id()).apply(at)));
    }

    /** The freeze frame of a module now: number of identifiers, then each with its value. */
    Bytes frame(String moduleId) {
        List<String> ids = description.module(moduleId).orElseThrow().freezeFrame();
        Bytes frame = Bytes.of(ids.size());
        for (String id : ids) {
            Value value = description.value(id).orElseThrow();
            frame = frame.plus(Bytes.of(value.did() >> 8, value.did())).plus(raw(value, moment));
        }
        return frame;
    }

    private void outputs(UdsModule engine) {
        BooleanSupplier engineOff = () -> !now().running();
        engine.output(
                0x3001,
                new UdsModule.Output(
                        () -> now().vaneCommand(),
                        percent -> {
                            now();
                            plant.overrideVane(percent);
                        },
                        engineOff));
        engine.output(
                0x3002,
                new UdsModule.Output(
                        () -> now().throttleCommand(),
                        percent -> {
                            now();
                            plant.overrideThrottle(percent);
                        },
                        engineOff));
        engine.routine(
                0x0201,
                () -> {
                    plant.overrideVane(OptionalDouble.empty());
                    return 0;
                });
    }

    @Override
    public void close() {
        closed = true;
        gateway.close();
        meter.close();
    }
}
