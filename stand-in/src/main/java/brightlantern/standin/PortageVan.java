package brightlantern.standin;

import brightlantern.core.suspect.Effect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.gateway.DoipGateway;
import brightlantern.standin.instrument.MeterServer;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.plant.AirPath;
import brightlantern.standin.plant.Boards;
import brightlantern.standin.plant.Crank;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EngineSpec;
import brightlantern.standin.plant.Exhaust;
import brightlantern.standin.plant.Faults;
import brightlantern.standin.plant.InjectionRail;
import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.PortagePlant;
import brightlantern.standin.plant.PortagePlant.Moment;
import brightlantern.standin.plant.TrailerBoard;
import brightlantern.standin.plant.TrimMemory;
import brightlantern.standin.plant.Warmth;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.DoubleSupplier;
import java.util.function.Function;

/**
 * The stand-in Tamarack Portage: plant, monitors and outputs of its engine module, with a meter on
 * the same address.
 */
public final class PortageVan implements Works, AutoCloseable {
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

    private final VehicleDescription description;
    private final Faults faults;
    private final PortagePlant plant;
    private final PortageMonitors monitors = new PortageMonitors();
    private final Map<String, Function<Moment, Double>> readings = PortageReadings.all();
    private final StandInVehicle vehicle;
    private final MeterServer meter;
    private final List<Part> parts;
    private final Map<String, DoubleSupplier> sensors = new HashMap<>();
    private volatile Moment moment;

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
        this.faults = faults;
        this.plant =
                new PortagePlant(
                        description.circuit("air-actuators").orElseThrow(),
                        faults,
                        serial,
                        84_211 + serial % 1000);
        this.moment = plant.moment();
        EngineSpec spec = EngineSpec.of(description.id());
        this.parts =
                List.of(
                        new Boards(
                                description.modules().stream().map(m -> m.id()).toList(),
                                6000 + serial % 900),
                        new Crank(spec, serial),
                        new Exhaust(spec, 8 + serial % 6),
                        new InjectionRail(spec, serial),
                        new AirPath(spec, serial),
                        new Warmth(spec, 5000 + serial % 700),
                        new TrimMemory(spec.cylinders(), serial),
                        new TrailerBoard(StandInVehicle.vin(description, serial)));
        parts.forEach(part -> sensors.putAll(part.sensors()));
        // the sensor before the filter is the one before treatment, read by another module
        sensors.put("exhaust.temperature", sensors.get("exhaust.front"));
        this.vehicle =
                new StandInVehicle(
                        description, this, new BusWires(description, new Random(serial)), serial);
        outputs(vehicle.module("engine"));
        if (driven) {
            pastDrives();
        }
        plant.driver(Driver.away().key(2));
        vehicle.open(address);
        this.meter =
                new MeterServer(
                        address,
                        point -> {
                            vehicle.catchUp();
                            return plant.volts(point);
                        },
                        plant::hang);
    }

    public StandInVehicle vehicle() {
        return vehicle;
    }

    public String vin() {
        return vehicle.vin();
    }

    public PortagePlant plant() {
        return plant;
    }

    public UdsModule module(String id) {
        return vehicle.module(id);
    }

    public DoipGateway gateway() {
        return vehicle.gateway();
    }

    /** The newest moment that its clock came to. */
    public Moment moment() {
        return moment;
    }

    /** The van as it stands at this instant. */
    public Moment now() {
        vehicle.catchUp();
        return moment;
    }

    public void hurry(int factor) {
        vehicle.hurry(factor);
    }

    public void announceTo(InetSocketAddress listener) {
        vehicle.announceTo(listener);
    }

    @Override
    public Map<String, String> repairs() {
        Map<String, String> offered = new LinkedHashMap<>();
        description.suspects().forEach(s -> offered.put(s.repair().id(), s.repair().name()));
        return offered;
    }

    @Override
    public void repair(String repairId) {
        description.suspects().stream()
                .filter(s -> s.repair().id().equals(repairId))
                .forEach(
                        s -> {
                            parts.forEach(part -> part.mend(repairId));
                            s.effect().ifPresent(this::mend);
                            if (s.id().equals("boost-hose")) {
                                faults.hoseLeak(0);
                            }
                        });
    }

    private void mend(Effect effect) {
        if (effect instanceof Effect.Series series) {
            faults.mend(series.of());
        } else if (effect instanceof Effect.Drag drag) {
            faults.mend(drag.of());
        }
    }

    /** Seconds that a vehicle stood in the yard before anybody looks at it. */
    private static final double WAITED = 600;

    /** Two drives up a long hill before the visit, the first one with a trailer. */
    private void pastDrives() {
        for (boolean trailer : new boolean[] {true, false}) {
            plant.driver(Driver.away().key(2).trailer(trailer));
            vehicle.live(2);
            plant.crank();
            vehicle.live(4);
            plant.driver(plant.driver().drive(Driver.Program.CLIMB));
            vehicle.live(75);
            plant.driver(plant.driver().drive(Driver.Program.STAND));
            vehicle.live(20);
            plant.driver(Driver.away());
            vehicle.live(30);
        }
        // whoever brought it had to wait for his turn, and what was hot has cooled
        vehicle.live(WAITED);
    }

    private void outputs(UdsModule engine) {
        BooleanSupplier engineOff = () -> !now().running();
        engine.output(0x3001, output(Moment::vaneCommand, plant::overrideVane, engineOff));
        engine.output(0x3002, output(Moment::throttleCommand, plant::overrideThrottle, engineOff));
        engine.routine(
                0x0201,
                () -> {
                    plant.overrideVane(OptionalDouble.empty());
                    return 0;
                });
    }

    private UdsModule.Output output(
            Function<Moment, Double> present,
            Consumer<OptionalDouble> take,
            BooleanSupplier allowed) {
        return new UdsModule.Output(
                () -> present.apply(now()),
                percent -> {
                    now();
                    take.accept(percent);
                },
                allowed);
    }

    @Override
    public List<Part> parts() {
        return parts;
    }

    @Override
    public Map<String, String> acts() {
        Map<String, String> all = new LinkedHashMap<>();
        parts.forEach(part -> all.putAll(part.acts()));
        return all;
    }

    @Override
    public void act(String id) {
        parts.forEach(part -> part.act(id));
    }

    @Override
    public void advance(double seconds) {
        long steps = Math.round(seconds / PortagePlant.STEP);
        for (long i = 0; i < steps; i++) {
            plant.step();
        }
        parts.forEach(part -> part.step(plant, steps * PortagePlant.STEP));
        moment = plant.moment();
    }

    @Override
    public double seconds() {
        return moment.seconds();
    }

    @Override
    public Driver driver() {
        return plant.driver();
    }

    @Override
    public void driver(Driver next) {
        plant.driver(next);
    }

    @Override
    public void crank() {
        plant.crank();
    }

    @Override
    public boolean running() {
        return moment.running();
    }

    @Override
    public boolean warning() {
        return moment.limited();
    }

    @Override
    public Optional<Double> reading(String valueId) {
        return Optional.ofNullable(readings.get(valueId))
                .map(r -> r.apply(moment))
                .or(
                        () ->
                                Optional.ofNullable(sensors.get(valueId))
                                        .map(DoubleSupplier::getAsDouble));
    }

    @Override
    public void watch(double seconds, Sink sink) {
        monitors.watch(moment, seconds, sink, plant::limit);
        if (plant.driver().key() == 2) {
            parts.forEach(part -> part.watch(sink::report));
        }
    }

    @Override
    public Set<String> monitored() {
        return Set.of(
                "engine P0299-00",
                "engine P0562-00",
                "trailer B1021-13",
                TrailerBoard.MODULE + " " + TrailerBoard.NOT_CONFIGURED);
    }

    @Override
    public void keyOn() {
        monitors.reset();
    }

    @Override
    public void close() {
        vehicle.close();
        meter.close();
    }
}
