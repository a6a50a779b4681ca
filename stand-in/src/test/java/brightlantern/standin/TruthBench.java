package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.reason.CircuitSuspects;
import brightlantern.core.reason.Hypothesis;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.reason.Standing;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/**
 * How true the program's word is: faults drawn by the rates in the circuits of all stand-ins, and a
 * robot that does at the vehicle what the program proposes. {@code -Dseed=N -Druns=N}; a line a
 * figure.
 */
class TruthBench {
    private static final int MOST_REPAIRS = 3;
    private static final int BINS = 10;

    private final Random random = new Random(Long.getLong("seed", 1));
    private final int runs = Integer.getInteger("runs", 120);
    private final Yard yard = new Yard(random);

    /** Of all worlds: sureness of what leads at the end → whether it was right. */
    private static final List<double[]> SAID = new ArrayList<>();

    private static void said(Ranking ranking, boolean right) {
        SAID.add(new double[] {ranking.sureness(), right ? 1 : 0});
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
            Robot.Ended ended = robot.follow(yard.reasoners(id), robot.told(broken));
            Set<String> right = yard.vehicle(id).wiring().alike(broken.part());
            List<Standing> standings = ended.ranking().standings();
            Standing leads = standings.get(0);
            boolean hit = right.contains(Robot.part(yard.vehicle(id), leads.suspectId()));
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
            said(ended.ranking(), hit);
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
            String named = ended.ranking().lead().suspectId();
            boolean hit = named.equals(NetworkSuspects.PREFIX + broken.part());
            said(ended.ranking(), hit);
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
            Robot.Ended ended = robot.follow(yard.reasoners(id), robot.told(broken));
            String named =
                    d.suspect(ended.ranking().lead().suspectId())
                            .map(s -> s.repair().id())
                            .orElse("");
            String right = v.simulation().damage().failing(broken.part()).repair();
            boolean hit = named.equals(right);
            said(ended.ranking(), hit);
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
        Yard.line(
                "truth",
                "mechanical faults, cause first",
                first / n,
                "at least 0.9",
                first >= 0.9 * n);
        Yard.line(
                "truth",
                "mechanical faults, accused wrongly",
                wrong / n,
                "at most 0.03",
                wrong <= 0.03 * n);
        System.out.printf(
                Locale.ROOT, "bench: truth mechanical faults, checks: %.1f%n", checks / n);
        assertThat(first).isPositive();
    }

    /**
     * Expected calibration error over all worlds: by tenths, how far what was said lies from what
     * was so. A healthy vehicle is right when that leads, an unlisted cause when something else
     * does.
     */
    @AfterAll
    static void calibration() {
        double error = 0;
        for (int b = 0; b < BINS; b++) {
            double low = b / (double) BINS;
            List<double[]> in =
                    SAID.stream()
                            .filter(
                                    s ->
                                            Math.min(BINS - 1, (int) (s[0] * BINS)) / (double) BINS
                                                    == low)
                            .toList();
            if (!in.isEmpty()) {
                double claimed = in.stream().mapToDouble(s -> s[0]).average().orElse(0);
                double was = in.stream().mapToDouble(s -> s[1]).average().orElse(0);
                System.out.printf(
                        Locale.ROOT,
                        "truth: of %d that were called %.2f sure %.2f were right%n",
                        in.size(),
                        claimed,
                        was);
                error += in.size() * Math.abs(claimed - was) / SAID.size();
            }
        }
        Yard.line(
                "truth",
                "calibration over all of it, expected error",
                error,
                "at most 0.03",
                error <= 0.03);
    }

    @Test
    void healthyVehiclesOfWhichSomethingIsTold() {
        int accused = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            StandInVehicle v = yard.built(id);
            Robot robot = new Robot(v, random);
            List<Gauge> told =
                    yard.vehicle(id).circuits().stream()
                            .flatMap(c -> c.gauges().stream())
                            .filter(Gauge::told)
                            .toList();
            String gauge = told.get(random.nextInt(told.size())).id();
            Robot.Ended ended =
                    robot.follow(
                            yard.reasoners(id),
                            List.of(new Evidence.SymptomTold(CircuitSuspects.PREFIX + gauge)));
            accused += ended.ranking().accused().isPresent() ? 1 : 0;
            said(ended.ranking(), ended.ranking().lead().suspectId().equals(Hypothesis.NOTHING));
        }
        Yard.line(
                "truth",
                "healthy, accused",
                accused / (double) runs,
                "at most 0.005",
                accused <= 0.005 * runs);
        assertThat(accused).isLessThan(runs);
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
            said(
                    ended.ranking(),
                    ended.ranking().lead().suspectId().equals(Hypothesis.SOMETHING_ELSE));
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
                boolean hit = left.removeIf(places::contains);
                said(ended.ranking(), hit);
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
