package brightlantern.app.demo;

import brightlantern.app.seat.DriversSeats;
import brightlantern.app.seat.DriversSeats.Choice;
import brightlantern.app.seat.DriversSeats.Dashboard;
import brightlantern.app.seat.DriversSeats.Sight;
import brightlantern.app.seat.DriversSeats.Switch;
import brightlantern.core.circuit.Setting;
import brightlantern.standin.Breaker;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.network.WireFault;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;

/** The driver's seat of a stand-in of the demo. */
final class DemoSeat implements DriversSeats.DriversSeat {
    /** The position of a key that is on. */
    private static final int ON = 2;

    /** A start is over within this time. */
    private static final long START_NANOS = 3_000_000_000L;

    /** Whoever moves something does so for a while. */
    private static final double MOVES_SECONDS = 1.2;

    private static final long LOOK_NANOS = 20_000_000L;
    private static final double TURNS_RPM = 100;

    private final String address;
    private final StandInVehicle vehicle;
    private final Breaker breaker;
    private final Random random = new SecureRandom();
    private volatile Optional<String> truth;
    private volatile Instant brokenAt = Instant.MIN;

    DemoSeat(String address, StandInVehicle vehicle, Optional<String> truth) {
        this.address = address;
        this.vehicle = vehicle;
        this.breaker = new Breaker(vehicle);
        this.truth = truth;
    }

    @Override
    public String address() {
        return address;
    }

    @Override
    public Optional<String> truth() {
        return truth;
    }

    @Override
    public Instant brokenAt() {
        return brokenAt;
    }

    @Override
    public List<Switch> switches() {
        return circuits()
                .map(
                        c ->
                                c.settings().values().stream()
                                        .filter(s -> !Setting.unplugs(s.id()))
                                        .map(s -> new Switch(s.id(), s.name(), c.isSet(s.id())))
                                        .toList())
                .orElse(List.of());
    }

    private Optional<Circuits> circuits() {
        return vehicle.simulation().circuits();
    }

    @Override
    public List<Switch> plugs() {
        return circuits()
                .map(
                        c ->
                                c.settings().values().stream()
                                        .filter(s -> Setting.unplugs(s.id()))
                                        .map(s -> new Switch(s.id(), s.name(), c.isSet(s.id())))
                                        .toList())
                .orElse(List.of());
    }

    @Override
    public void set(String id, boolean on) {
        circuits()
                .orElseThrow(() -> new IllegalArgumentException("it has no circuits"))
                .set(id, on);
    }

    @Override
    public List<Sight> sights() {
        return circuits().map(Circuits::seen).orElse(List.of()).stream()
                .filter(s -> !s.idle())
                .map(s -> new Sight(s.name(), s.state(), s.under()))
                .toList();
    }

    @Override
    public String pins(String plug) {
        return circuits().map(c -> c.hands().pins(plug)).orElse("There is no such connector.");
    }

    @Override
    public String moved(String what) {
        circuits().ifPresent(c -> c.move(what, MOVES_SECONDS));
        return circuits().filter(c -> c.hands().jumps(what)).isPresent()
                ? "While it is moved, what hangs on it flickers or jumps."
                : "All is steady while it is moved.";
    }

    @Override
    public List<Choice> tapped() {
        return circuits().map(c -> choices(c.hands().tapped())).orElse(List.of());
    }

    @Override
    public List<Choice> wires() {
        return circuits().map(c -> choices(c.hands().wires())).orElse(List.of());
    }

    @Override
    public String along(String wire) {
        return circuits().orElseThrow().hands().along(wire).words();
    }

    @Override
    public List<Choice> fuses() {
        return circuits().map(c -> choices(c.hands().fuses())).orElse(List.of());
    }

    @Override
    public String behind(String fuse) {
        return "The lamp in the place of the fuse is "
                + circuits().orElseThrow().hands().behind(fuse).words()
                + ".";
    }

    @Override
    public List<Choice> breakable() {
        return breaker.breakable().stream()
                .map(f -> new Choice(f.of() + " " + f.name(), f.name()))
                .sorted(Comparator.comparing(Choice::name))
                .toList();
    }

    @Override
    public String breakIt(String choice, boolean beside) {
        if (choice.isEmpty()) {
            return told(breaker.breakSomething(breaker.breakable(), random, beside), beside);
        }
        Part.Failure failure =
                breaker.breakable().stream()
                        .filter(f -> (f.of() + " " + f.name()).equals(choice))
                        .findFirst()
                        .orElseThrow(
                                () -> new IllegalArgumentException("no part is called " + choice));
        return breaker.breakPart(failure, random.nextDouble(), beside)
                .map(b -> told(b, beside))
                .orElse("Nobody would notice that; it was left whole.");
    }

