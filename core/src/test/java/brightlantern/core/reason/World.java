package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.circuit.Touched;
import brightlantern.core.circuit.Voltages;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;

/** All circuits of a vehicle as they were built, with something in one of their parts. */
final class World {
    static final double SUPPLY = 12.5;
    private static final double SCATTER = 0.1;
    private static final int MOST_CHECKS = 20;

    final VehicleDescription d;
    private final Random random;
    private final Map<String, CircuitModel> models = new HashMap<>();
    final List<Fault> faults = new ArrayList<>();
    private final SharedPoints shared;

    World(VehicleDescription d, Optional<Fault> fault, Random random) {
        this.d = d;
        this.random = random;
        this.shared = new SharedPoints(d.circuits());
        fault.ifPresent(faults::add);
        Map<String, Component> built = new HashMap<>();
        for (Circuit c : d.circuits()) {
            List<Component> its = new ArrayList<>();
            c.components().forEach(p -> its.add(built.computeIfAbsent(p.id(), id -> scattered(p))));
            models.put(c.id(), new CircuitModel(c, its));
        }
    }

    private Component scattered(Component part) {
        return part instanceof Segment s
                ? s.with(s.ohm() * SCATTER * Math.abs(random.nextGaussian()))
                : part;
    }

    private Voltages volts(Circuit c, OperatingState state) {
        Map<String, Double> volts = models.get(c.id()).solve(state, faults).volts();
        return volts::get;
    }

    private Voltages volts(Circuit c, Set<String> moving) {
        return volts(c, OperatingState.idle(SUPPLY).moving(moving));
    }

    Band shown(Circuit c, Gauge g) {
        return g.at(g.share(c, volts(c, g.state(c, SUPPLY)), faults));
    }

    /** What is told and stored of it before anybody looks. */
    List<Evidence> noticed() {
        List<Evidence> all = new ArrayList<>();
        Set<String> told = new HashSet<>();
        for (Circuit c : d.circuits()) {
            for (Gauge g : c.gauges()) {
                Band band = shown(c, g);
                if (!band.well() && g.told() && told.add(c.id())) {
                    all.add(new Evidence.SymptomTold(DrawnCircuits.symptomId(g)));
                }
                if (!band.code().isEmpty()) {
                    all.add(new Evidence.CodeSeen(band.code(), true));
                }
            }
        }
        return all;
    }

    /** Gauges that do not show what they should. */
    Set<String> wrong() {
        Set<String> wrong = new HashSet<>();
        for (Circuit c : d.circuits()) {
            c.gauges().stream().filter(g -> !shown(c, g).well()).forEach(g -> wrong.add(g.id()));
        }
        return wrong;
    }

    /** All that was not well, done once more, as a proof asks for. */
    List<Evidence> again(List<Evidence> before) {
        Set<String> keys = new HashSet<>();
        before.stream()
                .filter(e -> e.passed().map(p -> !p).orElse(e instanceof Evidence.Outcome))
                .forEach(e -> keys.add(e.key()));
        return d.checks().stream()
                .filter(c -> keys.contains(c.key()))
                .flatMap(c -> done(c).stream())
                .toList();
    }

    /** What a sweep tells of the codes of all gauges. */
    List<Evidence> codes() {
        List<Evidence> all = new ArrayList<>();
        for (Circuit c : d.circuits()) {
            for (Gauge g : c.gauges()) {
                String set = shown(c, g).code();
                g.bands().stream()
                        .map(Band::code)
                        .filter(code -> !code.isEmpty())
                        .forEach(code -> all.add(new Evidence.CodeSeen(code, code.equals(set))));
            }
        }
        return all;
    }

    /** What all circuits together make at a point that they share. */
    private double together(Circuit circuit, String point, Set<String> on) {
        boolean fed = circuit.point(point).side().equals("supply");
        double pole = fed ? SUPPLY : 0;
        double off = volts(circuit, on).at(point) - pole;
        for (Circuit other : d.circuits()) {
            if (!other.id().equals(circuit.id())
                    && !other.gauges().isEmpty()
                    && models.get(other.id()).knows(point)) {
                off += volts(other, on).at(point) - pole;
            }
        }
        return pole + off;
    }

