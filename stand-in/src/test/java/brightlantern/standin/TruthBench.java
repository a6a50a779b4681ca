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
import brightlantern.standin.Runs.Run;
import brightlantern.standin.plant.Part;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.ToDoubleFunction;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/**
 * How true the program's word is: faults drawn by the rates in the circuits of all stand-ins, and a
 * robot that does at the vehicle what the program proposes. {@code -Dseed=N -Druns=N}, of single
 * faults; of the other worlds their share of it. A line a figure.
 */
class TruthBench {
    private static final int MOST_REPAIRS = 3;

    /** Of all worlds. */
    private static final Calibration CALIBRATION = new Calibration();

    private final Runs runs = new Runs();
    private final int single = Integer.getInteger("runs", 120);
    private final int healthy = Math.max(1, single / 2);
    private final int others = Math.max(1, single / 3);

    /**
     * What a run came to.
     *
     * @param hit whether what leads at the end is so
     * @param near whether it is among the first three
     * @param accused whether somebody is accused
     */
    private record Came(boolean hit, boolean near, boolean accused, int checks, double minutes) {
        boolean wrong() {
            return accused && !hit;
        }
    }

    private static double share(List<Came> all, Predicate<Came> of) {
        return mean(all, c -> of.test(c) ? 1 : 0);
    }

    private static double mean(List<Came> all, ToDoubleFunction<Came> of) {
        return all.stream().mapToDouble(of).average().orElse(0);
    }

    private static boolean leads(Ranking ranking, String id) {
        return ranking.lead().suspectId().equals(id);
    }

    private static boolean isOf(VehicleDescription d, Standing standing, Set<String> parts) {
        return parts.contains(Robot.part(d, standing.suspectId()));
    }

    private Came came(
            World world, Calibration calibration, Robot.Ended ended, Predicate<Ranking> right) {
        calibration.said(world, ended, right);
        looked(ended);
        boolean hit = right.test(ended.ranking());
        return new Came(
                hit, hit, ended.ranking().accused().isPresent(), ended.checks(), ended.minutes());
    }

    /** Of a run that is looked at alone: all that was found. */
    private void looked(Robot.Ended ended) {
        if (runs.isOne()) {
            ended.found().forEach(e -> System.out.println("truth: found " + e));
            System.out.println("truth: " + ended.ranking().sentence());
        }
    }

    private static void missed(String world, Run run, String id, Object truth, Ranking ranking) {
        System.out.printf(
                "truth: %s, case %d missed, %s, %s: %s%n",
                world, run.number(), id, truth, ranking.sentence());
    }

    @Test
    void singleFaults() {
        List<Came> all = runs.of(single, this::singleFault);
        first("single faults", all);
        double three = share(all, Came::near);
        Yard.line("truth", "single faults, among three", three, "at least 0.98", three >= 0.98);
        double median = all.stream().mapToInt(Came::checks).sorted().toArray()[all.size() / 2];
        Yard.line("truth", "single faults, median of checks", median, "at most 8", median <= 8);
        System.out.printf(
                Locale.ROOT,
                "bench: truth single faults, mean minutes: %.1f%n",
                mean(all, Came::minutes));
    }

    /**
     * The same over real sockets: modules are asked by DoIP and UDS, and the meter by SCPI. A tenth
     * of the runs, one after another on one address.
     */
    @Test
    void singleFaultsOverSockets() throws IOException {
        InetAddress address = InetAddress.getByName("127.0.73.1");
        List<Came> all = new ArrayList<>();
        for (int i = 0; i < Math.max(1, single / 10); i++) {
            all.add(runs.alone(i, run -> overSockets(run, address)));
        }
        first("single faults over sockets", all);
        assertThat(all).extracting(Came::checks).anyMatch(c -> c > 0);
    }

    private Came overSockets(Run run, InetAddress address) {
        String id = run.yard().drawn(run.random());
        StandInVehicle v = run.yard().fresh(id);
        try (v) {
            v.open(address);
            try (Reach reach = new ReachOverSockets(v, address)) {
                return singleFault(run, id, v, new Robot(v, run.random(), reach));
            }
        } catch (IOException taken) {
            throw new UncheckedIOException(taken);
        }
    }

    private static void first(String world, List<Came> all) {
        double first = share(all, Came::hit);
        double wrong = share(all, Came::wrong);
        Yard.line("truth", world + ", cause first", first, "at least 0.9", first >= 0.9);
        Yard.line("truth", world + ", accused wrongly", wrong, "at most 0.03", wrong <= 0.03);
        assertThat(all).isNotEmpty();
    }

    private Came singleFault(Run run) {
        String id = run.yard().drawn(run.random());
        StandInVehicle v = run.yard().built(id);
        return singleFault(run, id, v, new Robot(v, run.random()));
    }

