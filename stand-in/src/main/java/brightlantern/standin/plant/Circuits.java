package brightlantern.standin.plant;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.Divider;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.Shorts;
import brightlantern.core.circuit.Voltages;
import brightlantern.core.signal.Value;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.DoubleSupplier;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * The circuits of this one vehicle: every wire, contact and consumer a little off its drawing, what
 * is switched on and unplugged at the moment, and whatever is broken. Solved again only when
 * something of it has changed.
 */
public final class Circuits implements Part {
    /** Wires and contacts of one type scatter by so much (one standard deviation). */
    private static final double SCATTER = 0.1;

    /** Consumers and sensors scatter less. */
    private static final double CONSUMER_SCATTER = 0.04;

    /** A change of the supply by less than this is not worth a new solution, V. */
    private static final double SUPPLY_STEP = 0.02;

    /** Modules look at their pins so often, and believe what they see for so long, s. */
    private static final double LOOK_SECONDS = 0.25;

    private static final double SET_SECONDS = 1;

    /** Nearer to what it should be nobody sees a difference, as a share of the reference. */
    private static final double SAME_SHARE = 0.01;

    private final Map<String, Its> all = new LinkedHashMap<>();
    private final Map<String, Component> built = new HashMap<>();
    private final Map<String, Fault> faults = new LinkedHashMap<>();
    private final Set<String> set = new LinkedHashSet<>();
    private final Map<String, Double> failing = new HashMap<>();
    private final Map<String, Double> holding = new HashMap<>();
    private final Whole whole;

    /** Wires that touch the body → the fuse that they blow. */
    private final Map<String, String> touching = new HashMap<>();

    private List<Failure> failures = List.of();

    /** How often something was switched, plugged, hung on, broken or mended. */
    private int changes;

    private double sinceLook;
    private String loadedPoint = "";
    private Load load = Load.NOTHING;

    /** A circuit with what it came to last. */
    private static final class Its {
        private final Circuit circuit;
        private final CircuitModel model;
        private final GaugeState drawn;
        private final Voltages healthy;
        private OperatingState at;
        private Map<String, Double> volts = Map.of();
        private int solvedFor = -1;
        private double supply = Double.NaN;
        private boolean ran;

        Its(Circuit circuit, CircuitModel model) {
            this.circuit = circuit;
            this.model = model;
            this.drawn = new GaugeState(circuit, GaugeState.TYPICAL_VOLTS);
            Map<String, Double> built =
                    model.solve(OperatingState.idle(GaugeState.TYPICAL_VOLTS), List.of()).volts();
            this.healthy = built::get;
        }
    }

    /**
     * @param circuits of the vehicle; those without gauges have a plant of their own
     */
    public Circuits(List<Circuit> circuits, Whole whole, Random random) {
        this.whole = whole;
        for (Circuit c : circuits) {
            if (!c.gauges().isEmpty()) {
                List<Component> its =
                        c.components().stream()
                                .map(p -> built.computeIfAbsent(p.id(), i -> scattered(p, random)))
                                .toList();
                all.put(c.id(), new Its(c, new CircuitModel(c, its)));
            }
        }
    }

    private static Component scattered(Component part, Random random) {
        if (part instanceof Segment s) {
            return s.with(s.ohm() * SCATTER * Math.abs(random.nextGaussian()));
        }
        if (part instanceof Consumer c) {
            double ohm = c.ohm() * (1 + CONSUMER_SCATTER * random.nextGaussian());
            return new Consumer(c.id(), c.name(), c.kind(), c.from(), c.to(), ohm);
        }
        return part instanceof Divider d
                ? d.telling(d.share() * (1 + CONSUMER_SCATTER * random.nextGaussian()))
                : part;
    }

    /** What can be switched and unplugged, by its id. */
    public Map<String, Setting> settings() {
        Map<String, Setting> settings = new LinkedHashMap<>();
        all.values().forEach(i -> i.circuit.settings().forEach(s -> settings.put(s.id(), s)));
        return settings;
    }

    /** Switches something on or off, or plugs it out or in. */
    public synchronized void set(String settingId, boolean on) {
        if (!settings().containsKey(settingId)) {
            throw new IllegalArgumentException("There is no switch or plug '" + settingId + "'");
        }
        changes++;
        if (on) {
            set.add(settingId);
        } else {
            set.remove(settingId);
        }
    }

