package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.code.Dtc;
import brightlantern.core.reason.CircuitSuspects;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.NextStep;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoner;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.reason.Standing;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Circuits;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * How true the program's word is: faults drawn by the rates in the circuits of all stand-ins, and a
 * robot that does at the vehicle what the program proposes. {@code -Dseed=N -Druns=N}; a line a
 * figure.
 */
class TruthBench {
    private static final int MOST_CHECKS = 16;
    private static final int MOST_REPAIRS = 3;
    private static final double METER_NOISE = 0.004;
    private static final int BINS = 10;

    /** Of so many vehicles one is built anew. */
    private static final int NEW_ONE = 8;

    private final Random random = new Random(Long.getLong("seed", 1));
    private final int runs = Integer.getInteger("runs", 120);
    private final Map<String, VehicleDescription> vehicles = new HashMap<>();
    private final Map<String, Reasoners> reasoners = new HashMap<>();
    private final Map<String, StandInVehicle> yard = new HashMap<>();

    /** Sureness of the leading suspect at the end → whether it was right. */
    private final List<double[]> said = new ArrayList<>();

    private TruthBench() throws IOException {
        for (VehicleDescription d : Shipped.library().descriptions()) {
            vehicles.put(d.id(), CircuitSuspects.added(d));
            reasoners.put(d.id(), new Reasoners(vehicles.get(d.id())));
        }
    }

    private record Ended(Ranking ranking, int checks, double minutes, List<Evidence> found) {
        /** Part of the circuits that is named. */
        String named(VehicleDescription d) {
            return ranking.accused().map(a -> part(d, a.suspectId())).orElse("");
        }
    }

    /**
     * Does at the vehicle what the program proposes, until it is sure or has nothing to propose.
     */
    private Ended follow(StandInVehicle v, Reasoners reasoners, List<Evidence> told) {
        List<Evidence> found = new ArrayList<>(told);
        Set<String> impossible = new HashSet<>();
        int checks = 0;
        double minutes = 0;
        while (true) {
            Reasoner reasoner = reasoners.of(found);
            Ranking ranking = reasoner.rank(found);
            List<NextCheck> possible =
                    reasoner.nextChecks(found, v.reading("body.supply")).stream()
                            .filter(c -> !impossible.contains(c.check().key()))
                            .toList();
            NextStep step =
                    NextStep.of(
                            new NextStep.Situation(
                                    true, true, true, false, ranking, found, possible),
                            v.description());
            if (!(step instanceof NextStep.DoCheck todo) || checks >= MOST_CHECKS) {
                return new Ended(ranking, checks, minutes, found);
            }
            Check check = todo.check().check();
            Optional<Evidence> evidence = done(v, check);
            if (evidence.isPresent()) {
                found.add(evidence.get());
                checks++;
                minutes += check.minutes();
            } else {
                impossible.add(check.key());
            }
        }
    }

    private Optional<Evidence> done(StandInVehicle v, Check check) {
        Circuits c = v.simulation().circuits().orElseThrow();
        VehicleDescription d = v.description();
        if (check instanceof Check.Reading r && d.circuit(r.circuit()).isPresent()) {
            Circuit circuit = d.circuit(r.circuit()).orElseThrow();
            if (circuit.gauges().isEmpty()) {
                return Optional.empty();
            }
            r.moving().forEach(m -> c.set(m, true));
            double volts =
                    c.volts(r.point()).orElseThrow() * 1.0008 + METER_NOISE * random.nextGaussian();
            r.moving().forEach(m -> c.set(m, false));
            double supply = v.reading("body.supply");
            ProbeCondition condition =
                    new ProbeCondition(Load.NOTHING, r.moving().stream().findFirst());
            return Optional.of(
                    new Evidence.Reading(
                            r.circuit(),
                            r.point(),
                            r.load(),
                            r.moving(),
                            volts,
                            supply,
                            condition
                                    .healthy(
                                            new SharedPoints(d.circuits()),
                                            circuit,
                                            r.point(),
                                            supply)
                                    .holds(volts)));
        }
        if (!(check instanceof Check.Look look)) {
            return Optional.empty();
        }
        if (look.finding().startsWith("pins-")) {
            String seen = c.pins(look.finding().substring("pins-".length()));
            String outcome = seen.startsWith("Pin ") ? seen.split(" ")[1] : "clean";
            return Optional.of(new Evidence.Outcome(look.finding(), outcome));
        }
        for (Circuit circuit : d.circuits()) {
            for (Gauge g : circuit.gauges()) {
                if (g.findingId().equals(look.finding())) {
                    return Optional.of(new Evidence.Outcome(look.finding(), shown(v, g)));
                }
            }
        }
        return Optional.empty();
    }

