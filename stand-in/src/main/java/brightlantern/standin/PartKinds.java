package brightlantern.standin;

import brightlantern.core.network.ControlModule;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.network.BusWires;
import brightlantern.standin.plant.AirPath;
import brightlantern.standin.plant.AirSprings;
import brightlantern.standin.plant.Boards;
import brightlantern.standin.plant.CellPack;
import brightlantern.standin.plant.Crank;
import brightlantern.standin.plant.EngineSpec;
import brightlantern.standin.plant.Exhaust;
import brightlantern.standin.plant.InjectionRail;
import brightlantern.standin.plant.Injectors;
import brightlantern.standin.plant.Mileages;
import brightlantern.standin.plant.Mixture;
import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.Plant;
import brightlantern.standin.plant.Spark;
import brightlantern.standin.plant.TankSystem;
import brightlantern.standin.plant.TrailerBoard;
import brightlantern.standin.plant.TrimMemory;
import brightlantern.standin.plant.Warmth;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;

/** The parts of which blueprints speak, by their kinds. */
final class PartKinds {
    /** What a part is made for. */
    record Site(
            VehicleDescription description,
            Blueprint blueprint,
            Blueprint.PartSpec spec,
            Plant plant,
            BusWires wires,
            int serial) {
        EngineSpec engine() {
            return blueprint.engine();
        }

        /** Banks of cylinders that breathe for themselves. */
        private long banks() {
            return blueprint.parts().stream().filter(p -> p.kind().equals("mixture")).count();
        }
    }

    private static final Map<String, Function<Site, Part>> KINDS =
            Map.ofEntries(
                    Map.entry("boards", PartKinds::boards),
                    Map.entry("crank", PartKinds::crank),
                    Map.entry("exhaust", PartKinds::exhaust),
                    Map.entry("rail", s -> new InjectionRail(s.engine(), s.serial())),
                    Map.entry("air", s -> new AirPath(s.engine(), s.serial())),
                    Map.entry("warmth", s -> new Warmth(s.engine(), 4000 + s.serial() % 700)),
                    Map.entry("spark", s -> new Spark(s.engine(), s.serial())),
                    Map.entry("mixture", PartKinds::mixture),
                    Map.entry("tank", PartKinds::tank),
                    Map.entry("cells", s -> new CellPack(s.serial())),
                    Map.entry("air-springs", PartKinds::airSprings),
                    Map.entry("trims", s -> new TrimMemory(s.engine().cylinders(), s.serial())),
                    Map.entry("injectors", PartKinds::injectors),
                    Map.entry("trailer", PartKinds::trailer),
                    Map.entry("mileage", PartKinds::mileage));

    private PartKinds() {}

    /**
     * @throws IllegalArgumentException when there is no such kind
     */
    static Part make(Site site) {
        return Optional.ofNullable(KINDS.get(site.spec().kind()))
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "There is no kind of part '" + site.spec().kind() + "'"))
                .apply(site);
    }

    /** With a module named, that module stops what misfires under load. */
    private static Part crank(Site s) {
        Crank crank =
                new Crank(
                        s.engine(),
                        s.description().cylinders().orElseThrow().wheel().orElseThrow(),
                        s.serial());
        return s.spec().module().isEmpty() ? crank : crank.protecting();
    }

    private static Part boards(Site s) {
        return new Boards(
                s.description().modules().stream().map(ControlModule::id).toList(),
                5000 + s.serial() % 900);
    }

    private static Part exhaust(Site s) {
        return new Exhaust(s.engine(), s.engine().diesel() ? 9 + s.serial() % 5 : 0);
    }

    private static Part mixture(Site s) {
        int bank = s.spec().bank().isEmpty() ? 0 : Integer.parseInt(s.spec().bank()) - 1;
        String suffix = s.spec().bank().isEmpty() ? "" : "." + s.spec().bank();
        return new Mixture(
                s.engine().litres() / s.banks(), suffix, Mixture.Faults.none(), s.serial() + bank);
    }

    private static Part tank(Site s) {
        return new TankSystem(
                TankSystem.Make.healthy(new Random(s.serial())), s.spec().module(), s.serial());
    }

    private static Part airSprings(Site s) {
        return new AirSprings(
                () -> s.wires().gets("brakes", s.spec().module(), s.plant().seconds()));
    }

    private static Part injectors(Site s) {
        return new Injectors(
                s.description().cylinders().orElseThrow().order(), s.description().id().hashCode());
    }

    private static Part trailer(Site s) {
        return new TrailerBoard(StandInVehicle.vin(s.description(), s.serial()));
    }

    private static Part mileage(Site s) {
        return new Mileages(
                s.plant().kilometres(), VehicleSimulation.FIRST_MORNING, new Random(s.serial()));
    }
}