    /** Whether something is switched on, or unplugged. */
    public synchronized boolean isSet(String settingId) {
        return isSet(settings().get(settingId));
    }

    private boolean isSet(Setting setting) {
        // an engine that runs need not be told so
        return set.contains(setting.id())
                || setting.name().equals("engine running") && whole.running();
    }

    /** What somebody sees who looks at a thing. */
    public record Seen(String name, String state, String under) {}

    /** All that can be seen, heard or felt working, as it is now. */
    public synchronized List<Seen> seen() {
        List<Seen> seen = new ArrayList<>();
        for (Its its : all.values()) {
            for (Gauge g : its.circuit.gauges()) {
                if (g.isSeen() && isOn(its, g)) {
                    seen.add(
                            new Seen(
                                    g.name(),
                                    g.at(share(its, g)).name(),
                                    its.circuit.setting(g.under()).map(Setting::name).orElse("")));
                }
            }
        }
        return seen;
    }

    private boolean isOn(Its its, Gauge g) {
        return its.circuit.setting(g.under()).map(this::isSet).orElse(whole.driver().key() == 2);
    }

    /**
     * How the pins of a connector look when it is opened.
     *
     * @throws IllegalArgumentException when there is no such connector
     */
    public synchronized String pins(String plug) {
        if (!plugs().contains(plug)) {
            throw new IllegalArgumentException("There is no connector '" + plug + "'");
        }
        return faults.keySet().stream()
                .flatMap(f -> Optional.ofNullable(built.get(f)).stream())
                .filter(Segment.class::isInstance)
                .flatMap(p -> ((Segment) p).pin().stream())
                .filter(p -> p.plug().equals(plug))
                .findFirst()
                .map(p -> "Pin " + p.number() + " of " + plug + " is corroded or loose.")
                .orElse("The pins of " + plug + " are clean and tight.");
    }

    /** All connectors. */
    public List<String> plugs() {
        return settings().keySet().stream()
                .filter(Setting::unplugs)
                .map(s -> s.substring(s.indexOf('-') + 1))
                .toList();
    }

    private OperatingState state(Its its, double supply) {
        Set<String> on = new LinkedHashSet<>();
        its.circuit.settings().stream().filter(this::isSet).forEach(s -> on.add(s.id()));
        OperatingState state = OperatingState.idle(supply).moving(on);
        return its.model.knows(loadedPoint) ? state.loaded(loadedPoint, load) : state;
    }

    /** Looked at some times a second, and nearly always as it was. */
    private Map<String, Double> solved(Its its) {
        double supply = Math.round(whole.volts() / SUPPLY_STEP) * SUPPLY_STEP;
        boolean runs = whole.running();
        if (its.solvedFor == changes && its.supply == supply && its.ran == runs) {
            return its.volts;
        }
        OperatingState now = state(its, supply);
        if (its.at == null || !now.equals(its.at)) {
            its.volts = its.model.solve(now, faults.values()).volts();
            its.at = now;
        }
        its.solvedFor = changes;
        its.supply = supply;
        its.ran = runs;
        return its.volts;
    }

    private double share(Its its, Gauge g) {
        Map<String, Double> volts = solved(its);
        return g.share(its.circuit, volts::get, faults.values());
    }

    private boolean isAwake(Its its) {
        return its.circuit.sources().isEmpty() || whole.driver().key() == 2;
    }

    /**
     * Volts at a point against battery minus. What several circuits draw through a point that they
     * share adds up.
     */
    public synchronized OptionalDouble volts(String point) {
        boolean known = false;
        double off = 0;
        double pole = 0;
        for (Its its : all.values()) {
            if (its.model.knows(point) && isAwake(its)) {
                known = true;
                boolean shared =
                        all.values().stream().filter(i -> i.model.knows(point)).count() > 1;
                boolean fed = its.circuit.point(point).side().equals("supply");
                pole = shared && fed ? its.at == null ? whole.volts() : its.at.supplyVolts() : 0;
                off += solved(its).get(point) - pole;
            } else if (its.model.knows(point)) {
                known = true;
            }
        }
        return known ? OptionalDouble.of(pole + off) : OptionalDouble.empty();
    }

