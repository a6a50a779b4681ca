package brightlantern.standin.plant;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.circuit.Shorts;
import brightlantern.core.circuit.Wiring;
import brightlantern.core.signal.Value;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.function.DoubleSupplier;
import java.util.function.Predicate;
import java.util.function.Supplier;

/**
 * The circuits of this one vehicle: every wire, contact and consumer a little off its drawing, what
 * is switched on and unplugged at the moment, and whatever is broken. Solved again only when
 * something of it has changed.
 */
public final class Circuits implements Part {
    /** A change of the supply by less than this is not worth a new solution, V. */
    private static final double SUPPLY_STEP = 0.02;

    private final Map<String, LiveCircuit> all = new LinkedHashMap<>();
    private final Map<String, Component> built = new HashMap<>();
    private final BrokenParts broken = new BrokenParts(built);
    private final Hands hands;
    private double moving;
    private final Switches switches;
    private final ModulePins modules = new ModulePins(this);
    private final Feeds feeds = new Feeds(this);
    private final Senses senses = new Senses();
    private final Working working = new Working(this);
    private final Whole whole;

    /** Parts that feed modules, and nothing else. */
    private final Set<String> ofModules;

    private List<Failure> failures = List.of();

    /** How often something was broken or mended. */
    private int changes;

    /**
     * @param wiring of the vehicle; circuits without gauges have a plant of their own
     */
    public Circuits(Wiring wiring, Whole whole, Random random) {
        this.whole = whole;
        this.ofModules = wiring.feedingOnlyModules();
        for (Circuit c : wiring.circuits()) {
            if (!c.gauges().isEmpty()) {
                List<Component> its =
                        c.components().stream()
                                .map(p -> built.computeIfAbsent(p.id(), i -> Scatter.of(p, random)))
                                .toList();
                all.put(c.id(), new LiveCircuit(c, new CircuitModel(c, its)));
            }
        }
        List<Circuit> drawn = all.values().stream().map(LiveCircuit::circuit).toList();
        hands = new Hands(this, drawn, built, broken);
        switches = new Switches(drawn, whole);
    }

    /** What somebody finds at them by hand, eye and lamp. */
    public Hands hands() {
        return hands;
    }

    /** A gauge with the sheet on which it stands; empty where there is none of that kind. */
    Optional<LiveCircuit> with(Gauge gauge, Predicate<Gauge> kind) {
        return all.values().stream()
                .filter(its -> kind.test(gauge) && its.circuit().gauges().contains(gauge))
                .findFirst();
    }

    /** Lets something happen while another load hangs at a point. */
    <T> T hanging(String point, Load what, Supplier<T> happens) {
        return switches.hanging(point, what, happens);
    }

    /**
     * What flows through a consumer, as a share of what it is made for; all where no clamp fits.
     *
     * @param consumer its id
     */
    public synchronized double current(String consumer) {
        for (LiveCircuit its : all.values()) {
            for (Gauge g : its.circuit().gauges()) {
                if (g.isClamped() && g.part().equals(consumer)) {
                    return isOn(its, g) ? share(its, g) : 0;
                }
            }
        }
        return 1;
    }

    /** What can be switched and unplugged, by its id. */
    public Map<String, Setting> settings() {
        return switches.settings();
    }

    /** Switches something on or off, or plugs it out or in. */
    public synchronized void set(String settingId, boolean on) {
        switches.set(settingId, on);
    }

    /** Whether something is switched on, or unplugged. */
    public synchronized boolean isSet(String settingId) {
        return switches.isSet(settingId);
    }

    /**
     * What somebody sees who looks at a thing.
     *
     * @param idle whether it is switched off, as it should be
     */
    public record Seen(String name, String state, String under, boolean idle) {}

