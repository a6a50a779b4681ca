package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.reason.Hypothesis;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.reason.Standing;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.Calibration.World;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/**
 * How true the program's word is: faults drawn by the rates in the circuits of all stand-ins, and a
 * robot that does at the vehicle what the program proposes. {@code -Dseed=N -Druns=N}; a line a
 * figure.
 */
class TruthBench {
    private static final int MOST_REPAIRS = 3;

    private final Random random = new Random(Long.getLong("seed", 1));
    private final int runs = Integer.getInteger("runs", 120);
    private final Yard yard = new Yard(random);

    /** Of all worlds. */
    private static final Calibration CALIBRATION = new Calibration();

    private static boolean leads(Ranking ranking, String id) {
        return ranking.lead().suspectId().equals(id);
    }

    private boolean isIn(String vehicle, Ranking ranking, Set<String> parts) {
        return parts.contains(Robot.part(yard.vehicle(vehicle), ranking.lead().suspectId()));
    }

    @Test
    void singleFaults() {
        int first = 0;
        int three = 0;
        int wrong = 0;
        List<Integer> checks = new ArrayList<>();
        double minutes = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            StandInVehicle v = yard.built(id);
            Robot robot = new Robot(v, random);
            Breaker breaker = new Breaker(v);
            List<Part.Failure> electrical = new ArrayList<>(breaker.inCircuits());
            electrical.addAll(breaker.inPlant());
            Breaker.Broken broken = breaker.breakSomething(electrical, random, false);
            List<Evidence> told = new ArrayList<>(robot.told(broken));
            // each job begins with a sweep
            told.add(robot.listened());
            Robot.Ended ended = robot.follow(yard.reasoners(id), told);
            Set<String> right = yard.vehicle(id).wiring().alike(broken.part());
            List<Standing> standings = ended.ranking().standings();
            boolean hit = isIn(id, ended.ranking(), right);
            first += hit ? 1 : 0;
            three +=
                    standings.stream()
                                    .limit(3)
                                    .anyMatch(
                                            s ->
                                                    right.contains(
                                                            Robot.part(
                                                                    yard.vehicle(id),
                                                                    s.suspectId())))
                            ? 1
                            : 0;
            wrong += !hit && ended.ranking().accused().isPresent() ? 1 : 0;
            CALIBRATION.said(World.LISTED, ended, r -> isIn(id, r, right));
            checks.add(ended.checks());
            minutes += ended.minutes();
            if (!hit) {
                System.out.printf(
                        "truth: missed %s, %s: %s%n",
                        id, broken.truth(), ended.ranking().sentence());
            }
        }
        checks.sort(null);
        double n = runs;
        Yard.line(
                "truth", "single faults, cause first", first / n, "at least 0.9", first >= 0.9 * n);
        Yard.line(
                "truth",
                "single faults, among three",
                three / n,
                "at least 0.98",
                three >= 0.98 * n);
        Yard.line(
                "truth",
                "single faults, accused wrongly at 0.8 or more",
                wrong / n,
                "at most 0.03",
                wrong <= 0.03 * n);
        int median = checks.get(runs / 2);
        Yard.line("truth", "single faults, median of checks", median, "at most 8", median <= 8);
        System.out.printf(
                Locale.ROOT, "bench: truth single faults, mean minutes: %.1f%n", minutes / n);
        assertThat(checks).hasSize(runs);
    }

    /** What is broken on the buses: named by the element, after a sweep. */
    @Test
    void networkFaults() {
        int first = 0;
        int wrong = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            StandInVehicle v = yard.built(id);
            Breaker breaker = new Breaker(v);
            if (breaker.onNetwork().isEmpty()) {
                continue;
            }
            Breaker.Broken broken = breaker.breakSomething(breaker.onNetwork(), random, false);
            Robot robot = new Robot(v, random);
            List<Evidence> told = new ArrayList<>(robot.told(broken));
            told.add(robot.listened());
            Robot.Ended ended = robot.follow(yard.reasoners(id), told);
            String right = NetworkSuspects.PREFIX + broken.part();
            boolean hit = leads(ended.ranking(), right);
            CALIBRATION.said(World.LISTED, ended, r -> leads(r, right));
            first += hit ? 1 : 0;
            wrong += !hit && ended.ranking().accused().isPresent() ? 1 : 0;
            if (!hit) {
                System.out.printf(
                        "truth: missed %s, %s (%s): %s%n",
                        id, broken.truth(), broken.part(), ended.ranking().sentence());
            }
        }
        double n = runs;
        Yard.line(
                "truth",
                "network faults, cause first",
                first / n,
                "at least 0.9",
                first >= 0.9 * n);
        Yard.line(
                "truth",
                "network faults, accused wrongly",
                wrong / n,
                "at most 0.03",
                wrong <= 0.03 * n);
    }

    /** What is not electrical: named by the repair that mends it. */
    @Test
    void mechanicalFaults() {
        mechanical("mechanical faults", yard::reasoners, CALIBRATION);
    }

    /** The same by tables whose every figure is off. */
    @Test
    void mechanicalFaultsByDisturbedTables() {
        DisturbedTables disturbed = new DisturbedTables(random);
        Calibration calibration = new Calibration();
        mechanical("by disturbed tables", id -> disturbed.reasoners(yard.vehicle(id)), calibration);
        calibration.print("calibration by disturbed tables", 0.05);
    }

    private void mechanical(
            String what, Function<String, Reasoners> reasoners, Calibration calibration) {
        int first = 0;
        int wrong = 0;
        double checks = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            VehicleDescription d = yard.vehicle(id);
            StandInVehicle v = yard.built(id);
            Breaker breaker = new Breaker(v);
            Breaker.Broken broken = breaker.breakSomething(breaker.mechanical(), random, false);
            Robot robot = new Robot(v, random);
            Robot.Ended ended = robot.follow(reasoners.apply(id), robot.told(broken));
            String right = v.simulation().damage().failing(broken.part()).repair();
            Predicate<Ranking> mends =
                    r ->
                            d.suspect(r.lead().suspectId())
                                    .filter(s -> s.repair().id().equals(right))
                                    .isPresent();
            boolean hit = mends.test(ended.ranking());
            calibration.said(World.LISTED, ended, mends);
            first += hit ? 1 : 0;
            wrong += !hit && ended.ranking().accused().isPresent() ? 1 : 0;
            checks += ended.checks();
            if (!hit) {
                System.out.printf(
                        "truth: missed %s, %s, %s %s: %s%n",
                        id,
                        broken.truth(),
                        broken.symptoms(),
                        ended.found().stream()
                                .filter(e -> !(e instanceof Evidence.CodeSeen c && !c.present()))
                                .toList(),
                        ended.ranking().sentence());
            }
        }
        double n = runs;
        Yard.line("truth", what + ", cause first", first / n, "at least 0.9", first >= 0.9 * n);
        Yard.line(
                "truth", what + ", accused wrongly", wrong / n, "at most 0.03", wrong <= 0.03 * n);
        System.out.printf(Locale.ROOT, "bench: truth %s, checks: %.1f%n", what, checks / n);
        assertThat(first).isPositive();
    }

    /** A healthy vehicle is right when that leads, an unlisted cause when something else does. */
    @AfterAll
    static void calibration() {
        CALIBRATION.print("calibration over all of it", 0.03);
    }

    @Test
    void healthyVehiclesOfWhichSomethingIsTold() {
        int accused = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            StandInVehicle v = yard.built(id);
            Robot robot = new Robot(v, random);
            Robot.Ended ended = robot.follow(yard.reasoners(id), List.of(complaint(id)));
            accused += ended.ranking().accused().isPresent() ? 1 : 0;
            if (!leads(ended.ranking(), Hypothesis.NOTHING)) {
                System.out.printf(
                        "truth: healthy %s, %s: %s%n",
                        id, ended.found(), ended.ranking().sentence());
            }
            CALIBRATION.said(World.HEALTHY, ended, r -> leads(r, Hypothesis.NOTHING));
        }
        Yard.line(
                "truth",
                "healthy, accused",
                accused / (double) runs,
                "at most 0.005",
                accused <= 0.005 * runs);
        assertThat(accused).isLessThan(runs);
    }

    /** People complain of a vehicle that is well of the same as of one that is not. */
    private Evidence complaint(String id) {
        while (true) {
            StandInVehicle other = yard.built(id);
            Breaker breaker = new Breaker(other);
            Breaker.Broken broken = breaker.breakSomething(breaker.inCircuits(), random, false);
            other.whole();
            if (!broken.symptoms().isEmpty()) {
                return new Evidence.SymptomTold(broken.symptoms().get(0));
            }
        }
    }

    /** A kind of part is withheld from the reasoning: what it does not know it must not accuse. */
    @Test
    void unlistedCauses() {
        int accused = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            StandInVehicle v = yard.built(id);
            Robot robot = new Robot(v, random);
            Breaker.Broken broken =
                    new Breaker(v).breakSomething(new Breaker(v).inCircuits(), random, false);
            VehicleDescription d = yard.vehicle(id);
            Set<String> hidden = d.wiring().alike(broken.part());
            VehicleDescription without =
                    d.withOnly(
                            d.suspects().stream()
                                    .filter(s -> !hidden.contains(Robot.part(d, s.id())))
                                    .toList(),
                            d.checks());
            Robot.Ended ended = robot.follow(new Reasoners(without), robot.told(broken));
            boolean named = ended.ranking().accused().isPresent();
            CALIBRATION.said(World.UNLISTED, ended, r -> leads(r, Hypothesis.SOMETHING_ELSE));
            accused += named ? 1 : 0;
            if (named) {
                System.out.printf(
                        "truth: unlisted %s, %s: %s%n",
                        id, broken.truth(), ended.ranking().sentence());
            }
        }
        Yard.line(
                "truth",
                "unlisted, a listed suspect accused",
                accused / (double) runs,
                "at most 0.05",
                accused <= 0.05 * runs);
        assertThat(accused).isLessThan(runs);
    }

    /** The first that is named is mended; what is left is looked for without beginning anew. */
    @Test
    void twoFaults() {
        int both = 0;
        int wrong = 0;
        double checks = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            VehicleDescription d = yard.vehicle(id);
            StandInVehicle v = yard.built(id);
            Robot robot = new Robot(v, random);
            Breaker.Broken one =
                    new Breaker(v).breakSomething(new Breaker(v).inCircuits(), random, false);
            Breaker.Broken other =
                    new Breaker(v).breakSomething(new Breaker(v).inCircuits(), random, true);
            Set<String> left = new HashSet<>(Set.of(one.part(), other.part()));
            List<Evidence> found = new ArrayList<>(robot.told(one));
            robot.told(other).stream().filter(e -> !found.contains(e)).forEach(found::add);
            Robot.Ended ended = null;
            for (int repair = 0; repair < MOST_REPAIRS && !left.isEmpty(); repair++) {
                ended = robot.follow(yard.reasoners(id), found);
                checks += ended.checks();
                Standing named = ended.ranking().lead();
                // what leads when no check is left is mended on trial
                if (!named.isDescribed() || ended.ranking().sureness() < Ranking.POINTED_AT) {
                    break;
                }
                Set<String> places = d.wiring().alike(Robot.part(d, named.suspectId()));
                Set<String> still = left.stream().collect(Collectors.toSet());
                CALIBRATION.said(
                        World.PAIRS,
                        ended,
                        r ->
                                d.wiring().alike(Robot.part(d, r.lead().suspectId())).stream()
                                        .anyMatch(still::contains));
                boolean hit = left.removeIf(places::contains);
                wrong += hit ? 0 : 1;
                robot.mended(places);
                found.clear();
                found.addAll(ended.found());
                found.add(new Evidence.RepairFailed(named.suspectId()));
                ended.found().forEach(e -> robot.again(e).ifPresent(found::add));
                found.addAll(robot.swept());
            }
            both += left.isEmpty() ? 1 : 0;
            if (!left.isEmpty()) {
                System.out.printf(
                        "truth: two faults, left %s of %s, %s and %s: %s%n",
                        left, id, one.truth(), other.truth(), ended.ranking().sentence());
            }
        }
        Yard.line(
                "truth",
                "two faults, both named",
                both / (double) runs,
                "at least 0.8",
                both >= 0.8 * runs);
        System.out.printf(
                Locale.ROOT,
                "bench: truth two faults, repairs in vain: %.2f, checks on the mean: %.1f%n",
                wrong / (double) runs,
                checks / runs);
        assertThat(both).isPositive();
    }
}
