package brightlantern.standin;

import brightlantern.core.network.ControlModule;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.network.WireFault;
import brightlantern.standin.plant.AirPath;
import brightlantern.standin.plant.AirSprings;
import brightlantern.standin.plant.Boards;
import brightlantern.standin.plant.CellPack;
import brightlantern.standin.plant.Crank;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EngineSpec;
import brightlantern.standin.plant.Exhaust;
import brightlantern.standin.plant.InjectionRail;
import brightlantern.standin.plant.Mixture;
import brightlantern.standin.plant.PlainPlant;
import brightlantern.standin.plant.Spark;
import brightlantern.standin.plant.TankSystem;
import brightlantern.standin.plant.TrimMemory;
import brightlantern.standin.plant.Warmth;
import brightlantern.wire.Bytes;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Predicate;

/**
 * The stand-ins with a plain plant, each as built and in its scenario. What was broken stands here
 * and nowhere else.
 */
public final class StandIns {
    public static final String AS_BUILT = "as built";

    private static final double PURGE_HOLE_MM = 1.4;
    private static final int BAD_CELL = 37;
    private static final double BAD_LEAD_OHM = 40;
    private static final double REAR_LOW_KPA = 110;

    /** A module sets its code when it counted more misfires than this within a thousand turns. */
    private static final double MISFIRES = 15;

    /** The battery module takes cells that lie further apart for uneven. */
    private static final double CELLS_APART_VOLTS = 0.06;

    /** Share of its pressure that cylinder 5 loses in a second. */
    private static final double VALVE_LEAK = 12;

    private static final Predicate<PlainPlant> IDLE = p -> p.running() && p.kilometresPerHour() < 2;
    private static final Predicate<PlainPlant> LOADED =
            p -> p.running() && p.kilometresPerHour() > 40;
    private static final Predicate<PlainPlant> KEY_ON = p -> p.driver().key() == 2;

    /** Vehicle id → name of its scenario. */
    private static final Map<String, String> SCENARIOS =
            Map.of(
                    "oriel-finch", "rough idle after filling up",
                    "velmont-cairn", "warnings after rain",
                    "quillon-ember", "charging stops",
                    "stonebarrow-wl9", "shakes",
                    "oriel-heron", "is the mileage true");

    private StandIns() {}

    /** Scenarios of a vehicle, as built first. */
    public static List<String> scenarios(String vehicleId) {
        return SCENARIOS.containsKey(vehicleId)
                ? List.of(AS_BUILT, SCENARIOS.get(vehicleId))
                : List.of(AS_BUILT);
    }

    /**
     * A vehicle that has been driven to the workshop and stands there with its key on; to be opened
     * on an address.
     *
     * @throws IllegalArgumentException when it has no such scenario
     */
    public static StandInVehicle of(VehicleDescription d, String scenario, int serial) {
        if (!scenarios(d.id()).contains(scenario)) {
            throw new IllegalArgumentException(
                    "Scenario '" + scenario + "': expected one of " + scenarios(d.id()));
        }
        boolean broken = !scenario.equals(AS_BUILT);
        Random random = new Random(serial);
        BusWires wires = new BusWires(d, random);
        double kilometres = 61_000 + random.nextInt(90_000);
        double truly = d.id().equals("oriel-heron") ? 165_200 + random.nextInt(900) : kilometres;
        boolean loader = d.id().equals("stonebarrow-wl9");
        RoadVehicle works =
                new RoadVehicle(
                        d, new PlainPlant(truly, truly / 43, loader ? 105 : 75, loader ? 12 : 36));
        parts(d, works, wires, broken, serial);
        d.modules().stream().filter(m -> !m.option().isEmpty()).forEach(m -> works.without(m.id()));
        if (d.id().equals("oriel-heron")) {
            mileage(works, truly, broken ? 53_000 : 0, broken, random);
        }
        if (broken) {
            breakIt(d, works, wires);
        }
        StandInVehicle vehicle = new StandInVehicle(d, works, wires, serial);
        if (d.id().equals("velmont-cairn") && broken) {
            night(vehicle, works);
            wires.add(
                    new WireFault.Broken("X31", "chassis", 4, WireFault.Wire.HIGH, 3500, 2.4, 1.3));
        }
        drive(vehicle, works, 2);
        works.driver(Driver.away().key(2));
        vehicle.live(3);
        return vehicle;
    }