    private static String shown(StandInVehicle v, Gauge g) {
        Circuits c = v.simulation().circuits().orElseThrow();
        if (g.isToldByValue()) {
            return g.told(v.description().value(g.value()).orElseThrow(), v.reading(g.value()))
                    .id();
        }
        if (!g.under().isEmpty()) {
            c.set(g.under(), true);
        }
        String state =
                c.seen().stream()
                        .filter(s -> s.name().equals(g.name()))
                        .map(Circuits.Seen::state)
                        .findFirst()
                        .orElseThrow();
        if (!g.under().isEmpty()) {
            c.set(g.under(), false);
        }
        return g.bands().stream()
                .filter(b -> b.name().equals(state))
                .findFirst()
                .orElseThrow()
                .id();
    }

    /** What is told and stored before anybody looks. */
    private static List<Evidence> told(StandInVehicle v, Breaker.Broken broken) {
        List<Evidence> all = new ArrayList<>();
        broken.symptoms()
                .forEach(g -> all.add(new Evidence.SymptomTold(CircuitSuspects.PREFIX + g)));
        v.description().circuits().stream()
                .flatMap(c -> c.gauges().stream())
                .forEach(
                        g ->
                                g.bands().stream()
                                        .filter(b -> !b.code().isEmpty())
                                        .filter(
                                                b ->
                                                        v.module(g.module())
                                                                .memory()
                                                                .failed(
                                                                        Dtc.parse(b.code())
                                                                                .number()))
                                        .forEach(
                                                b ->
                                                        all.add(
                                                                new Evidence.CodeSeen(
                                                                        b.code(), true))));
        return all;
    }

    private static String part(VehicleDescription d, String suspectId) {
        return d.suspect(suspectId).flatMap(Suspect::effect).orElse(null) instanceof Effect.Series e
                ? e.of()
                : "";
    }

    private String drawnVehicle() {
        List<String> ids = vehicles.keySet().stream().sorted().toList();
        return ids.get(random.nextInt(ids.size()));
    }

    /** A vehicle as built; now and then another one of its kind, with a scatter of its own. */
    private StandInVehicle built(String id) {
        if (!yard.containsKey(id) || random.nextInt(NEW_ONE) == 0) {
            yard.put(
                    id,
                    StandIns.of(
                            vehicles.get(id), StandIns.AS_BUILT, 100 + random.nextInt(800_000)));
        }
        StandInVehicle v = yard.get(id);
        v.whole();
        return v;
    }

    private static void line(String what, double value, String wanted, boolean meets) {
        System.out.printf(
                Locale.ROOT,
                "bench: truth %s: %.3g (wanted %s) %s%n",
                what,
                value,
                wanted,
                meets ? "meets" : "misses");
    }

    @Test
    void singleFaults() {
        int first = 0;
        int three = 0;
        int wrong = 0;
        List<Integer> checks = new ArrayList<>();
        double minutes = 0;
        for (int i = 0; i < runs; i++) {
            String id = drawnVehicle();
            StandInVehicle v = built(id);
            Breaker.Broken broken = new Breaker(v).breakSomething(random, false);
            Ended ended = follow(v, reasoners.get(id), told(v, broken));
            Set<String> right = vehicles.get(id).wiring().alike(broken.part());
            List<Standing> standings = ended.ranking().standings();
            Standing leads = standings.get(0);
            boolean hit = right.contains(part(vehicles.get(id), leads.suspectId()));
            first += hit ? 1 : 0;
            three +=
                    standings.stream()
                                    .limit(3)
                                    .anyMatch(
                                            s ->
                                                    right.contains(
                                                            part(vehicles.get(id), s.suspectId())))
                            ? 1
                            : 0;
            wrong += !hit && ended.ranking().accused().isPresent() ? 1 : 0;
            said.add(new double[] {ended.ranking().sureness(), hit ? 1 : 0});
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
        line("single faults, cause first", first / n, "at least 0.9", first >= 0.9 * n);
        line("single faults, among three", three / n, "at least 0.98", three >= 0.98 * n);
        line(
                "single faults, accused wrongly at 0.8 or more",
                wrong / n,
                "at most 0.03",
                wrong <= 0.03 * n);
        int median = checks.get(runs / 2);
        line("single faults, median of checks", median, "at most 8", median <= 8);
        System.out.printf(
                Locale.ROOT, "bench: truth single faults, mean minutes: %.1f%n", minutes / n);
        double error = calibration();
        line("calibration, expected error", error, "at most 0.03", error <= 0.03);
        assertThat(checks).hasSize(runs);
    }

    /** Expected calibration error: by tenths, how far what was said lies from what was so. */
    private double calibration() {
        double error = 0;
        for (int b = 0; b < BINS; b++) {
            double low = b / (double) BINS;
            List<double[]> in =
                    said.stream()
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
                error += in.size() * Math.abs(claimed - was) / said.size();
            }
        }
        return error;
    }

