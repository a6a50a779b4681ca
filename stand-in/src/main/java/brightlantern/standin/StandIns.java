package brightlantern.standin;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.network.WireFault;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EngineSpec;
import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.PlainPlant;
import brightlantern.standin.plant.Plant;
import brightlantern.standin.plant.PortagePlant;
import brightlantern.standin.plant.RunningGear;
import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.Random;

/** Builds stand-in vehicles from their blueprints, each as built or in one of its scenarios. */
public final class StandIns {
    public static final String AS_BUILT = Blueprint.AS_BUILT;

    /** Seconds that a vehicle stood in the yard before anybody looks at it. */
    private static final double WAITED = 600;

    /** Minutes of a night. */
    /** It stands so long over a few days, minutes. */
    private static final int DAYS_MINUTES = 60 * 60;

    private static final int NIGHT_MINUTES = 240;

    private StandIns() {}

    /** Scenarios of a vehicle, as built first. */
    public static List<String> scenarios(String vehicleId) {
        return Blueprint.of(vehicleId).scenarios().stream().map(Blueprint.Scenario::name).toList();
    }

    /** The engine of a vehicle. */
    public static EngineSpec engine(String vehicleId) {
        return Blueprint.of(vehicleId).engine();
    }

    /**
     * A vehicle that has been driven to the workshop and stands there with its key on; to be opened
     * on an address.
     *
     * @param serial six digits at the end of the VIN; also seeds how its parts scatter
     * @throws IllegalArgumentException when it has no such scenario
     */
    public static StandInVehicle of(VehicleDescription d, String scenario, int serial) {
        Blueprint blueprint = Blueprint.of(d.id());
        return of(
                d,
                blueprint,
                blueprint
                        .scenario(scenario)
                        .orElseThrow(
                                () ->
                                        new IllegalArgumentException(
                                                "Scenario '"
                                                        + scenario
                                                        + "': expected one of "
                                                        + scenarios(d.id()))),
                serial);
    }

    /**
     * The same, opened on an address.
     *
     * @throws IOException when the address cannot be taken
     */
    public static StandInVehicle open(
            VehicleDescription d, InetAddress address, String scenario, int serial)
            throws IOException {
        StandInVehicle vehicle = of(d, scenario, serial);
        vehicle.open(address);
        return vehicle;
    }

    /** What the driver says of a scenario. */
    public static Told told(String vehicleId, String scenario) {
        return Blueprint.of(vehicleId).scenario(scenario).orElseThrow().told();
    }

    /**
     * A vehicle with one fault of somebody's own choice, which did what it does in the last of its
     * scenarios.
     *
     * @param part the plant, or a part of its blueprint
     * @throws IllegalArgumentException when that part cannot break so
     */
    public static StandInVehicle broken(
            VehicleDescription d, String part, String mode, String of, double size, int serial) {
        Blueprint blueprint = Blueprint.of(d.id());
        Blueprint.Scenario last = blueprint.scenarios().get(blueprint.scenarios().size() - 1);
        Blueprint.Scenario own =
                new Blueprint.Scenario(
                        "own",
                        Told.NOTHING,
                        List.of(new Blueprint.PartFault("", part, mode, of, size)),
                        List.of(),
                        last.history());
        return of(d, blueprint, own, serial);
    }

    /** So many draws are made for one that a module notices; far fewer are needed. */
    private static final int MOST_DRAWS = 60;

    /**
     * A vehicle in which something is broken that nobody chose, drawn by how often it happens among
     * what its own modules notice; it did what it does in the last of its scenarios.
     *
     * @param seed draws what is broken and how badly; the same seed breaks the same
     * @throws IllegalStateException when nothing that was drawn is noticed
     */
    public static Surprise surprise(VehicleDescription d, long seed, int serial) {
        Random random = new Random(seed);
        List<Part.Failure> failures = of(d, AS_BUILT, serial).simulation().plant().failures();
        for (int draw = 0; draw < MOST_DRAWS; draw++) {
            Part.Failure failure = drawn(failures, random);
            double size =
                    failure.least()
                            * Math.pow(failure.most() / failure.least(), random.nextDouble());
            StandInVehicle vehicle =
                    broken(d, VehicleSimulation.PLANT, failure.mode(), failure.of(), size, serial);
            if (vehicle.lamp()) {
                return new Surprise(
                        vehicle,
                        "%s (%s %.2f)".formatted(failure.name(), failure.mode(), size),
                        failure);
            }
        }
        throw new IllegalStateException("No fault that was drawn for " + d.id() + " is noticed");
    }