    private Came singleFault(Run run, String id, StandInVehicle v, Robot robot) {
        Breaker breaker = new Breaker(v);
        List<Part.Failure> electrical = new ArrayList<>(breaker.inCircuits());
        electrical.addAll(breaker.inPlant());
        Breaker.Broken broken = breaker.breakSomething(electrical, run.random(), false);
        Robot.Ended ended = robot.follow(run.yard().reasoners(id), robot.toldAndSwept(broken));
        VehicleDescription d = run.yard().vehicle(id);
        Set<String> right = d.wiring().alike(broken.part());
        Came came = came(World.LISTED, CALIBRATION, ended, r -> isOf(d, r.lead(), right));
        if (!came.hit()) {
            missed("single", run, id, broken.truth(), ended.ranking());
        }
        boolean near =
                ended.ranking().standings().stream().limit(3).anyMatch(s -> isOf(d, s, right));
        return new Came(came.hit(), near, came.accused(), came.checks(), came.minutes());
    }

    /** What is broken on the buses: named by the element, after a sweep. */
    @Test
    void networkFaults() {
        first("network faults", runs.of(others, this::networkFault));
    }

    private Came networkFault(Run run) {
        String id;
        StandInVehicle v;
        do {
            id = run.yard().drawn(run.random());
            v = run.yard().built(id);
        } while (new Breaker(v).onNetwork().isEmpty());
        Breaker breaker = new Breaker(v);
        Breaker.Broken broken = breaker.breakSomething(breaker.onNetwork(), run.random(), false);
        Robot robot = new Robot(v, run.random());
        Robot.Ended ended = robot.follow(run.yard().reasoners(id), robot.toldAndSwept(broken));
        String right = NetworkSuspects.PREFIX + broken.part();
        Came came = came(World.LISTED, CALIBRATION, ended, r -> leads(r, right));
        if (!came.hit()) {
            String truth = broken.truth() + " (" + broken.part() + ")";
            missed("network", run, id, truth, ended.ranking());
        }
        return came;
    }

    /** What is not electrical: named by the repair that mends it. */
    @Test
    void mechanicalFaults() {
        mechanical("mechanical faults", run -> run.yard()::reasoners, CALIBRATION);
    }

    /** The same by tables whose every figure is off. */
    @Test
    void mechanicalFaultsByDisturbedTables() {
        Calibration calibration = new Calibration();
        mechanical(
                "by disturbed tables",
                run -> {
                    DisturbedTables disturbed = new DisturbedTables(new Random(run.number()));
                    return id -> disturbed.reasoners(run.yard().vehicle(id));
                },
                calibration);
        calibration.print("calibration by disturbed tables", 0.05);
    }

    private void mechanical(
            String what,
            Function<Run, Function<String, Reasoners>> reasoners,
            Calibration calibration) {
        List<Came> all =
                runs.of(others, run -> mechanical(what, run, reasoners.apply(run), calibration));
        first(what, all);
        System.out.printf(
                Locale.ROOT, "bench: truth %s, checks: %.1f%n", what, mean(all, Came::checks));
    }

    private Came mechanical(
            String what, Run run, Function<String, Reasoners> reasoners, Calibration calibration) {
        String id = run.yard().drawn(run.random());
        VehicleDescription d = run.yard().vehicle(id);
        StandInVehicle v = run.yard().built(id);
        Breaker breaker = new Breaker(v);
        Breaker.Broken broken = breaker.breakSomething(breaker.mechanical(), run.random(), false);
        Robot robot = new Robot(v, run.random());
        Robot.Ended ended = robot.follow(reasoners.apply(id), robot.toldAndSwept(broken));
        String right = v.simulation().damage().failing(broken.part()).repair();
        Predicate<Ranking> mends =
                r ->
                        d.suspect(r.lead().suspectId())
                                .filter(s -> s.repair().id().equals(right))
                                .isPresent();
        Came came = came(World.LISTED, calibration, ended, mends);
        if (!came.hit()) {
            List<Evidence> spoke =
                    ended.found().stream()
                            .filter(e -> !(e instanceof Evidence.CodeSeen c && !c.present()))
                            .toList();
            missed(what, run, id, broken.truth() + " " + spoke, ended.ranking());
        }
        return came;
    }

    /** A healthy vehicle is right when that leads, an unlisted cause when something else does. */
    @AfterAll
    static void calibration() {
        CALIBRATION.print("calibration over all of it", 0.03);
    }

    @Test
    void healthyVehiclesOfWhichSomethingIsTold() {
        List<Came> all = runs.of(healthy, this::healthyVehicle);
        double accused = share(all, Came::accused);
        Yard.line("truth", "healthy, accused", accused, "at most 0.005", accused <= 0.005);
        assertThat(accused).isLessThan(1);
    }

    private Came healthyVehicle(Run run) {
        String id = run.yard().drawn(run.random());
        Evidence complaint = complaint(run, id);
        Robot robot = new Robot(run.yard().built(id), run.random());
        Robot.Ended ended =
                robot.follow(run.yard().reasoners(id), List.of(complaint, robot.listened()));
        Came came = came(World.HEALTHY, CALIBRATION, ended, r -> leads(r, Hypothesis.NOTHING));
        if (!came.hit()) {
            missed("healthy", run, id, ended.found(), ended.ranking());
        }
        return came;
    }

