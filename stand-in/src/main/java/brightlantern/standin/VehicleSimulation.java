package brightlantern.standin;

import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.Need;
import brightlantern.core.code.Dtc;
import brightlantern.core.network.ControlModule;
import brightlantern.core.sound.Wav;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Boards;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Crank;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EngineWaves;
import brightlantern.standin.plant.Means;
import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.Plant;
import brightlantern.wire.Bytes;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.DoubleSupplier;

/**
 * What goes on inside a stand-in vehicle: its plant, its parts with their sensors and faults, a
 * supply monitor in every module that has a code for it, and monitors of what goes on in its plant.
 */
public final class VehicleSimulation {
    /** Seconds since 1970 at which these vehicles begin to live: 2026-11-01, 07:00 UTC. */
    static final long FIRST_MORNING = 1_793_516_400L;

    private static final double LOOK_SECONDS = 0.1;

    /** The name of its circuits among its parts. */
    static final String CIRCUITS = "circuits";

    /** Name of what moves it, as a part. */
    static final String PLANT = "plant";

    /** The mode of what has ohms in its way. */
    private static final String SERIES = "series";

    private final VehicleDescription description;
    private final Plant plant;
    private final Map<String, Part> parts = new LinkedHashMap<>();
    private final Map<String, DoubleSupplier> readings = new HashMap<>();

    /** What is true where a sensor tells of it, whatever arrives at its module. */
    private final Map<String, DoubleSupplier> felt = new HashMap<>();

    private final Monitors monitors;
    private final Damage damage;
    private final Map<String, Mechanics.Measure> measures = new LinkedHashMap<>();
    private final Map<Integer, List<Integer>> locks = new HashMap<>();
    private Optional<Circuits> circuits = Optional.empty();
    private final Means means = new Means();
    private double looked;
    private volatile double clockBehind;

    VehicleSimulation(VehicleDescription description, Plant plant) {
        this.description = description;
        this.plant = plant;
        this.damage = new Damage(description, this);
        this.monitors = new Monitors(description);
        plant.with(means);
        readings.put("engine.speed", plant::rpm);
        readings.put("engine.state", () -> plant.running() ? 2.0 : plant.cranking() ? 1.0 : 0.0);
        readings.put("engine.supply", () -> plant.volts() - 0.03);
        readings.put("engine.load", () -> 100 * Math.min(1, plant.load()));
        readings.put("coolant", plant::coolant);
        readings.put("engine.hours", plant::hours);
        readings.put("vehicle.speed", plant::kilometresPerHour);
        readings.put("body.key", () -> plant.cranking() ? 3.0 : plant.driver().key());
        readings.put("body.supply", () -> plant.volts() - 0.05);
        readings.put("odometer", () -> plant.kilometres() - reading("odometer.behind").orElse(0.0));
        readings.put("clock", () -> FIRST_MORNING + plant.seconds() - clockBehind);
        readings.putAll(plant.sensors());
    }

    /** What breaks in it and is mended. */
    Damage damage() {
        return damage;
    }

    public Plant plant() {
        return plant;
    }

    /** Puts a part in, with its sensors; what the plant itself tells stays. */
    void with(String name, Part part) {
        parts.put(name, part);
        part.with(means);
        if (part instanceof Crank crank && !plant.sensors().containsKey("engine.speed")) {
            readings.put("engine.speed", () -> plant.rpm() + crank.droop());
        }
        part.sensors().forEach(readings::put);
        plant.sensors()
                .forEach(
                        (id, told) -> {
                            // what a wire brings to its module goes on coming by that wire
                            if (!felt.containsKey(id)) {
                                readings.put(id, told);
                            }
                        });
    }