    /** Hangs a load between a point and the other battery pole. */
    public synchronized void hang(String point, Load what) {
        changes++;
        loadedPoint = point;
        load = what;
    }

    @Override
    public void step(Whole now, double dt) {
        // it is solved when somebody looks
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        return Map.of();
    }

    /** Values that sensors of these circuits tell. */
    public Set<String> values() {
        Set<String> values = new LinkedHashSet<>();
        all.values()
                .forEach(
                        i ->
                                i.circuit.gauges().stream()
                                        .map(Gauge::value)
                                        .filter(v -> !v.isEmpty())
                                        .forEach(values::add));
        return values;
    }

    /**
     * A value as its module tells it, by what arrives at its pin.
     *
     * @param felt what the sensor feels, in the value's own unit
     */
    public synchronized double told(Value value, double felt) {
        for (Its its : all.values()) {
            for (Gauge g : its.circuit.gauges()) {
                if (g.value().equals(value.id())) {
                    double right = g.share(its.circuit, its.healthy, List.of());
                    double apart = share(its, g) - right;
                    if (Math.abs(apart) < SAME_SHARE) {
                        return felt;
                    }
                    double end = apart > 0 != g.scale().falls() ? g.most(value) : value.offset();
                    double reach = apart > 0 ? 1 - right : right;
                    return felt + (end - felt) * Math.min(1, Math.abs(apart) / reach);
                }
            }
        }
        return felt;
    }

    @Override
    public synchronized void watch(double seconds, Watcher watcher) {
        sinceLook += seconds;
        if (sinceLook < LOOK_SECONDS) {
            return;
        }
        for (Its its : all.values()) {
            for (Gauge g : its.circuit.gauges()) {
                if (!g.module().isEmpty() && isOn(its, g)) {
                    judge(g, share(its, g), watcher);
                }
            }
        }
        sinceLook = 0;
    }

    private void judge(Gauge g, double share, Watcher watcher) {
        Band now = g.at(share);
        for (Band b : g.bands()) {
            if (b.code().isEmpty()) {
                continue;
            }
            boolean fails = b.equals(now);
            String key = g.id() + " " + b.id();
            Map<String, Double> counts = fails ? failing : holding;
            (fails ? holding : failing).remove(key);
            double before = counts.getOrDefault(key, 0.0);
            counts.put(key, before + sinceLook);
            if (before < SET_SECONDS && before + sinceLook >= SET_SECONDS) {
                watcher.report(g.module(), b.code(), fails);
            }
        }
    }

    @Override
    public synchronized void keyOn() {
        failing.clear();
        holding.clear();
    }

    @Override
    public Set<String> monitored() {
        Set<String> codes = new LinkedHashSet<>();
        for (Its its : all.values()) {
            for (Gauge g : its.circuit.gauges()) {
                g.bands().stream()
                        .filter(b -> !b.code().isEmpty())
                        .forEach(b -> codes.add(g.module() + " " + b.code()));
            }
        }
        return codes;
    }

    /** Every part of which a break shows somewhere: a little of it, or all of it. */
    @Override
    public synchronized List<Failure> failures() {
        if (failures.isEmpty()) {
            failures = CircuitFailures.of(all.values().stream().map(i -> i.circuit).toList());
        }
        return failures;
    }

    /**
     * @param of id of the part
     * @param size ohms more in its way, or to earth
     */
    @Override
    public synchronized void fail(String mode, String of, double size) {
        if (!built.containsKey(of)) {
            throw new IllegalArgumentException("No circuit has a part '" + of + "' that breaks so");
        }
        faults.put(of, fault(mode, of, size));
        solveAgain();
    }

    private Fault fault(String mode, String of, double size) {
        return switch (mode) {
            case CircuitFailures.SERIES -> new Fault.Series(of, size);
            case CircuitFailures.CHAFED -> new Fault.Chafed(of, size);
            case CircuitFailures.SHORTED -> {
                String fuse = fuseOf(of);
                touching.put(of, fuse);
                // whoever replaces the fuse alone sees the new one blow
                yield new Fault.Series(fuse, Fault.Series.OPEN_OHM);
            }
            default ->
                    throw new IllegalArgumentException(
                            "A part of a circuit does not break by '" + mode + "'");
        };
    }