    /** Everything beside the plain plant, and what is broken in it. */
    private static void parts(
            VehicleDescription d, RoadVehicle works, BusWires wires, boolean broken, int serial) {
        String id = d.id();
        works.with(
                new Boards(
                        d.modules().stream().map(ControlModule::id).toList(), 5000 + serial % 900));
        if (!SCENARIOS.containsKey(id)) {
            return;
        }
        EngineSpec spec = EngineSpec.of(id);
        Crank crank = new Crank(spec, serial);
        Exhaust exhaust = new Exhaust(spec, spec.diesel() ? 9 + serial % 5 : 0);
        works.with(crank)
                .with(exhaust)
                .with(new InjectionRail(spec, serial))
                .with(new AirPath(spec, serial))
                .with(new Warmth(spec, 4000 + serial % 700));
        if (!spec.diesel()) {
            works.with(new Spark(spec, serial));
            Mixture.Faults faults =
                    broken && id.equals("oriel-finch")
                            ? Mixture.Faults.leakingPurge(PURGE_HOLE_MM)
                            : Mixture.Faults.none();
            if (id.equals("velmont-cairn")) {
                works.with(new Mixture(spec.litres() / 2, ".1", faults, serial))
                        .with(new Mixture(spec.litres() / 2, ".2", faults, serial + 1L));
            } else {
                works.with(new Mixture(spec.litres(), "", faults, serial));
            }
        }
        if (id.equals("oriel-finch")) {
            TankSystem.Make make = TankSystem.Make.healthy(new Random(serial));
            works.with(
                    new TankSystem(broken ? make.purgeHole(PURGE_HOLE_MM) : make, "tank", serial));
        }
        if (id.equals("quillon-ember")) {
            works.locks(0x0401, "P0BBD-00", "P0AFA-00");
            CellPack pack = new CellPack(serial);
            works.with(broken ? pack.badLead(BAD_CELL, BAD_LEAD_OHM) : pack);
        }
        if (id.equals("velmont-cairn")) {
            works.with(
                    new AirSprings(
                            () -> wires.gets("brakes", "air-springs", works.plant().seconds()),
                            broken ? REAR_LOW_KPA : 0));
        }
        if (id.equals("stonebarrow-wl9")) {
            works.locks(0x0501, "P0300-00", "P0305-00")
                    .with(new TrimMemory(spec.cylinders(), serial));
        }
        if (id.equals("stonebarrow-wl9") && broken) {
            works.stiffInjector(2);
            crank.leak(5, VALVE_LEAK);
            exhaust.soots(2.5);
        }
    }

    private static double reading(RoadVehicle works, String value) {
        return works.reading(value).orElse(0.0);
    }

    private static double cellsApart(RoadVehicle works) {
        return reading(works, "cell.most") - reading(works, "cell.least");
    }

    private static void breakIt(VehicleDescription d, RoadVehicle works, BusWires wires) {
        switch (d.id()) {
            case "oriel-finch" ->
                    works.watch(
                                    "tank",
                                    "P0496-00",
                                    IDLE,
                                    8,
                                    "purge-valve",
                                    "Replace the purge valve")
                            .watch(
                                    "engine",
                                    "P0171-00",
                                    IDLE,
                                    12,
                                    "purge-valve",
                                    "Replace the purge valve")
                            .watch(
                                    "engine",
                                    "P0133-00",
                                    IDLE,
                                    16,
                                    "purge-valve",
                                    "Replace the purge valve");
            case "quillon-ember" ->
                    works.watch(
                                    "battery",
                                    "P0BBD-00",
                                    KEY_ON,
                                    p -> cellsApart(works) > CELLS_APART_VOLTS,
                                    2,
                                    "cell-37",
                                    "Remake the sense lead of cell 37")
                            .watch(
                                    "battery",
                                    "P0AFA-00",
                                    LOADED,
                                    12,
                                    "cell-37",
                                    "Remake the sense lead of cell 37")
                            .watch(
                                    "charger",
                                    "P0D3F-00",
                                    KEY_ON,
                                    2,
                                    "cell-37",
                                    "Remake the sense lead of cell 37")
                            .watch(
                                    "climate",
                                    "B1A21-00",
                                    LOADED,
                                    20,
                                    "cell-37",
                                    "Remake the sense lead of cell 37")
                            .watch(
                                    "compressor",
                                    "P0AF0-00",
                                    LOADED,
                                    24,
                                    "cell-37",
                                    "Remake the sense lead of cell 37");
            case "stonebarrow-wl9" ->
                    works.watch(
                                    "engine",
                                    "P0305-00",
                                    PlainPlant::running,
                                    p -> reading(works, "misfires.5") > MISFIRES,
                                    5,
                                    "valve-5",
                                    "Recut and seat the exhaust valve of cylinder 5")
                            .watch(
                                    "engine",
                                    "P0300-00",
                                    PlainPlant::running,
                                    p -> reading(works, "misfires.5") > MISFIRES,
                                    9,
                                    "valve-5",
                                    "Recut and seat the exhaust valve of cylinder 5")
                            .watch(
                                    "dosing",
                                    "P2458-00",
                                    LOADED,
                                    25,
                                    "valve-5",
                                    "Recut and seat the exhaust valve of cylinder 5")
                            .watch(
                                    "dosing",
                                    "P2463-00",
                                    LOADED,
                                    30,
                                    "valve-5",
                                    "Recut and seat the exhaust valve of cylinder 5");
            case "velmont-cairn" -> {
                Predicate<PlainPlant> missed =
                        p -> !wires.gets("brakes", "park-brake", p.seconds());
                works.watch(
                                "park-brake",
                                "C1B00-00",
                                KEY_ON,
                                missed,
                                1.5,
                                "wire-X31",
                                "Remake floor connector X31")
                        .watch(
                                "air-springs",
                                "C1A10-00",
                                KEY_ON,
                                missed,
                                1.5,
                                "wire-X31",
                                "Remake floor connector X31");
            }
            default -> {
                // the Heron's trouble is in its records alone
            }
        }
    }

