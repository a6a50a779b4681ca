package brightlantern.standin;

import brightlantern.core.code.Dtc;
import brightlantern.core.sound.Wav;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Crank;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.InjectorClicks;
import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.PlainPlant;
import brightlantern.wire.Bytes;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * The inside of a stand-in whose plant is plain: sensors of the common values, a supply monitor in
 * every module that has a code for it, and monitors that a scenario adds.
 */
public final class RoadVehicle implements Works {
    private static final int CLICK_ROUNDS = 3;
    private static final double LOW_VOLTS = 10.2;
    private static final double LOW_SECONDS = 0.3;

    /** Seconds since 1970 at which these vehicles begin to live: 2026-11-01, 07:00 UTC. */
    static final long FIRST_MORNING = 1_793_516_400L;

    private final VehicleDescription description;
    private final PlainPlant plant;
    private final Map<String, Function<PlainPlant, Double>> readings = new HashMap<>();
    private final List<Watch> watches = new ArrayList<>();
    private final Map<String, String> repairs = new LinkedHashMap<>();
    private final Map<String, Bytes> mileage = new HashMap<>();
    private final Map<String, String> foreign = new HashMap<>();
    private final List<String> notFitted = new ArrayList<>();
    private final List<Part> parts = new ArrayList<>();
    private final Map<Integer, List<Integer>> locks = new HashMap<>();
    private int stiffInjector;
    private double odometerBehind;
    private volatile double clockBehind;
    private double low;
    private boolean warning;

    /** A monitor that a scenario gave to a module. */
    private static final class Watch {
        final String module;
        final String code;
        final Predicate<PlainPlant> when;
        final Predicate<PlainPlant> fails;
        final double seconds;
        final String mendedBy;
        boolean broken = true;

        /** For how long its conditions have held, and for how long of that it saw a fault. */
        double held;

        double failing;

        Watch(
                String module,
                String code,
                Predicate<PlainPlant> when,
                Predicate<PlainPlant> fails,
                double seconds,
                String mendedBy) {
            this.module = module;
            this.code = code;
            this.when = when;
            this.fails = fails;
            this.seconds = seconds;
            this.mendedBy = mendedBy;
        }

        /** Reports once it saw the fault, or saw none, for long enough. */
        boolean step(PlainPlant plant, double dt, Sink sink) {
            held = when.test(plant) ? held + dt : 0;
            failing = held > 0 && broken && fails.test(plant) ? failing + dt : 0;
            if (failing >= seconds && failing < seconds + dt) {
                sink.report(module, code, true);
                return true;
            }
            if (held >= seconds && failing == 0) {
                held = 0;
                sink.report(module, code, false);
            }
            return false;
        }

        void reset() {
            held = 0;
            failing = 0;
        }
    }

    public RoadVehicle(VehicleDescription description, PlainPlant plant) {
        this.description = description;
        this.plant = plant;
        readings.put("engine.speed", PlainPlant::rpm);
        readings.put("engine.state", p -> p.running() ? 2.0 : p.cranking() ? 1.0 : 0.0);
        readings.put("engine.supply", p -> p.volts() - 0.03);
        readings.put("engine.load", p -> 100 * Math.min(1, p.load()));
        readings.put("coolant", PlainPlant::coolant);
        readings.put("engine.hours", PlainPlant::hours);
        readings.put("vehicle.speed", PlainPlant::kilometresPerHour);
        readings.put("body.key", p -> p.cranking() ? 3.0 : p.driver().key());
        readings.put("body.supply", p -> p.volts() - 0.05);
        readings.put("odometer", p -> p.kilometres() - odometerBehind);
        readings.put("clock", p -> FIRST_MORNING + p.seconds() - clockBehind);
    }

    public PlainPlant plant() {
        return plant;
    }

    /** Puts a part in, with its sensors. */
    RoadVehicle with(Part part) {
        parts.add(part);
        if (part instanceof Crank crank) {
            readings.put("engine.speed", p -> p.rpm() + crank.droop());
        }
        part.sensors().forEach((id, sensor) -> readings.put(id, p -> sensor.getAsDouble()));
        return this;
    }

    @Override
    public List<Part> parts() {
        return List.copyOf(parts);
    }