    /** All that can be seen, heard or felt working, as it is now. */
    public synchronized List<Seen> seen() {
        List<Seen> seen = new ArrayList<>();
        for (LiveCircuit its : all.values()) {
            for (Gauge g : its.circuit().gauges()) {
                if (g.isSeen() && isOn(its, g)) {
                    Band shows = g.at(share(its, g));
                    seen.add(
                            new Seen(
                                    g.name(),
                                    shows.name(),
                                    its.circuit().setting(g.made()).map(Setting::name).orElse(""),
                                    g.isOff() && shows.well()));
                }
            }
        }
        return seen;
    }

    /** Whether a gauge is in the state in which it is looked at. */
    boolean isOn(LiveCircuit its, Gauge g) {
        if (g.isOff()) {
            return its.setting(g.under()).filter(switches::isSet).isEmpty();
        }
        return its.setting(g.under()).map(switches::isSet).orElse(whole.driver().key() == 2);
    }

    /** Volts of its points; the same map as long as nothing changes them. */
    Map<String, Double> solved(LiveCircuit its) {
        double supply = Math.round(whole.volts() / SUPPLY_STEP) * SUPPLY_STEP;
        Map<String, Double> felt = senses.on(its);
        return its.volts(
                new LiveCircuit.Moment(
                        broken.isShaken(),
                        changes + switches.changes(),
                        supply,
                        switches.turns(),
                        whole.starting(),
                        felt),
                () -> switches.state(its, supply).feeling(felt),
                broken::now);
    }

    /** Share at which a gauge would stand now if nothing were broken, unplugged or hung on. */
    double shareWhole(LiveCircuit its, Gauge g) {
        return g.share(its.circuit(), its.healthy(senses.on(its)), List.of());
    }

    Senses senses() {
        return senses;
    }

    /** Lets the sensor of a value feel something of the plant, in the value's own unit. */
    public void feels(Value value, DoubleSupplier feels) {
        for (LiveCircuit its : all.values()) {
            its.circuit().gauges().stream()
                    .filter(g -> g.by() == Gauge.By.MODULE && g.value().equals(value.id()))
                    .forEach(g -> senses.with(its, g, value, feels));
        }
        senses.feel();
    }

    Collection<LiveCircuit> live() {
        return all.values();
    }

    /** Share at which a gauge stands now; of one that is compared, as far off as it is at rest. */
    double share(LiveCircuit its, Gauge g) {
        Map<String, Double> volts = solved(its);
        double share = g.share(its.circuit(), volts::get, broken.now());
        return g.isCompared()
                ? senses.of(g.value())
                        .map(s -> s.characteristic().share() + share - shareWhole(its, g))
                        .orElse(share)
                : share;
    }

    private boolean isAwake(LiveCircuit its) {
        return its.circuit().sources().isEmpty() || whole.driver().key() == 2;
    }

    /**
     * Volts at a point against battery minus. What several circuits draw through a point that they
     * share adds up.
     */
    public synchronized OptionalDouble volts(String point) {
        boolean known = false;
        boolean fed = false;
        double supply = 0;
        List<Double> alone = new ArrayList<>();
        for (LiveCircuit its : all.values()) {
            known |= its.knows(point);
            if (its.knows(point) && isAwake(its)) {
                alone.add(solved(its).get(point));
                // solved first: it is the supply of now that counts
                supply = its.supplyVolts();
                fed = its.circuit().point(point).side().equals("supply");
            }
        }
        if (!known) {
            return OptionalDouble.empty();
        }
        return OptionalDouble.of(alone.isEmpty() ? 0 : SharedPoints.together(supply, fed, alone));
    }

    /** Hangs a load between a point and the other battery pole. */
    public synchronized void hang(String point, Load what) {
        switches.hang(point, what);
    }

    /** Somebody moves something for a while: what is loose there opens and shuts meanwhile. */
    public synchronized void move(String what, double seconds) {
        moving = hands.jumps(what) ? seconds : 0;
    }

