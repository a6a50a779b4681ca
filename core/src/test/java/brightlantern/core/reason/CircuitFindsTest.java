package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Any segment of a circuit breaks, and the program's own checks are done one after the other on a
 * circuit whose parts scatter by a tenth: the broken one is named, or one that no point tells apart
 * from it.
 */
class CircuitFindsTest {
    private static final double SCATTER = 0.1;
    private static final double SUPPLY = 12.5;
    private static final int MOST_CHECKS = 12;
    private static final int EACH = 4;

    private final VehicleDescription van = CircuitSuspects.added(Vehicles.portage());
    private final Circuit circuit = van.circuits().get(0);
    private final Reasoners reasoners = new Reasoners(van);

    /** A circuit as it was built, with something in it. */
    private final class World {
        private final Random random;
        private final CircuitModel model;
        private final List<Fault> faults;

        World(Optional<Fault> fault, long seed) {
            random = new Random(seed);
            List<Component> built = new ArrayList<>();
            for (Segment s : circuit.segments()) {
                built.add(s.with(s.ohm() * SCATTER * Math.abs(random.nextGaussian())));
            }
            for (MotorPart m : circuit.motors()) {
                built.add(m.withDrag(1 + 0.03 * random.nextGaussian()));
            }
            model = new CircuitModel(circuit, built);
            faults = fault.map(List::of).orElse(List.of());
        }

        Evidence done(Check check) {
            if (check instanceof Check.Reading r) {
                ProbeCondition condition =
                        new ProbeCondition(Load.named(r.load()), r.moving().stream().findFirst());
                double volts =
                        model.solve(condition.state(r.point(), SUPPLY), faults)
                                        .volts()
                                        .get(r.point())
                                + 0.01 * random.nextGaussian();
                return new Evidence.Reading(
                        r.circuit(),
                        r.point(),
                        r.load(),
                        r.moving(),
                        volts,
                        SUPPLY + 0.05 * random.nextGaussian(),
                        condition
                                .healthy(new SharedPoints(List.of()), circuit, r.point(), SUPPLY)
                                .holds(volts));
            }
            if (check instanceof Check.Run run) {
                String motor = van.actuator(run.actuator()).orElseThrow().motor();
                double seconds = seconds(motor);
                return new Evidence.Run(
                        run.actuator(),
                        run.of(),
                        Double.isFinite(seconds) ? seconds : -1,
                        0.02,
                        SUPPLY,
                        Double.isFinite(seconds));
            }
            return look((Check.Look) check);
        }

        /** Travel time of a motor; infinite when it stalls. */
        private double seconds(String motor) {
            Predictions healthy = new Predictions(van);
            double usual =
                    new CircuitModel(circuit)
                            .solve(OperatingState.idle(SUPPLY).moving(Set.of(motor)), List.of())
                            .speeds()
                            .get(motor);
            double is =
                    model.solve(OperatingState.idle(SUPPLY).moving(Set.of(motor)), faults)
                            .speeds()
                            .get(motor);
            String actuator =
                    van.actuators().stream()
                            .filter(a -> a.motor().equals(motor))
                            .findFirst()
                            .orElseThrow()
                            .id();
            double time = healthy.run(actuator, List.of(actuator), SUPPLY, Optional.empty()).mean();
            return is <= 0 ? Double.POSITIVE_INFINITY : time * usual / is;
        }

        /** The climb shows slow vanes; hoses are tight and sensors right in this world. */
        private Evidence look(Check.Look look) {
            boolean slow =
                    seconds("vane-motor")
                            > 1.15 * new World(Optional.empty(), 1).seconds("vane-motor");
            String outcome =
                    look.finding().equals("climb") && slow
                            ? "short"
                            : van.finding(look.finding()).orElseThrow().outcomes().stream()
                                    .max(Comparator.comparingDouble(FindingOutcome::healthy))
                                    .orElseThrow()
                                    .id();
            return new Evidence.Outcome(look.finding(), outcome);
        }
    }

    /** What the program ends with, and after how many checks. */
    private record Ended(Ranking ranking, int checks) {}

