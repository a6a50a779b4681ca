package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

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
import brightlantern.core.circuit.Voltages;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Any part of any circuit of any vehicle breaks, and the program's own checks are done one after
 * the other on circuits whose wires scatter by a tenth: the broken part is named, or one that no
 * check tells apart from it.
 */
class AnyPartTest {
    private static final double SCATTER = 0.1;
    private static final double SUPPLY = 12.5;
    private static final int MOST_CHECKS = 20;
    private static final int EACH = 3;
    private static final double SURE = 0.8;
    private static final int MOST_DRAWS = 200;

    static Stream<String> vehicles() {
        return Vehicles.all();
    }

    /** All circuits of a vehicle as they were built, with something in one of their parts. */
    private static final class World {
        private final VehicleDescription d;
        private final Random random;
        private final Map<String, CircuitModel> models = new HashMap<>();
        private final List<Fault> faults = new ArrayList<>();
        private final SharedPoints shared;

        World(VehicleDescription d, Optional<Fault> fault, Random random) {
            this.d = d;
            this.random = random;
            this.shared = new SharedPoints(d.circuits());
            fault.ifPresent(faults::add);
            Map<String, Component> built = new HashMap<>();
            for (Circuit c : d.circuits()) {
                List<Component> its = new ArrayList<>();
                c.components()
                        .forEach(p -> its.add(built.computeIfAbsent(p.id(), id -> scattered(p))));
                models.put(c.id(), new CircuitModel(c, its));
            }
        }

        private Component scattered(Component part) {
            return part instanceof Segment s
                    ? s.with(s.ohm() * SCATTER * Math.abs(random.nextGaussian()))
                    : part;
        }

        private Voltages volts(Circuit c, Set<String> moving) {
            Map<String, Double> volts =
                    models.get(c.id())
                            .solve(OperatingState.idle(SUPPLY).moving(moving), faults)
                            .volts();
            return volts::get;
        }

        Band shown(Circuit c, Gauge g) {
            return g.at(
                    g.share(
                            c,
                            volts(c, g.under().isEmpty() ? Set.of() : Set.of(g.under())),
                            faults));
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
                c.gauges().stream()
                        .filter(g -> !shown(c, g).well())
                        .forEach(g -> wrong.add(g.id()));
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
                            .forEach(
                                    code -> all.add(new Evidence.CodeSeen(code, code.equals(set))));
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
                        together(c, r.point(), Set.copyOf(r.moving()))
                                + 0.01 * random.nextGaussian();
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
            if (check instanceof Check.Look look && Gauge.isFinding(look.finding())) {
                for (Circuit c : d.circuits()) {
                    for (Gauge g : c.gauges()) {
                        if (g.findingId().equals(look.finding())) {
                            return Optional.of(
                                    new Evidence.Outcome(look.finding(), shown(c, g).id()));
                        }
                    }
                }
            }
            return Optional.empty();
        }
    }

    private record Ended(Ranking ranking, int checks, List<Evidence> found) {}