    private String fuseOf(String wire) {
        return all.values().stream()
                .flatMap(i -> Optional.ofNullable(Shorts.of(i.circuit).get(wire)).stream())
                .map(Shorts.Short::fuse)
                .findFirst()
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "No fuse protects the wire '" + wire + "'"));
    }

    /** Fuses in whose place a test lamp can be put, id → name. */
    public Map<String, String> fuses() {
        return segments(s -> s.kind() == SegmentKind.FUSE);
    }

    /** Wires along which one can look, id → name. */
    public Map<String, String> wires() {
        return segments(s -> s.kind() == SegmentKind.WIRE);
    }

    private Map<String, String> segments(Predicate<Segment> which) {
        Map<String, String> found = new TreeMap<>();
        for (Its its : all.values()) {
            its.circuit.segments().stream()
                    .filter(which)
                    .forEach(s -> found.putIfAbsent(s.id(), CircuitFailures.name(its.circuit, s)));
        }
        return found;
    }

    /**
     * What a test lamp in the place of a fuse shows, with all that it feeds unplugged.
     *
     * @throws IllegalArgumentException when there is no such fuse
     */
    public synchronized Shorts.Glow behind(String fuse) {
        if (!fuses().containsKey(fuse)) {
            throw new IllegalArgumentException("There is no fuse '" + fuse + "'");
        }
        Shorts.Glow most = Shorts.Glow.DARK;
        for (Its its : all.values()) {
            Set<String> touch =
                    touching.entrySet().stream()
                            .filter(t -> t.getValue().equals(fuse))
                            .map(Map.Entry::getKey)
                            .filter(w -> its.circuit.component(w).isPresent())
                            .collect(Collectors.toSet());
            if (!touch.isEmpty() && most != Shorts.Glow.AT_ONCE) {
                List<Component> parts =
                        its.circuit.components().stream().map(p -> built.get(p.id())).toList();
                Shorts.Glow glow = Shorts.glow(its.circuit, parts, fuse, touch);
                most = glow == Shorts.Glow.DARK ? most : glow;
            }
        }
        return most;
    }

    /**
     * Whether a wire has rubbed through, for somebody who looks along it.
     *
     * @throws IllegalArgumentException when there is no such wire
     */
    public synchronized boolean isRubbed(String wire) {
        if (!wires().containsKey(wire)) {
            throw new IllegalArgumentException("There is no wire '" + wire + "'");
        }
        return touching.containsKey(wire) || faults.get(wire) instanceof Fault.Chafed;
    }

    @Override
    public synchronized void mend(String repair) {
        touching.remove(repair);
        if (faults.remove(repair) != null) {
            solveAgain();
        }
    }

    private void solveAgain() {
        changes++;
        all.values().forEach(i -> i.at = null);
    }

    /**
     * Uses everything once, as somebody does in a day, and looks at it; what was not well, as far
     * as a driver or a module notices it.
     */
    public synchronized List<Gauge> used(Watcher watcher) {
        List<Gauge> wrong = new ArrayList<>();
        Set<String> before = Set.copyOf(set);
        settings().keySet().stream().filter(s -> !Setting.unplugs(s)).forEach(set::add);
        changes++;
        for (Its its : all.values()) {
            for (Gauge g : its.circuit.gauges()) {
                Band band = g.at(share(its, g));
                if (!band.well() && (g.told() || !band.code().isEmpty())) {
                    wrong.add(g);
                }
            }
        }
        for (double t = 0; t <= SET_SECONDS + LOOK_SECONDS; t += LOOK_SECONDS) {
            watch(LOOK_SECONDS, watcher);
        }
        set.clear();
        set.addAll(before);
        changes++;
        return wrong;
    }

    /** How a driver tells of what does not work. */
    public synchronized String complaint(Gauge g) {
        Its its =
                all.values().stream()
                        .filter(i -> i.circuit.gauges().contains(g))
                        .findFirst()
                        .orElseThrow();
        String under = its.circuit.setting(g.under()).map(s -> ", " + s.name()).orElse("");
        set.add(g.under());
        changes++;
        String state = g.at(share(its, g)).name();
        set.remove(g.under());
        changes++;
        return g.name() + " " + state + under + ".";
    }
}