    private Ended follow(World world) {
        List<Evidence> found =
                new ArrayList<>(
                        List.of(
                                new Evidence.SymptomTold("flat-on-climbs"),
                                new Evidence.CodeSeen("P0299-00", true)));
        for (int i = 0; i < MOST_CHECKS; i++) {
            Ranking ranking = reasoners.of(found).rank(found);
            Optional<NextCheck> next =
                    reasoners.of(found).nextChecks(found, SUPPLY).stream()
                            .filter(c -> c.bits() >= NextStep.LEAST_BITS)
                            .findFirst();
            if (ranking.accused().filter(a -> a.sureness() > 0.95).isPresent() || next.isEmpty()) {
                return new Ended(ranking, i);
            }
            found.add(world.done(next.get().check()));
        }
        return new Ended(reasoners.of(found).rank(found), MOST_CHECKS);
    }

    /** Segments that no reachable point lies between: they are one place to whoever measures. */
    private Set<String> alike(String segment) {
        Set<String> all = new HashSet<>(Set.of(segment));
        boolean grown = true;
        while (grown) {
            Set<String> hidden =
                    circuit.segments().stream()
                            .filter(s -> all.contains(s.id()))
                            .flatMap(s -> List.of(s.from(), s.to()).stream())
                            .filter(p -> !circuit.point(p).canBeProbed())
                            .collect(Collectors.toSet());
            grown =
                    all.addAll(
                            circuit.segments().stream()
                                    .filter(
                                            s ->
                                                    hidden.contains(s.from())
                                                            || hidden.contains(s.to()))
                                    .map(Segment::id)
                                    .toList());
        }
        return all;
    }

    private static String segmentOf(Suspect s) {
        return s.effect().orElse(null) instanceof Effect.Series e ? e.of() : "";
    }

    @Test
    void everySegmentIsFoundWhoeverThoughtOfIt() {
        int right = 0;
        int wrong = 0;
        int open = 0;
        int checks = 0;
        List<String> missed = new ArrayList<>();
        List<String> places =
                van.suspects().stream()
                        .map(CircuitFindsTest::segmentOf)
                        .filter(s -> !s.isEmpty())
                        .distinct()
                        .toList();
        assertThat(places).containsAll(circuit.segments().stream().map(Segment::id).toList());
        places = circuit.segments().stream().map(Segment::id).toList();
        Random random = new Random(20261127);
        for (String place : places) {
            for (int i = 0; i < EACH; i++) {
                double ohm = 0.3 * Math.pow(8, random.nextDouble());
                World world =
                        new World(Optional.of(new Fault.Series(place, ohm)), random.nextLong());
                Ended ended = follow(world);
                checks += ended.checks();
                Optional<String> named =
                        ended.ranking()
                                .accused()
                                .map(a -> segmentOf(van.suspect(a.suspectId()).orElseThrow()));
                if (named.isEmpty()) {
                    open++;
                    missed.add("%s %.2f Ω: %s".formatted(place, ohm, ended.ranking().sentence()));
                } else if (alike(place).contains(named.get())) {
                    right++;
                } else {
                    wrong++;
                    missed.add("%s %.2f Ω: %s".formatted(place, ohm, ended.ranking().sentence()));
                }
            }
        }
        int all = places.size() * EACH;
        System.out.printf(
                "of %d broken segments: %d right, %d wrong, %d left open, %.1f checks on the mean%n",
                all, right, wrong, open, checks / (double) all);
        missed.forEach(m -> System.out.println("  " + m));
        assertThat(right).as("named right").isGreaterThanOrEqualTo((int) (0.9 * all));
        assertThat(wrong).as("named wrong").isLessThanOrEqualTo((int) (0.05 * all));
    }

    @Test
    void aHealthyCircuitIsNotAccused() {
        int accused = 0;
        for (long seed = 1; seed <= 30; seed++) {
            Ended ended = follow(new World(Optional.empty(), seed));
            accused +=
                    ended.ranking()
                                    .accused()
                                    .flatMap(a -> van.suspect(a.suspectId()))
                                    .filter(s -> s.effect().isPresent())
                                    .isPresent()
                            ? 1
                            : 0;
        }
        assertThat(accused).isZero();
    }
}