    /** People complain of a vehicle that is well of the same as of one that is not. */
    private static Evidence complaint(Run run, String id) {
        while (true) {
            StandInVehicle other = run.yard().built(id);
            Breaker breaker = new Breaker(other);
            Breaker.Broken broken =
                    breaker.breakSomething(breaker.inCircuits(), run.random(), false);
            other.whole();
            if (!broken.symptoms().isEmpty()) {
                return new Evidence.SymptomTold(broken.symptoms().get(0));
            }
        }
    }

    /** A kind of part is withheld from the reasoning: what it does not know it must not accuse. */
    @Test
    void unlistedCauses() {
        List<Came> all = runs.of(others, this::unlistedCause);
        double accused = share(all, Came::accused);
        Yard.line(
                "truth",
                "unlisted, a listed suspect accused",
                accused,
                "at most 0.05",
                accused <= 0.05);
        assertThat(accused).isLessThan(1);
    }

    private Came unlistedCause(Run run) {
        String id = run.yard().drawn(run.random());
        StandInVehicle v = run.yard().built(id);
        Robot robot = new Robot(v, run.random());
        Breaker breaker = new Breaker(v);
        Breaker.Broken broken = breaker.breakSomething(breaker.inCircuits(), run.random(), false);
        VehicleDescription d = run.yard().vehicle(id);
        Set<String> hidden = d.wiring().alike(broken.part());
        VehicleDescription without =
                d.withOnly(
                        d.suspects().stream()
                                .filter(s -> !hidden.contains(Robot.part(d, s.id())))
                                .toList(),
                        d.checks());
        Robot.Ended ended = robot.follow(new Reasoners(without), robot.toldAndSwept(broken));
        Came came =
                came(World.UNLISTED, CALIBRATION, ended, r -> leads(r, Hypothesis.SOMETHING_ELSE));
        if (came.accused()) {
            missed("unlisted", run, id, broken.truth(), ended.ranking());
        }
        return came;
    }

    /** The first that is named is mended; what is left is looked for without beginning anew. */
    @Test
    void twoFaults() {
        List<Pair> all = runs.of(others, this::pair);
        double both = all.stream().filter(p -> p.left() == 0).count() / (double) all.size();
        Yard.line("truth", "two faults, both named", both, "at least 0.8", both >= 0.8);
        System.out.printf(
                Locale.ROOT,
                "bench: truth two faults, repairs in vain: %.2f, checks on the mean: %.1f%n",
                all.stream().mapToInt(Pair::inVain).average().orElse(0),
                all.stream().mapToInt(Pair::checks).average().orElse(0));
        assertThat(both).isPositive();
    }

    /**
     * What two faults came to.
     *
     * @param left how many were not named
     */
    private record Pair(int left, int inVain, int checks) {}

    private Pair pair(Run run) {
        String id = run.yard().drawn(run.random());
        VehicleDescription d = run.yard().vehicle(id);
        StandInVehicle v = run.yard().built(id);
        Robot robot = new Robot(v, run.random());
        Breaker breaker = new Breaker(v);
        Breaker.Broken one = breaker.breakSomething(breaker.inCircuits(), run.random(), false);
        Breaker.Broken other = breaker.breakSomething(breaker.inCircuits(), run.random(), true);
        Set<String> left = new HashSet<>(Set.of(one.part(), other.part()));
        List<Evidence> found = new ArrayList<>(robot.told(one));
        robot.toldAndSwept(other).stream().filter(e -> !found.contains(e)).forEach(found::add);
        int checks = 0;
        int inVain = 0;
        for (int repair = 0; repair < MOST_REPAIRS && !left.isEmpty(); repair++) {
            Robot.Ended ended = robot.follow(run.yard().reasoners(id), found);
            looked(ended);
            checks += ended.checks();
            left.removeIf(robot.mendedOnTrial()::contains);
            if (left.isEmpty()) {
                break;
            }
            Standing named = ended.ranking().lead();
            // what leads when no check is left is mended on trial
            if (!named.isDescribed() || ended.ranking().sureness() < Ranking.POINTED_AT) {
                String truth = left + " of " + one.truth() + " and " + other.truth();
                missed("two faults", run, id, truth, ended.ranking());
                break;
            }
            Set<String> places = d.wiring().alike(Robot.part(d, named.suspectId()));
            Set<String> still = Set.copyOf(left);
            CALIBRATION.said(
                    World.PAIRS,
                    ended,
                    r ->
                            d.wiring().alike(Robot.part(d, r.lead().suspectId())).stream()
                                    .anyMatch(still::contains));
            inVain += left.removeIf(places::contains) ? 0 : 1;
            robot.mended(places);
            found.clear();
            found.addAll(ended.found());
            found.add(new Evidence.RepairFailed(named.suspectId()));
            ended.found().forEach(e -> robot.again(e).ifPresent(found::add));
            found.addAll(robot.swept());
        }
        return new Pair(left.size(), inVain, checks);
    }
}