    /** A module sets a code once these conditions have held for so long; while it is broken. */
    RoadVehicle watch(
            String module,
            String code,
            Predicate<PlainPlant> when,
            double seconds,
            String mendedBy,
            String repairName) {
        return watch(module, code, when, p -> true, seconds, mendedBy, repairName);
    }

    /**
     * A module sets a code once it saw this fail for so long under its conditions, and finds
     * nothing when it did not.
     *
     * @param mendedBy id of the repair after which the monitor passes
     */
    RoadVehicle watch(
            String module,
            String code,
            Predicate<PlainPlant> when,
            Predicate<PlainPlant> fails,
            double seconds,
            String mendedBy,
            String repairName) {
        watches.add(new Watch(module, code, when, fails, seconds, mendedBy));
        repairs.put(mendedBy, repairName);
        return this;
    }

    @Override
    public Set<String> monitored() {
        return watches.stream().map(w -> w.module + " " + w.code).collect(Collectors.toSet());
    }

    /**
     * @param cylinder whose injector is stiff when cold; 0 for none
     */
    RoadVehicle stiffInjector(int cylinder) {
        stiffInjector = cylinder;
        return this;
    }

    @Override
    public Optional<Wav> injectors() {
        return running()
                ? Optional.empty()
                : description
                        .cylinders()
                        .map(
                                c ->
                                        InjectorClicks.heard(
                                                c.order(),
                                                CLICK_ROUNDS,
                                                stiffInjector,
                                                plant.coolant(),
                                                description.id().hashCode()));
    }

    /** These codes forbid a routine while they are stored. */
    RoadVehicle locks(int routine, String... codes) {
        locks.put(routine, java.util.Arrays.stream(codes).map(c -> Dtc.parse(c).number()).toList());
        return this;
    }

    @Override
    public List<Integer> locks(int routine) {
        return locks.getOrDefault(routine, List.of());
    }

    RoadVehicle mileage(String id, Bytes record) {
        mileage.put(id, record);
        return this;
    }

    RoadVehicle foreignVin(String module, String vin) {
        foreign.put(module, vin);
        return this;
    }

    RoadVehicle without(String module) {
        notFitted.add(module);
        return this;
    }

    /** The cluster shows so many kilometres less than were driven. */
    RoadVehicle odometerBehind(double kilometres) {
        odometerBehind = kilometres;
        return this;
    }

    /** Somebody set the vehicle's clock back by so much. */
    public RoadVehicle clockBehind(double seconds) {
        clockBehind = seconds;
        return this;
    }

    @Override
    public void advance(double seconds) {
        plant.step(seconds);
        parts.forEach(part -> part.step(plant, seconds));
    }

    @Override
    public void cleared(String module) {
        if (module.equals("engine")) {
            parts.forEach(Part::cleared);
        }
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
    public double seconds() {
        return plant.seconds();
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
        return plant.running();
    }

    @Override
    public boolean warning() {
        return warning;
    }

    @Override
    public Optional<Double> reading(String valueId) {
        return Optional.ofNullable(readings.get(valueId)).map(r -> r.apply(plant));
    }

    @Override
    public void watch(double seconds, Sink sink) {
        if (plant.driver().key() != 2) {
            return;
        }
        low = plant.volts() < LOW_VOLTS ? low + seconds : 0;
        if (low >= LOW_SECONDS && low < LOW_SECONDS + seconds) {
            description.codes().stream()
                    .filter(c -> c.sets().equals("supply"))
                    .forEach(c -> sink.report(c.module(), c.code(), true));
        }
        parts.forEach(part -> part.watch(sink::report));
        for (Watch w : watches) {
            warning |= w.step(plant, seconds, sink);
        }
    }

    @Override
    public void keyOn() {
        low = 0;
        warning = false;
        watches.forEach(Watch::reset);
    }

    @Override
    public Optional<Bytes> mileage(String id) {
        return Optional.ofNullable(mileage.get(id));
    }

    @Override
    public Map<String, String> repairs() {
        return Map.copyOf(repairs);
    }

    @Override
    public void repair(String id) {
        watches.stream().filter(w -> w.mendedBy.equals(id)).forEach(w -> w.broken = false);
        parts.forEach(part -> part.mend(id));
    }

    @Override
    public Map<String, String> foreignVins() {
        return Map.copyOf(foreign);
    }

    @Override
    public List<String> notFitted() {
        return List.copyOf(notFitted);
    }
}