    private String told(Breaker.Broken broken, boolean beside) {
        truth =
                Optional.of(
                        truth.filter(t -> beside).map(t -> t + ", and ").orElse("")
                                + broken.truth());
        brokenAt = Instant.now();
        return "It is broken now. The driver says: \"" + broken.complaint() + "\"";
    }

    @Override
    public String name() {
        return vehicle.description().name();
    }

    @Override
    public String vin() {
        return vehicle.vin();
    }

    private Driver driver() {
        return vehicle.simulation().driver();
    }

    private double reading(String id) {
        return vehicle.simulation().reading(id).orElse(Double.NaN);
    }

    @Override
    public Dashboard dashboard() {
        return new Dashboard(
                List.of("off", "accessory", "on").get(driver().key()),
                List.of("stopped", "cranking", "running").get((int) reading("engine.state")),
                driver().program().words(),
                reading("vehicle.speed"),
                reading("engine.speed"),
                reading("coolant"),
                reading("body.supply"),
                vehicle.lamp(),
                driver().charger(),
                driver().trailer(),
                vehicle.hurry());
    }

    @Override
    public void key(int position) {
        vehicle.driver(driver().key(position).drive(Driver.Program.STAND));
    }

    @Override
    public String crank() {
        if (vehicle.simulation().running()) {
            return "The engine runs already.";
        }
        if (driver().key() != ON) {
            return "The key has to be on before it can be turned to start.";
        }
        vehicle.simulation().crank();
        boolean turned = false;
        for (long until = System.nanoTime() + START_NANOS;
                vehicle.simulation().starting() && System.nanoTime() < until; ) {
            turned |= vehicle.simulation().plant().rpm() > TURNS_RPM;
            LockSupport.parkNanos(LOOK_NANOS);
        }
        return vehicle.simulation().running()
                ? "It starts."
                : turned ? "It cranks, and does not start." : "Nothing turns.";
    }

    @Override
    public void drive(String program) {
        vehicle.driver(driver().drive(Driver.Program.named(program)));
    }

    @Override
    public void byHand(double pedal, int gear, double slope, boolean brake) {
        vehicle.driver(driver().byHand(pedal, gear, slope, brake));
    }

    @Override
    public void charger(boolean on) {
        vehicle.driver(driver().charger(on));
    }

    @Override
    public void trailer(boolean plugged) {
        vehicle.driver(driver().trailer(plugged));
    }

    @Override
    public void hurry(int factor) {
        vehicle.hurry(factor);
    }

    @Override
    public void plug(String moduleId, boolean in) {
        String id = "unplugged-" + moduleId;
        if (in) {
            vehicle.wires().mend(id);
        } else {
            // whoever hangs on the wire no longer is missed by the others
            vehicle.wires().add(new WireFault.Dead(id, moduleId, Double.POSITIVE_INFINITY, 0));
        }
    }

    @Override
    public void cut() {
        vehicle.gateway().cut();
    }

    @Override
    public void repair(String repairId) {
        vehicle.repair(repairId);
    }

    @Override
    public List<Choice> acts() {
        return choices(vehicle.simulation().acts());
    }

    @Override
    public List<Choice> gauges() {
        return choices(vehicle.tools().names());
    }

    private static List<Choice> choices(Map<String, String> named) {
        return named.entrySet().stream().map(a -> new Choice(a.getKey(), a.getValue())).toList();
    }

    @Override
    public String act(String actId) {
        return vehicle.tools().names().containsKey(actId)
                ? vehicle.tools().measure(actId)
                : vehicle.simulation().act(actId);
    }

    @Override
    public Optional<byte[]> injectors() {
        return vehicle.simulation().injectors().map(w -> w.write());
    }

    @Override
    public List<Choice> programs() {
        return Stream.of(Driver.Program.values())
                .filter(p -> p != Driver.Program.BY_HAND)
                .map(p -> new Choice(p.name(), p.words()))
                .toList();
    }

    @Override
    public List<Choice> repairs() {
        return vehicle.repairs().entrySet().stream()
                .map(r -> new Choice(r.getKey(), r.getValue()))
                .sorted(Comparator.comparing(Choice::name))
                .toList();
    }

    @Override
    public List<Choice> modules() {
        return vehicle.description().modules().stream()
                .filter(m -> vehicle.module(m.id()) != null)
                .map(m -> new Choice(m.id(), m.name()))
                .toList();
    }
}