    /** Puts its circuits in: from now on its sensors tell what arrives at their modules' pins. */
    void with(Circuits its) {
        means.flows(its::current);
        circuits = Optional.of(its);
        parts.put(CIRCUITS, its);
        readings.computeIfPresent(
                "engine.speed",
                (id, turns) ->
                        () -> means.works(EngineWaves.CRANK_SENSOR) ? turns.getAsDouble() : 0);
        for (ControlModule m : description.modules()) {
            readings.computeIfPresent(
                    Boards.supplyOf(m.id()),
                    (id, volts) -> () -> its.fed(m.id()) * volts.getAsDouble());
        }
        for (String id : its.values()) {
            DoubleSupplier there = readings.get(id);
            description
                    .value(id)
                    .filter(v -> there != null)
                    .ifPresent(
                            v -> {
                                readings.put(id, () -> its.told(v, there.getAsDouble()));
                                felt.put(id, there);
                                its.feels(v, there);
                            });
        }
    }

    /** Its circuits, when any are described. */
    public Optional<Circuits> circuits() {
        return circuits;
    }

    /** Volts at a point of its plant's or its other circuits; empty when there is none. */
    OptionalDouble volts(String point) {
        OptionalDouble volts = plant.volts(point);
        return volts.isPresent() || circuits.isEmpty() ? volts : circuits.get().volts(point);
    }

    /** Volts at a point while what somebody moves just now is open; empty where nothing moves. */
    OptionalDouble flicker(String point) {
        return circuits.map(c -> c.flicker(point)).orElse(OptionalDouble.empty());
    }

    /** Hangs a load on a point of its circuits, or takes it off. */
    void hang(String point, Load load) {
        if (plant.hasCircuits() && (point.isEmpty() || plant.volts(point).isPresent())) {
            plant.hang(point, load);
        }
        circuits.ifPresent(c -> c.hang(point, load));
    }

    /** A value that is read off another one's sensor. */
    void alias(String value, String sensor) {
        readings.put(value, () -> readings.get(sensor).getAsDouble());
    }

    /**
     * A monitor of one of its modules.
     *
     * @throws IllegalArgumentException when the module has no such code
     */
    void monitor(PlantMonitor monitor) {
        monitors.add(monitor);
    }

    /** What can break in it that is not electrical. */
    void with(Mechanics its) {
        its.measures().forEach(m -> measures.put(m.id(), m));
        damage.with(its);
    }

    /** Whether it has a part of that name. */
    boolean has(String part) {
        return part.equals(PLANT) || parts.containsKey(part);
    }

    /**
     * Something that its driver notices.
     *
     * @throws IllegalArgumentException when nobody described such a symptom
     */
    void notice(Mechanics.Notice notice, PlantMonitor by) {
        monitors.add(notice, by);
    }

    /** What its driver has noticed since the last time that this was asked. */
    List<Mechanics.Notice> noticed() {
        return monitors.noticed();
    }

    /** These codes forbid a routine while they are stored. */
    void lock(int routine, List<String> codes) {
        locks.put(routine, codes.stream().map(c -> Dtc.parse(c).number()).toList());
    }

    /** Somebody set the vehicle's clock back by so many seconds. */
    public void clockBehind(double seconds) {
        clockBehind = seconds;
    }

    /** The plant and all parts beside it. */
    List<Part> all() {
        List<Part> all = new ArrayList<>(List.of(plant));
        all.addAll(parts.values());
        return all;
    }

    /**
     * Something breaks.
     *
     * @param part the plant, or the name of a part
     * @throws IllegalArgumentException when there is no such part, or it cannot break so
     */
    public void fail(String part, String mode, String of, double size) {
        Part broken = part.equals(PLANT) ? plant : parts.get(part);
        if (broken == null) {
            throw new IllegalArgumentException(
                    "There is no part '" + part + "' in " + description.id());
        }
        broken.fail(mode, of, size);
        if (!mode.equals(SERIES)) {
            return;
        }
        // a cable that feeds both is one cable
        if (part.equals(PLANT) && circuits.filter(c -> c.isWired(of)).isPresent()) {
            circuits.get().fail(mode, of, size);
        } else if (part.equals(CIRCUITS) && plant.isWired(of)) {
            plant.fail(mode, of, size);
        }
    }

    void advance(double seconds) {
        look(seconds);
        plant.step(seconds);
        parts.values().forEach(part -> part.step(plant, seconds));
    }

