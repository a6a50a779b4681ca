package brightlantern.standin;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.NextStep;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoner;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Circuits;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * A technician who does at a stand-in what the program proposes, with a meter that is a little off.
 */
final class Robot {
    private static final int MOST_CHECKS = 16;
    private static final double METER_NOISE = 0.004;

    private final StandInVehicle v;
    private final Random random;

    Robot(StandInVehicle vehicle, Random random) {
        this.v = vehicle;
        this.random = random;
    }

    record Ended(Ranking ranking, int checks, double minutes, List<Evidence> found) {
        /** Part of the circuits that is named. */
        String named(VehicleDescription d) {
            return ranking.accused().map(a -> part(d, a.suspectId())).orElse("");
        }
    }

    /**
     * Does at the vehicle what the program proposes, until it is sure or has nothing to propose.
     */
    Ended follow(Reasoners reasoners, List<Evidence> told) {
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
            Optional<Evidence> evidence = done(check);
            if (evidence.isPresent()) {
                found.add(evidence.get());
                checks++;
                minutes += check.minutes();
            } else {
                impossible.add(check.key());
            }
        }
    }

    Optional<Evidence> done(Check check) {
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
                    return Optional.of(new Evidence.Outcome(look.finding(), shown(g)));
                }
            }
        }
        return new MechanicalChecks(v).done(look.finding());
    }

    private String shown(Gauge g) {
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
    List<Evidence> told(Breaker.Broken broken) {
        List<Evidence> all = new ArrayList<>();
        broken.symptoms().forEach(g -> all.add(new Evidence.SymptomTold(g)));
        Set<Integer> stored = v.stored();
        Set<String> spoken =
                Reasoners.written(v.description()).stream()
                        .flatMap(k -> k.codes().keySet().stream())
                        .collect(Collectors.toSet());
        v.description().codes().stream()
                .map(Code::code)
                .distinct()
                .forEach(
                        c -> {
                            boolean there = stored.contains(Dtc.parse(c).number());
                            if (there || spoken.contains(c)) {
                                all.add(new Evidence.CodeSeen(c, there));
                            }
                        });
        return all;
    }

    static String part(VehicleDescription d, String suspectId) {
        return d.suspect(suspectId).flatMap(Suspect::effect).flatMap(Effect::part).orElse("");
    }

    /** What was not well is looked at once more, as a proof asks for. */
    Optional<Evidence> again(Evidence before) {
        boolean mayFail = before.passed().map(p -> !p).orElse(before instanceof Evidence.Outcome);
        return v.description().checks().stream()
                .filter(c -> mayFail && c.key().equals(before.key()))
                .findFirst()
                .flatMap(c -> done(c));
    }

    void mended(Set<String> places) {
        Circuits c = v.simulation().circuits().orElseThrow();
        places.forEach(c::mend);
    }

    /** What a sweep tells after a clear and everything used once. */
    List<Evidence> swept() {
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