    @Test
    void healthyVehiclesOfWhichSomethingIsTold() {
        int accused = 0;
        for (int i = 0; i < runs; i++) {
            String id = drawnVehicle();
            StandInVehicle v = built(id);
            List<Gauge> told =
                    vehicles.get(id).circuits().stream()
                            .flatMap(c -> c.gauges().stream())
                            .filter(Gauge::told)
                            .toList();
            String gauge = told.get(random.nextInt(told.size())).id();
            Ended ended =
                    follow(
                            v,
                            reasoners.get(id),
                            List.of(new Evidence.SymptomTold(CircuitSuspects.PREFIX + gauge)));
            accused += ended.ranking().accused().isPresent() ? 1 : 0;
        }
        line("healthy, accused", accused / (double) runs, "at most 0.005", accused <= 0.005 * runs);
        assertThat(accused).isLessThan(runs);
    }

    /** A kind of part is withheld from the reasoning: what it does not know it must not accuse. */
    @Test
    void unlistedCauses() {
        int accused = 0;
        for (int i = 0; i < runs; i++) {
            String id = drawnVehicle();
            StandInVehicle v = built(id);
            Breaker.Broken broken = new Breaker(v).breakSomething(random, false);
            VehicleDescription d = vehicles.get(id);
            Set<String> hidden = d.wiring().alike(broken.part());
            VehicleDescription without =
                    d.withOnly(
                            d.suspects().stream()
                                    .filter(s -> !hidden.contains(part(d, s.id())))
                                    .toList(),
                            d.checks());
            Ended ended = follow(v, new Reasoners(without), told(v, broken));
            boolean named = ended.ranking().accused().isPresent();
            accused += named ? 1 : 0;
            if (named) {
                System.out.printf(
                        "truth: unlisted %s, %s: %s%n",
                        id, broken.truth(), ended.ranking().sentence());
            }
        }
        line(
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
            String id = drawnVehicle();
            VehicleDescription d = vehicles.get(id);
            StandInVehicle v = built(id);
            Breaker.Broken one = new Breaker(v).breakSomething(random, false);
            Breaker.Broken other = new Breaker(v).breakSomething(random, true);
            Set<String> left = new HashSet<>(Set.of(one.part(), other.part()));
            List<Evidence> found = new ArrayList<>(told(v, one));
            told(v, other).stream().filter(e -> !found.contains(e)).forEach(found::add);
            Ended ended = null;
            for (int repair = 0; repair < MOST_REPAIRS && !left.isEmpty(); repair++) {
                ended = follow(v, reasoners.get(id), found);
                checks += ended.checks();
                Standing named = ended.ranking().lead();
                // what leads when no check is left is mended on trial
                if (!named.isDescribed() || ended.ranking().sureness() < Ranking.POINTED_AT) {
                    break;
                }
                Set<String> places = d.wiring().alike(part(d, named.suspectId()));
                boolean hit = left.removeIf(places::contains);
                wrong += hit ? 0 : 1;
                mended(v, places);
                found.clear();
                found.addAll(ended.found());
                found.add(new Evidence.RepairFailed(named.suspectId()));
                ended.found().forEach(e -> again(v, e).ifPresent(found::add));
                found.addAll(swept(v));
            }
            both += left.isEmpty() ? 1 : 0;
            if (!left.isEmpty()) {
                System.out.printf(
                        "truth: two faults, left %s of %s, %s and %s: %s%n",
                        left, id, one.truth(), other.truth(), ended.ranking().sentence());
            }
        }
        line("two faults, both named", both / (double) runs, "at least 0.8", both >= 0.8 * runs);
        System.out.printf(
                Locale.ROOT,
                "bench: truth two faults, repairs in vain: %.2f, checks on the mean: %.1f%n",
                wrong / (double) runs,
                checks / runs);
        assertThat(both).isPositive();
    }

    /** What was not well is looked at once more, as a proof asks for. */
    private Optional<Evidence> again(StandInVehicle v, Evidence before) {
        boolean mayFail = before.passed().map(p -> !p).orElse(before instanceof Evidence.Outcome);
        return v.description().checks().stream()
                .filter(c -> mayFail && c.key().equals(before.key()))
                .findFirst()
                .flatMap(c -> done(v, c));
    }

    private static void mended(StandInVehicle v, Set<String> places) {
        Circuits c = v.simulation().circuits().orElseThrow();
        places.forEach(c::mend);
    }

    /** What a sweep tells after a clear and everything used once. */
    private static List<Evidence> swept(StandInVehicle v) {
        Circuits c = v.simulation().circuits().orElseThrow();
        List<Evidence> all = new ArrayList<>();
        List<Gauge> wrong = c.used(v::report);
        for (Circuit circuit : v.description().circuits()) {
            for (Gauge g : circuit.gauges()) {
                g.bands().stream()
                        .filter(b -> !b.code().isEmpty() && !wrong.contains(g))
                        .forEach(b -> all.add(new Evidence.CodeSeen(b.code(), false)));
            }
        }
        return all;
    }
}