    /** Two drives with a key cycle between them, so that what fails twice is confirmed. */
    private static void drive(StandInVehicle vehicle, RoadVehicle works, int times) {
        for (int i = 0; i < times; i++) {
            works.driver(Driver.away().key(2));
            vehicle.live(3);
            works.crank();
            vehicle.live(25);
            works.driver(works.driver().drive(Driver.Program.CRUISE));
            vehicle.live(60);
            works.driver(works.driver().drive(Driver.Program.STAND));
            vehicle.live(20);
            works.driver(Driver.away());
            vehicle.live(20);
        }
    }

    /** Doors stood open overnight: the battery is low, and the first start pulls it down. */
    private static void night(StandInVehicle vehicle, RoadVehicle works) {
        works.plant().doorsOpen(true);
        for (int minute = 0; minute < 240; minute++) {
            works.plant().step(60);
        }
        works.plant().doorsOpen(false);
        works.driver(Driver.away().key(2));
        vehicle.live(2);
        works.crank();
        vehicle.live(4);
        works.driver(Driver.away());
        vehicle.live(1);
    }

    /**
     * What each module knows of the distance.
     *
     * @param back kilometres that the cluster was set back by
     * @param foreignAudio whether the audio unit came from another vehicle
     */
    private static void mileage(
            RoadVehicle works, double truly, double back, boolean foreignAudio, Random random) {
        double shown = truly - back;
        works.odometerBehind(back)
                .mileage("cluster-distance", number(shown * 10))
                .mileage("cluster-history", history(shown, random))
                .mileage("engine-hours", number(truly / 43 * 100))
                .mileage("gearbox-distance", number((truly - 2) * 10))
                .mileage("filter-distance", number((truly - 11) * 10))
                .mileage("burn-offs", Bytes.of((int) (truly / 560) >> 8, (int) (truly / 560)))
                .mileage("brakes-distance", number(truly - 6))
                .mileage("audio-hours", number((foreignAudio ? 6800 : truly / 43) * 10));
        if (foreignAudio) {
            works.foreignVin("audio", "ZZHRN16D5F1770031");
        }
    }

    private static Bytes number(double value) {
        return Bytes.of(ByteBuffer.allocate(4).putInt((int) Math.round(value)).array());
    }

    /** A service every eleven months or so; whoever set the cluster back made them fit. */
    private static Bytes history(double shown, Random random) {
        int services = 7;
        Bytes bytes = Bytes.of(services);
        for (int i = 0; i < services; i++) {
            double share = (i + 1.0) / (services + 0.4);
            long when = RoadVehicle.FIRST_MORNING - (long) ((1 - share) * 9.6 * 31_557_600L);
            double at = shown * share + random.nextInt(400);
            bytes = bytes.plus(number(when)).plus(number(at * 10));
        }
        return bytes;
    }
}