    Optional<Evidence> done(Check check) {
        if (check instanceof Check.Reading r) {
            Circuit c = d.circuit(r.circuit()).orElseThrow();
            double volts =
                    together(c, r.point(), Set.copyOf(r.moving())) + 0.01 * random.nextGaussian();
            ProbeCondition condition =
                    new ProbeCondition(Load.NOTHING, r.moving().stream().findFirst());
            return Optional.of(
                    new Evidence.Reading(
                            r.circuit(),
                            r.point(),
                            r.load(),
                            r.moving(),
                            volts,
                            SUPPLY + 0.05 * random.nextGaussian(),
                            condition.healthy(shared, c, r.point(), SUPPLY).holds(volts)));
        }
        if (check instanceof Check.Look look && look.finding().startsWith("pins-")) {
            String plug = look.finding().substring(5);
            String pin =
                    faults.stream()
                            .map(Fault::part)
                            .filter(p -> p.startsWith("C-" + plug + "."))
                            .map(p -> p.substring(p.lastIndexOf('.') + 1))
                            .findFirst()
                            .orElse("clean");
            return Optional.of(new Evidence.Outcome(look.finding(), pin));
        }
        if (check instanceof Check.Look look && look.finding().startsWith("along-")) {
            String wire = look.finding().substring("along-".length());
            String seen =
                    faults.stream()
                            .filter(f -> f.part().equals(wire))
                            .filter(Fault.Chafed.class::isInstance)
                            .map(f -> ((Fault.Chafed) f).touched())
                            .map(t -> t == Touched.EARTH ? "rubbed" : "against")
                            .findFirst()
                            .orElse("clean");
            return Optional.of(new Evidence.Outcome(look.finding(), seen));
        }
        if (check instanceof Check.Look look && Gauge.isFinding(look.finding())) {
            for (Circuit c : d.circuits()) {
                for (Gauge g : c.gauges()) {
                    if (g.findingId().equals(look.finding())) {
                        return Optional.of(new Evidence.Outcome(look.finding(), shown(c, g).id()));
                    }
                }
            }
        }
        return Optional.empty();
    }

    record Ended(Ranking ranking, int checks, List<Evidence> found) {}

    /** Does what the program proposes, until it wants a repair or has nothing to propose. */
    static Ended follow(World world, Reasoners reasoners, List<Evidence> told) {
        List<Evidence> found = new ArrayList<>(told);
        Set<String> impossible = new HashSet<>();
        int done = 0;
        while (true) {
            Reasoner reasoner = reasoners.of(found);
            Ranking ranking = reasoner.rank(found);
            List<NextCheck> possible =
                    reasoner.nextChecks(found, SUPPLY).stream()
                            .filter(c -> !impossible.contains(c.check().key()))
                            .toList();
            NextStep step =
                    NextStep.of(
                            new NextStep.Situation(
                                    true, true, true, List.of(), false, ranking, found, possible),
                            world.d);
            if (!(step instanceof NextStep.DoCheck todo) || done >= MOST_CHECKS) {
                return new Ended(ranking, done, found);
            }
            Optional<Evidence> evidence = world.done(todo.check().check());
            evidence.ifPresentOrElse(found::add, () -> impossible.add(todo.check().check().key()));
            done += evidence.isPresent() ? 1 : 0;
        }
    }

    static String partOf(VehicleDescription d, String suspectId) {
        return d.suspect(suspectId).flatMap(Suspect::effect).flatMap(Effect::part).orElse("");
    }

    /** What failed is done again; of codes and complaints the same. */
    static List<Evidence> shown(World world, Ended ended) {
        List<Evidence> shown = new ArrayList<>(world.again(ended.found()));
        List<Evidence> noticed = world.noticed();
        for (Evidence e : ended.found()) {
            if (e instanceof Evidence.CodeSeen code && code.present()) {
                shown.add(new Evidence.CodeSeen(code.code(), noticed.contains(e)));
            } else if (e instanceof Evidence.SymptomTold told) {
                shown.add(noticed.contains(e) ? e : new Evidence.SymptomGone(told.symptomId()));
            }
        }
        return shown;
    }

    /** One of them, by how common they are. */
    static Suspect drawn(List<Suspect> all, Random random) {
        double at = random.nextDouble() * all.stream().mapToDouble(Suspect::common).sum();
        int i = 0;
        while (i < all.size() - 1 && at >= all.get(i).common()) {
            at -= all.get(i++).common();
        }
        return all.get(i);
    }
}