    /** What its circuits let its engine do, looked at some times a second while it turns. */
    private void look(double seconds) {
        boolean turns = plant.starting() || plant.running();
        looked = turns ? looked - seconds : 0;
        if (turns && looked <= 0) {
            looked = LOOK_SECONDS;
            List<Need> needs = description.wiring().needs();
            circuits.ifPresent(c -> means.are(needs, c.working().out(needs)));
        }
    }

    /** The codes of a module were cleared, and what it had learned. */
    void cleared(String module) {
        if (module.equals("engine")) {
            parts.values().forEach(Part::cleared);
        }
    }

    /** Lets the monitors of its modules look at what happened in the last {@code seconds}. */
    void watch(double seconds, Part.Watcher watcher) {
        if (plant.driver().key() != 2) {
            return;
        }
        monitors.supply(plant, seconds, watcher);
        all().forEach(part -> part.watch(seconds, watcher));
        monitors.watch(plant, this::reading, seconds, watcher);
    }

    /** Codes that it watches itself, each as module and code with a blank between. */
    Set<String> monitored() {
        Set<String> all = new LinkedHashSet<>(monitors.codes());
        all().forEach(part -> all.addAll(part.monitored()));
        return all;
    }

    /** The key was turned on: monitors begin anew. */
    void keyOn() {
        monitors.keyOn();
        all().forEach(Part::keyOn);
    }

    /** Time of the vehicle since it was made, in seconds; never goes back. */
    public double seconds() {
        return plant.seconds();
    }

    public Driver driver() {
        return plant.driver();
    }

    public void driver(Driver next) {
        plant.driver(next);
    }

    /** Whether the key is held at start. */
    public boolean starting() {
        return plant.starting();
    }

    /** Turns the key to start. */
    public void crank() {
        plant.crank();
    }

    public boolean running() {
        return plant.running();
    }

    /** The warning lamp that the driver sees. */
    boolean warning() {
        return monitors.warning() || plant.warning();
    }

    /** A sensor's reading at this moment, in the value's own unit; empty when unknown. */
    public Optional<Double> reading(String valueId) {
        return Optional.ofNullable(readings.get(valueId)).map(DoubleSupplier::getAsDouble);
    }

    /** Bytes of a mileage record; empty when its module has none. */
    Optional<Bytes> mileage(String id) {
        return parts.values().stream().flatMap(p -> p.mileage(id).stream()).findFirst();
    }

    /** What a microphone hears when its injectors click; empty while the engine runs. */
    public Optional<Wav> injectors() {
        return running()
                ? Optional.empty()
                : parts.values().stream().flatMap(p -> p.injectors(plant).stream()).findFirst();
    }

    /** Codes (as numbers) that forbid a routine while they are stored. */
    List<Integer> locks(int routine) {
        return locks.getOrDefault(routine, List.of());
    }

    /** What can be done at the vehicle, id → name. */
    public Map<String, String> acts() {
        Map<String, String> all = new LinkedHashMap<>();
        all().forEach(part -> all.putAll(part.acts()));
        return all;
    }

    /** Does one of {@link #acts}; what is seen of it, in words, or nothing. */
    public String act(String id) {
        return all().stream()
                .map(part -> part.act(id))
                .filter(seen -> !seen.isEmpty())
                .findFirst()
                .orElse("");
    }

    VehicleDescription description() {
        return description;
    }

    /**
     * What is true where a sensor tells of it.
     *
     * @param value id of what the sensor tells
     */
    public double felt(String value) {
        return felt.get(value).getAsDouble();
    }

    /** What can be measured at it by hand. */
    List<Mechanics.Measure> measures() {
        return List.copyOf(measures.values());
    }

    /** What a gauge tells. */
    double measured(Mechanics.Measure measure) {
        return reading(Mechanics.GEAR + "." + measure.of()).orElseThrow();
    }

    /** Modules whose stored VIN is another one. */
    Map<String, String> foreignVins() {
        Map<String, String> all = new HashMap<>();
        parts.values().forEach(p -> all.putAll(p.foreignVins()));
        return all;
    }
}