    /** Volts at a point while what is moved just now is open; empty where nothing moves. */
    public synchronized OptionalDouble flicker(String point) {
        return moving > 0 ? moved(() -> volts(point)) : OptionalDouble.empty();
    }

    @Override
    public void step(Whole now, double dt) {
        senses.feel();
        stepped(dt);
    }

    /** It is solved when somebody looks. */
    private synchronized void stepped(double dt) {
        moving = Math.max(0, moving - dt);
        feeds.step(isWhole(), () -> moving > 0 ? moved(feeds::silent) : feeds.silent());
    }

    /** Whether nothing is broken, unplugged or hung on. */
    private boolean isWhole() {
        return broken.isNothing() && switches.isPlugged();
    }

    /** Those that are silent at this moment. */
    Set<String> silent() {
        return feeds.silent();
    }

    /** Modules that are silent because nothing, or too little, arrives at their pins. */
    public Set<String> unfed() {
        return feeds.unfed();
    }

    /** What arrives at a module, as a share of what arrives while nothing is broken. */
    public synchronized double fed(String module) {
        return isWhole() ? 1 : feeds.fed(module, whole.volts());
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        return Map.of();
    }

    /** Values that sensors of these circuits tell. */
    public Set<String> values() {
        return modules.values();
    }

    /**
     * A value as its module tells it, by what arrives at its pin.
     *
     * @param felt what the sensor feels, in the value's own unit
     */
    public synchronized double told(Value value, double felt) {
        return isWhole() ? felt : modules.told(value, felt);
    }

    @Override
    public synchronized void watch(double seconds, Watcher watcher) {
        modules.watch(seconds, watcher);
    }

    @Override
    public synchronized void keyOn() {
        modules.keyOn();
    }

    @Override
    public Set<String> monitored() {
        return modules.monitored();
    }

    /** Every part of which a break shows somewhere: a little of it, or all of it. */
    @Override
    public synchronized List<Failure> failures() {
        if (failures.isEmpty()) {
            failures =
                    CircuitFailures.of(
                            all.values().stream().map(i -> i.circuit()).toList(), ofModules);
        }
        return failures;
    }

    /**
     * @param of id of the part
     * @param size ohms more in its way, or to earth
     */
    @Override
    public synchronized void fail(String mode, String of, double size) {
        broken.fail(mode, of, size, this::fuseOf);
        changed();
    }

    private String fuseOf(String wire) {
        return Shorts.fuseOf(all.values().stream().map(LiveCircuit::circuit).toList(), wire);
    }

    /** Whether a wire, contact or cable with this id is in any of them. */
    public boolean isWired(String segment) {
        return built.get(segment) instanceof Segment;
    }

    @Override
    public synchronized void mend(String repair) {
        if (broken.mend(repair)) {
            changed();
        }
    }

    /** The size of a fault, with its unit. */
    public static String told(String mode, double size) {
        return BrokenParts.told(mode, size);
    }

    private void solveAgain() {
        changes++;
        all.values().forEach(LiveCircuit::solveAgain);
    }

    /** Something broke, or was mended. */
    private void changed() {
        solveAgain();
        feeds.step(isWhole(), feeds::silent);
    }

    /** What of them works at this moment. */
    public Working working() {
        return working;
    }

    /** Whether all is as it was built, with nothing switched on. */
    boolean isUntouched() {
        return broken.now().isEmpty() && !switches.isAnySet();
    }

    /** Lets something happen with these switched on and no others, and leaves all as it was. */
    <T> T with(Set<String> on, Supplier<T> what) {
        return switches.with(on, what);
    }

    /** The same while what is loose is moved. */
    <T> T moved(Supplier<T> what) {
        broken.shake(true);
        try {
            return what.get();
        } finally {
            broken.shake(false);
        }
    }

    /** Whether something of it comes and goes. */
    public synchronized boolean isAnyLoose() {
        return broken.isAnyLoose();
    }
}