    private static Part.Failure drawn(List<Part.Failure> failures, Random random) {
        double at = random.nextDouble() * failures.stream().mapToDouble(Part.Failure::common).sum();
        int drawn = 0;
        while (drawn < failures.size() - 1 && at >= failures.get(drawn).common()) {
            at -= failures.get(drawn++).common();
        }
        return failures.get(drawn);
    }

    /**
     * A vehicle with a fault that nobody chose.
     *
     * @param truth what is broken, in words
     */
    public record Surprise(StandInVehicle vehicle, String truth, Part.Failure failure) {}

    private static StandInVehicle of(
            VehicleDescription d, Blueprint blueprint, Blueprint.Scenario scenario, int serial) {
        Random random = new Random(serial);
        BusWires wires = new BusWires(d, random);
        Plant plant = plant(d, blueprint.plant(), random, serial);
        VehicleSimulation simulation = new VehicleSimulation(d, plant);
        for (Blueprint.PartSpec spec : blueprint.parts()) {
            simulation.with(
                    spec.name(),
                    PartKinds.make(new PartKinds.Site(d, blueprint, spec, plant, wires, serial)));
        }
        blueprint.aliases().forEach(simulation::alias);
        if (d.circuits().stream().anyMatch(c -> !c.gauges().isEmpty())) {
            Circuits circuits = new Circuits(d.wiring(), plant, new Random(serial));
            simulation.with(circuits);
            wires.feeds(circuits::unfed);
        }
        blueprint.locks().forEach(l -> simulation.lock(l.routine(), l.codes()));
        Mechanics mechanics = Mechanics.of(blueprint.systems(), blueprint.engine());
        simulation.with(Mechanics.GEAR, new RunningGear(mechanics.gear()));
        simulation.with(mechanics);
        mechanics.monitors().forEach(m -> simulation.monitor(monitor(m, wires)));
        for (Mechanics.Notice n : mechanics.notices()) {
            PlantMonitor by =
                    new PlantMonitor(
                            "",
                            n.symptom(),
                            PlantMonitor.When.named(n.when()),
                            sign(n.sees(), wires),
                            n.seconds());
            simulation.notice(n, by);
        }
        blueprint.monitors().forEach(m -> simulation.monitor(monitor(m, wires)));
        for (Blueprint.PartFault f : scenario.faults()) {
            if (f.failure().isEmpty()) {
                simulation.fail(f.part(), f.mode(), f.of(), f.size());
            } else {
                simulation.damage().fail(simulation.damage().failing(f.failure()), f.size());
            }
        }
        StandInVehicle vehicle = new StandInVehicle(d, simulation, wires, serial);
        for (Blueprint.Past past : scenario.history()) {
            live(past, vehicle, scenario);
        }
        simulation.driver(Driver.away().key(2));
        vehicle.live(3);
        return vehicle;
    }

    private static Plant plant(
            VehicleDescription d, Blueprint.PlantSpec spec, Random random, int serial) {
        double kilometres = spec.kilometres() + random.nextInt(Math.max(1, spec.within()));
        return switch (spec.kind()) {
            case "boosted-diesel" -> new PortagePlant(d.circuits().get(0), serial, kilometres);
            case "plain" ->
                    new PlainPlant(
                            kilometres,
                            kilometres / spec.kilometresAnHour(),
                            spec.rpmPerMetre(),
                            spec.fastest());
            default ->
                    throw new IllegalArgumentException(
                            "There is no kind of plant '" + spec.kind() + "'");
        };
    }

    private static PlantMonitor monitor(Blueprint.Monitor m, BusWires wires) {
        return new PlantMonitor(
                m.module(),
                m.code(),
                PlantMonitor.When.named(m.when()),
                sign(m.sees(), wires),
                m.seconds());
    }

