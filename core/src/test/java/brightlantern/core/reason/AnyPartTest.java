package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Any part of any circuit of any vehicle breaks, and the program's own checks are done one after
 * the other on circuits whose wires scatter by a tenth: the broken part is named, or one that no
 * check tells apart from it.
 */
class AnyPartTest {
    private static final int EACH = 2;
    private static final double SURE = 0.8;

    /** Of what is called surer than this none of a handful may be wrong. */
    private static final double NEARLY_CERTAIN = 0.9;

    static Stream<String> vehicles() {
        return Vehicles.all();
    }

    @ParameterizedTest
    @MethodSource("vehicles")
    void aHealthyVehicleOfWhichSomethingIsToldIsNotAccused(String id) {
        VehicleDescription d = Vehicles.derived(id);
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
            World.Ended ended =
                    World.follow(
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
        VehicleDescription d = Vehicles.derived(id);
        Reasoners reasoners = new Reasoners(d);
        // what blows a fuse takes a lamp in its place: the stand-ins' tests have one
        List<Suspect> drawn =
                d.suspects().stream()
                        .filter(Reasoners::isDerived)
                        .filter(s -> !(s.effect().orElse(null) instanceof Effect.Shorted))
                        .toList();
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
            Suspect broken = World.drawn(drawn, random);
            if (broken.effect().orElseThrow() instanceof Effect.Loose) {
                // this world stands still, and nothing in it is shaken
                continue;
            }
            Fault fault = fault(broken, random);
            World world = new World(d, Optional.of(fault), random);
            if (world.noticed().isEmpty()) {
                continue;
            }
            i++;
            World.Ended ended = World.follow(world, reasoners, world.noticed());
            checks += ended.checks();
            Standing leads = ended.ranking().standings().get(0);
            boolean hit =
                    d.wiring().alike(fault.part()).contains(World.partOf(d, leads.suspectId()));
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
        assertThat(first).isGreaterThanOrEqualTo((int) Math.ceil(0.9 * EACH));
        assertThat(wrong).isLessThanOrEqualTo((int) (0.05 * EACH));
    }

    /** A suspect's fault at some size. */
    private static Fault fault(Suspect suspect, Random random) {
        if (suspect.effect().orElseThrow() instanceof Effect.Chafed c) {
            return new Fault.Chafed(
                    c.of(),
                    c.touched(),
                    c.from() * Math.pow(c.to() / c.from(), 0.8 * random.nextDouble()));
        }
        if (suspect.effect().orElseThrow() instanceof Effect.Off o) {
            double by = o.up() > 0 ? o.up() * 1.5 : o.down() / 1.5;
            return o.misread() ? new Fault.Misread(o.of(), by) : new Fault.Biased(o.of(), by);
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
        VehicleDescription d = Vehicles.derived(id);
        Reasoners reasoners = new Reasoners(d);
        List<Suspect> drawn =
                d.suspects().stream()
                        .filter(s -> s.effect().orElse(null) instanceof Effect.Chafed)
                        .toList();
        Random random = new Random(3 + id.hashCode());
        Suspect chafed = drawn.get(random.nextInt(drawn.size()));
        World world = new World(d, Optional.of(fault(chafed, random)), random);
        World.Ended ended = World.follow(world, reasoners, world.noticed());
        // where a sensor drives its wire, no voltage tells the one that is dead from the other
        assertThat(ended.ranking().standings().subList(0, 2))
                .as(ended.ranking().sentence() + ended.found())
                .extracting(Standing::suspectId)
                .contains(chafed.id());
        assertThat(
                        ended.ranking()
                                        .accused()
                                        .filter(a -> a.sureness() >= NEARLY_CERTAIN)
                                        .isEmpty()
                                || ended.ranking().alike().stream()
                                        .anyMatch(s -> s.suspectId().equals(chafed.id())))
                .as(ended.ranking().sentence())
                .isTrue();
    }

    /**
     * A repair is proven by what comes out otherwise with the fault in place, and by nothing else.
     */
    private static void proves(World world, Reasoners of, World.Ended ended, String suspectId) {
        Reasoner reasoner = of.of(ended.found());
        String other =
                ended.ranking().standings().stream()
                        .map(Standing::suspectId)
                        .filter(s -> !World.partOf(world.d, s).isEmpty())
                        .filter(
                                s ->
                                        world.faults.stream()
                                                .noneMatch(
                                                        f ->
                                                                f.part()
                                                                        .equals(
                                                                                World.partOf(
                                                                                        world.d,
                                                                                        s))))
                        .filter(s -> !s.equals(suspectId))
                        .findFirst()
                        .orElseThrow();
        for (String repaired : List.of(suspectId, other)) {
            assertThat(
                            reasoner.remaining(ended.found(), repaired, List.of(), World.SUPPLY)
                                    .chance())
                    .as("nothing shown since %s", repaired)
                    .isGreaterThan(Remaining.PROVEN);
            Remaining undone =
                    reasoner.remaining(
                            ended.found(), repaired, World.shown(world, ended), World.SUPPLY);
            assertThat(undone.chance()).as("left in place: %s", undone).isGreaterThan(0.5);
        }
        List<Fault> faults = List.copyOf(world.faults);
        world.faults.clear();
        List<Evidence> shown = new ArrayList<>(World.shown(world, ended));
        Remaining mended = reasoner.remaining(ended.found(), suspectId, shown, World.SUPPLY);
        // where too much is left the proof names the check that would tell most
        for (int more = 0; more < 2 && !mended.isLittle(); more++) {
            mended.telling().flatMap(n -> world.done(n.check())).ifPresent(shown::add);
            mended = reasoner.remaining(ended.found(), suspectId, shown, World.SUPPLY);
        }
        assertThat(mended.isLittle()).as("mended: %s, %s", suspectId, mended).isTrue();
        world.faults.addAll(faults);
    }
}