    /** Does what the program proposes, until it wants a repair or has nothing to propose. */
    private static Ended follow(World world, Reasoners reasoners, List<Evidence> told) {
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
                                    true, true, true, false, ranking, found, possible),
                            world.d);
            if (!(step instanceof NextStep.DoCheck todo) || done >= MOST_CHECKS) {
                return new Ended(ranking, done, found);
            }
            Optional<Evidence> evidence = world.done(todo.check().check());
            evidence.ifPresentOrElse(found::add, () -> impossible.add(todo.check().check().key()));
            done += evidence.isPresent() ? 1 : 0;
        }
    }

    private static String partOf(VehicleDescription d, String suspectId) {
        return d.suspect(suspectId).flatMap(Suspect::effect).flatMap(Effect::part).orElse("");
    }

    @ParameterizedTest
    @MethodSource("vehicles")
    void aHealthyVehicleOfWhichSomethingIsToldIsNotAccused(String id) {
        VehicleDescription d = CircuitSuspects.added(Vehicles.named(id));
        Reasoners reasoners = new Reasoners(d);
        Random random = new Random(id.hashCode());
        List<Gauge> told =
                d.circuits().stream()
                        .flatMap(c -> c.gauges().stream())
                        .filter(Gauge::told)
                        .toList();
        for (int i = 0; i < 1; i++) {
            World world = new World(d, Optional.empty(), random);
            assertThat(world.noticed()).isEmpty();
            Gauge complained = told.get(random.nextInt(told.size()));
            Ended ended =
                    follow(
                            world,
                            reasoners,
                            List.of(new Evidence.SymptomTold(DrawnCircuits.symptomId(complained))));
            assertThat(ended.ranking().accused().map(Standing::suspectId).orElse(""))
                    .as(complained.name())
                    .isIn("", Hypothesis.NOTHING, Hypothesis.SOMETHING_ELSE);
        }
    }

    @ParameterizedTest
    @MethodSource("vehicles")
    void isFoundWhereverItIs(String id) {
        VehicleDescription d = CircuitSuspects.added(Vehicles.named(id));
        Reasoners reasoners = new Reasoners(d);
        List<Suspect> drawn = d.suspects().stream().filter(Reasoners::isDerived).toList();
        System.out.printf(
                "%s: %d circuits, %d components, %d suspects, %d checks, %d symptoms%n",
                id,
                d.circuits().size(),
                d.circuits().stream()
                        .flatMap(c -> c.components().stream())
                        .map(Component::id)
                        .distinct()
                        .count(),
                d.suspects().size(),
                d.checks().size(),
                d.symptoms().size());
        Random random = new Random(20261127 + id.hashCode());
        int right = 0;
        int wrong = 0;
        int first = 0;
        int checks = 0;
        List<String> missed = new ArrayList<>();
        for (int i = 0; i < EACH; ) {
            Suspect broken = drawn(drawn, random);
            Fault fault = fault(broken, random);
            World world = new World(d, Optional.of(fault), random);
            if (world.noticed().isEmpty()) {
                continue;
            }
            i++;
            Ended ended = follow(world, reasoners, world.noticed());
            checks += ended.checks();
            Standing leads = ended.ranking().standings().get(0);
            boolean hit = d.wiring().alike(fault.part()).contains(partOf(d, leads.suspectId()));
            first += hit ? 1 : 0;
            if (hit && leads.sureness() >= SURE) {
                right++;
                proves(world, reasoners, ended, leads.suspectId());
            } else if (!hit && leads.sureness() >= SURE) {
                wrong++;
            }
            if (!hit || leads.sureness() < SURE) {
                missed.add(
                        "%s %.2f: %s"
                                .formatted(
                                        broken.name(), fault.size(), ended.ranking().sentence()));
            }
        }
        System.out.printf(
                "%s: first %d of %d, sure and right %d, wrong %d, checks %.1f%n",
                id, first, EACH, right, wrong, checks / (double) EACH);
        missed.forEach(m -> System.out.println("   " + m));
        assertThat(first).isGreaterThanOrEqualTo((int) (0.9 * EACH));
        assertThat(wrong).isLessThanOrEqualTo((int) (0.05 * EACH));
    }

    /** A suspect's fault at some size. */
    private static Fault fault(Suspect suspect, Random random) {
        if (suspect.effect().orElseThrow() instanceof Effect.Chafed c) {
            return new Fault.Chafed(
                    c.of(), c.from() * Math.pow(c.to() / c.from(), 0.8 * random.nextDouble()));
        }
        Effect.Series series = (Effect.Series) suspect.effect().orElseThrow();
        return new Fault.Series(
                series.of(),
                random.nextBoolean()
                        ? Fault.Series.OPEN_OHM
                        : series.from() * (1.3 + 6 * random.nextDouble()));
    }

    /** Wires of sensors that touch the body are told from those that are broken. */
    @ParameterizedTest
    @MethodSource("vehicles")
    void aChafedWireIsFound(String id) {
        VehicleDescription d = CircuitSuspects.added(Vehicles.named(id));
        Reasoners reasoners = new Reasoners(d);
        List<Suspect> drawn =
                d.suspects().stream()
                        .filter(s -> s.effect().orElse(null) instanceof Effect.Chafed)
                        .toList();
        Random random = new Random(3 + id.hashCode());
        Suspect chafed = drawn.get(random.nextInt(drawn.size()));
        World world = new World(d, Optional.of(fault(chafed, random)), random);
        Ended ended = follow(world, reasoners, world.noticed());
        // where a sensor drives its wire, no voltage tells the one that is dead from the other
        assertThat(ended.ranking().standings().subList(0, 2))
                .as(ended.ranking().sentence() + ended.found())
                .extracting(Standing::suspectId)
                .contains(chafed.id());
        assertThat(
                        ended.ranking().accused().isEmpty()
                                || ended.ranking().alike().stream()
                                        .anyMatch(s -> s.suspectId().equals(chafed.id())))
                .as(ended.ranking().sentence())
                .isTrue();
    }

    /**
     * A repair is proven by what comes out otherwise with the fault in place, and by nothing else.
     */
    private static void proves(World world, Reasoners of, Ended ended, String suspectId) {
        Reasoner reasoner = of.of(ended.found());
        String other =
                ended.ranking().standings().stream()
                        .map(Standing::suspectId)
                        .filter(s -> !partOf(world.d, s).isEmpty())
                        .filter(
                                s ->
                                        world.faults.stream()
                                                .noneMatch(
                                                        f -> f.part().equals(partOf(world.d, s))))
                        .filter(s -> !s.equals(suspectId))
                        .findFirst()
                        .orElseThrow();
        for (String repaired : List.of(suspectId, other)) {
            assertThat(reasoner.remaining(ended.found(), repaired, List.of(), SUPPLY).chance())
                    .as("nothing shown since %s", repaired)
                    .isGreaterThan(Remaining.PROVEN);
            Remaining undone =
                    reasoner.remaining(ended.found(), repaired, shown(world, ended), SUPPLY);
            assertThat(undone.chance()).as("left in place: %s", undone).isGreaterThan(0.5);
        }
        List<Fault> faults = List.copyOf(world.faults);
        world.faults.clear();
        Remaining mended =
                reasoner.remaining(ended.found(), suspectId, shown(world, ended), SUPPLY);
        assertThat(mended.isLittle()).as("mended: %s, %s", suspectId, mended).isTrue();
        world.faults.addAll(faults);
    }

    /** What failed is done again; of codes and complaints the same. */
    private static List<Evidence> shown(World world, Ended ended) {
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
    private static Suspect drawn(List<Suspect> all, Random random) {
        double at = random.nextDouble() * all.stream().mapToDouble(Suspect::common).sum();
        int i = 0;
        while (i < all.size() - 1 && at >= all.get(i).common()) {
            at -= all.get(i++).common();
        }
        return all.get(i);
    }

    /** Breaks a part of another circuit than those of which something is told already. */
    private static Suspect broken(World world, List<Suspect> drawn, Random random) {
        Set<String> before = world.wrong();
        for (int i = 0; i < MOST_DRAWS; i++) {
            Suspect s = drawn(drawn, random);
            Effect.Series effect = (Effect.Series) s.effect().orElseThrow();
            world.faults.add(new Fault.Series(effect.of(), Fault.Series.OPEN_OHM));
            Set<String> now = world.wrong();
            if (now.containsAll(before) && now.size() == before.size() + 1) {
                return s;
            }
            world.faults.remove(world.faults.size() - 1);
        }
        throw new IllegalStateException("Nothing else breaks in " + world.d.id());
    }

    /** One is named and mended, what is left is looked for without beginning anew. */
    @ParameterizedTest
    @MethodSource("vehicles")
    void ofTwoFaultsTheSecondIsFoundWhenTheFirstIsMended(String id) {
        VehicleDescription d = CircuitSuspects.added(Vehicles.named(id));
        Reasoners reasoners = new Reasoners(d);
        List<Suspect> drawn =
                d.suspects().stream()
                        .filter(Reasoners::isDerived)
                        .filter(s -> s.effect().orElse(null) instanceof Effect.Series)
                        .toList();
        Random random = new Random(7 + id.hashCode());
        World world = new World(d, Optional.empty(), random);
        Set<String> left = new HashSet<>();
        for (int i = 0; i < 2; i++) {
            left.add(((Effect.Series) broken(world, drawn, random).effect().orElseThrow()).of());
        }
        List<Evidence> found = new ArrayList<>(world.noticed());
        String story = id + " " + left;
        for (int i = 0; i < 2; i++) {
            Ended ended = follow(world, reasoners, found);
            story += ": " + ended.ranking().sentence();
            Standing named = ended.ranking().lead();
            assertThat(ended.ranking().sureness()).as(story).isGreaterThan(Ranking.POINTED_AT);
            Set<String> places = d.wiring().alike(partOf(d, named.suspectId()));
            assertThat(left.removeIf(places::contains)).as(story).isTrue();
            world.faults.removeIf(f -> places.contains(f.part()));
            Remaining after =
                    reasoners
                            .of(ended.found())
                            .remaining(
                                    ended.found(), named.suspectId(), shown(world, ended), SUPPLY);
            assertThat(after.isLittle()).as(story + after).isEqualTo(left.isEmpty());
            found = new ArrayList<>(ended.found());
            found.add(new Evidence.RepairFailed(named.suspectId()));
            found.addAll(world.again(ended.found()));
            found.addAll(world.codes());
        }
        assertThat(left).isEmpty();
        assertThat(world.wrong()).isEmpty();
    }
}