    private static PlantMonitor.Sign sign(Blueprint.Sees sees, BusWires wires) {
        if (sees.above().isPresent()) {
            Blueprint.Limit a = sees.above().get();
            return (readings, seconds) -> readings.apply(a.value()).orElse(0.0) > a.limit();
        }
        if (sees.below().isPresent()) {
            Blueprint.Limit b = sees.below().get();
            return (readings, seconds) -> readings.apply(b.value()).orElse(0.0) < b.limit();
        }
        if (sees.apart().isPresent()) {
            Blueprint.Apart a = sees.apart().get();
            return (readings, seconds) ->
                    readings.apply(a.a()).orElse(0.0) - readings.apply(a.b()).orElse(0.0)
                            > a.limit();
        }
        Blueprint.Deaf deaf = sees.deaf().orElseThrow();
        return (readings, seconds) -> !wires.gets(deaf.to(), deaf.listener(), seconds);
    }

    private static void live(
            Blueprint.Past past, StandInVehicle vehicle, Blueprint.Scenario scenario) {
        switch (past) {
            case BREAKS -> scenario.wires().forEach(w -> vehicle.wires().add(broken(w)));
            case NIGHT_WITH_DOORS_OPEN -> night(vehicle);
            case DRIVE -> day(vehicle);
            case CLIMB_WITH_TRAILER ->
                    drive(vehicle, Driver.away().key(2).trailer(true), Driver.Program.CLIMB, 4, 75);
            case CLIMB -> hill(vehicle);
            case WAITS -> vehicle.live(WAITED);
        }
    }

    private static WireFault broken(Blueprint.BrokenWire w) {
        return new WireFault.Broken(
                w.id(),
                w.bus(),
                w.at(),
                WireFault.Wire.valueOf(w.wire()),
                w.ohm(),
                w.badSeconds(),
                w.goodSeconds());
    }

    /** The drive of a day: what modules watch has run to its end after it. */
    static void day(StandInVehicle vehicle) {
        drive(vehicle, Driver.away().key(2), Driver.Program.CRUISE, 25, 60);
    }

    /** A long climb, after which modules have seen it under load. */
    static void hill(StandInVehicle vehicle) {
        drive(vehicle, Driver.away().key(2), Driver.Program.CLIMB, 4, 75);
    }

    /** A drive that begins and ends with a key cycle: what fails in two of them is confirmed. */
    private static void drive(
            StandInVehicle vehicle,
            Driver begins,
            Driver.Program program,
            double idles,
            double drives) {
        VehicleSimulation simulation = vehicle.simulation();
        simulation.driver(begins);
        vehicle.live(3);
        simulation.crank();
        vehicle.live(idles);
        simulation.driver(simulation.driver().drive(program));
        vehicle.live(drives);
        simulation.driver(simulation.driver().drive(Driver.Program.STAND));
        vehicle.live(20);
        simulation.driver(Driver.away());
        vehicle.live(20);
    }

    /** It stood over some days, and is started. */
    static void stood(StandInVehicle vehicle) {
        VehicleSimulation simulation = vehicle.simulation();
        simulation.driver(Driver.away());
        for (int minute = 0; minute < DAYS_MINUTES; minute++) {
            simulation.plant().step(60);
        }
        simulation.driver(Driver.away().key(2));
        vehicle.live(2);
        simulation.crank();
        vehicle.live(4);
        simulation.driver(Driver.away());
        vehicle.live(1);
    }

    /** Doors stood open overnight: the battery is low, and the first start pulls it down. */
    private static void night(StandInVehicle vehicle) {
        VehicleSimulation simulation = vehicle.simulation();
        simulation.plant().doorsOpen(true);
        for (int minute = 0; minute < NIGHT_MINUTES; minute++) {
            simulation.plant().step(60);
        }
        simulation.plant().doorsOpen(false);
        simulation.driver(Driver.away().key(2));
        vehicle.live(2);
        simulation.crank();
        vehicle.live(4);
        simulation.driver(Driver.away());
        vehicle.live(1);
    }
}
