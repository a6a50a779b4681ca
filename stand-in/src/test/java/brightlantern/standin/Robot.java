package brightlantern.standin;

import brightlantern.core.capture.bus.BusStudy;
import brightlantern.core.circuit.Characteristic;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.RollCall;
import brightlantern.core.reason.MeterFinding;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.NextStep;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoner;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.signal.Value;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EverydayUse;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * A technician who does at a stand-in what the program proposes, with a meter that is a little off.
 */
final class Robot {
    private static final int MOST_CHECKS = 16;

    /** An instrument of one's own is off by so much, as a share of what it reads. */
    private static final double OWN_SHARE = 0.015;

    private static final double ENGINE_STOPS_SECONDS = 1;

    private static final double OHM_NOISE = 0.01;

    /** A sweep asks each module so often, a roll call so often. */
    private static final int SWEPT = 2;

    private static final int CALLED = 40;

    private final StandInVehicle v;
    private final Random random;
    private final Reach reach;
    private final Set<String> mendedOnTrial = new HashSet<>();

    Robot(StandInVehicle vehicle, Random random) {
        this(vehicle, random, Reach.within(vehicle, random));
    }

    Robot(StandInVehicle vehicle, Random random, Reach reach) {
        this.v = vehicle;
        this.random = random;
        this.reach = reach;
    }

    /**
     * @param way what was known before each check
     */
    record Ended(
            Ranking ranking, int checks, double minutes, List<Evidence> found, List<Ranking> way) {
        /** Part of the circuits that is named. */
        String named(VehicleDescription d) {
            return ranking.accused().map(a -> part(d, a.suspectId())).orElse("");
        }
    }

    /**
     * Does at the vehicle what the program proposes, until it is sure or has nothing to propose.
     */
    Ended follow(Reasoners reasoners, List<Evidence> told) {
        return follow(reasoners, told, UnaryOperator.identity());
    }

    /**
     * Does checks of the program until it is sure or has none.
     *
     * @param order in which they are done, of those that it has
     */
    Ended follow(Reasoners reasoners, List<Evidence> told, UnaryOperator<List<NextCheck>> order) {
        List<Evidence> found = new ArrayList<>(told);
        Set<String> impossible = new HashSet<>();
        List<Ranking> way = new ArrayList<>();
        int checks = 0;
        double minutes = 0;
        while (true) {
            Reasoner reasoner = reasoners.of(found);
            Ranking ranking = reasoner.rank(found);
            List<NextCheck> possible =
                    reasoner.nextChecks(found, supply()).stream()
                            .filter(c -> !impossible.contains(c.check().key()))
                            .toList();
            NextStep step =
                    NextStep.of(
                            new NextStep.Situation(
                                    true,
                                    true,
                                    true,
                                    List.of(),
                                    false,
                                    ranking,
                                    found,
                                    order.apply(possible)),
                            v.description());
            if (step instanceof NextStep.Trial trial && checks < MOST_CHECKS) {
                Optional<List<Evidence>> after = tried(trial.cause().suspectId(), found);
                if (after.isPresent()) {
                    minutes += trialMinutes(trial.cause().suspectId());
                    found.addAll(after.get());
                    checks++;
                    way.add(ranking);
                    continue;
                }
            }
            if (!(step instanceof NextStep.DoCheck todo) || checks >= MOST_CHECKS) {
                return new Ended(ranking, checks, minutes, found, way);
            }
            Check check = todo.check().check();
            Optional<Evidence> evidence = done(check);
            if (evidence.isPresent()) {
                found.add(evidence.get());
                way.add(ranking);
                checks++;
                minutes += check.minutes();
            } else {
                impossible.add(check.key());
            }
        }
    }

    /**
     * Mends on trial what leads, and looks once more at what was not well.
     *
     * @return what is known then; empty where all is well
     */
    private Optional<List<Evidence>> tried(String suspectId, List<Evidence> found) {
        VehicleDescription d = v.description();
        Set<String> places = d.wiring().alike(part(d, suspectId));
        mended(places);
        mendedOnTrial.addAll(places);
        v.repair(d.suspect(suspectId).orElseThrow().repair().id());
        List<Evidence> again = new ArrayList<>();
        found.forEach(e -> again(e).ifPresent(again::add));
        if (again.stream().noneMatch(e -> found.contains(e) && isBad(e))) {
            return Optional.empty();
        }
        again.add(0, new Evidence.RepairFailed(suspectId));
        return Optional.of(again);
    }

    /** Parts that it has mended because to try was cheaper than to look. */
    Set<String> mendedOnTrial() {
        return Set.copyOf(mendedOnTrial);
    }

    private boolean isBad(Evidence e) {
        return e instanceof Evidence.Outcome o
                && v.description()
                        .finding(o.findingId())
                        .flatMap(f -> f.known(o.outcomeId()))
                        .filter(its -> its.healthy() < 0.5)
                        .isPresent();
    }

    private double trialMinutes(String suspectId) {
        return v.description().suspect(suspectId).orElseThrow().repair().minutes()
                + NextStep.MINUTES_OF_A_TRIAL;
    }

    Optional<Evidence> done(Check check) {
        Circuits c = v.simulation().circuits().orElseThrow();
        VehicleDescription d = v.description();
        if (check instanceof Check.Reading r && d.circuit(r.circuit()).isPresent()) {
            Circuit circuit = d.circuit(r.circuit()).orElseThrow();
            if (circuit.gauges().isEmpty()) {
                return Optional.of(new MovedActuators(v).reading(r));
            }
            r.moving().forEach(m -> c.set(m, true));
            double volts = reach.volts(r.point());
            Map<String, Double> told =
                    Sensed.valueAt(circuit, r.point())
                            .map(id -> Map.of(id, reach.value(id)))
                            .orElse(Map.of());
            r.moving().forEach(m -> c.set(m, false));
            double supply = supply();
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
                                            supply,
                                            Sensed.at(circuit, r.point(), d::value, told))
                                    .holds(volts),
                            told));
        }
        if (check instanceof Check.Run run) {
            return new MovedActuators(v).run(run);
        }
        if (check instanceof Check.Listen listen) {
            return Optional.of(heard(listen.at().isEmpty() ? SWEPT : CALLED));
        }
        if (check instanceof Check.BusCapture capture) {
            return Optional.of(wiresOf(capture.bus()));
        }
        if (!(check instanceof Check.Look look)) {
            return Optional.empty();
        }
        if (look.finding().startsWith("pins-")) {
            String seen = c.hands().pins(look.finding().substring("pins-".length()));
            String outcome = seen.startsWith("Pin ") ? seen.split(" ")[1] : "clean";
            return Optional.of(new Evidence.Outcome(look.finding(), outcome));
        }
        if (look.finding().startsWith("move-")) {
            boolean jumps = c.hands().jumps(look.finding().substring("move-".length()));
            return Optional.of(new Evidence.Outcome(look.finding(), jumps ? "jumps" : "steady"));
        }
        if (look.finding().startsWith("along-")) {
            String wire = look.finding().substring("along-".length());
            return Optional.of(new Evidence.Outcome(look.finding(), c.hands().along(wire).id()));
        }
        if (look.finding().startsWith("behind-")) {
            return Optional.of(
                    new Evidence.Outcome(
                            look.finding(),
                            c.hands().behind(look.finding().substring("behind-".length())).id()));
        }
        if (look.finding().startsWith("wires-")) {
            double ohm =
                    v.tools().ohms(look.finding().substring("wires-".length()))
                            * (1 + OHM_NOISE * random.nextGaussian());
            MeterFinding typed = MeterFinding.of(d, look.finding()).orElseThrow();
            String read = typed.read("meter", String.format(Locale.ROOT, "%.1f", ohm)).id();
            return Optional.of(new Evidence.Outcome(look.finding(), read));
        }
        if (look.finding().startsWith("pulled-")) {
            String bus = look.finding().substring("pulled-".length());
            return Optional.of(
                    new Evidence.Outcome(
                            look.finding(), v.tools().broughtBack(bus).orElse("none")));
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

    /** What a sweep lets one hear of the network. */
    Evidence listened() {
        return heard(SWEPT);
    }

    /** All fitted modules are called so often, and their complaints are read. */
    private Evidence heard(int rounds) {
        VehicleDescription d = v.description();
        v.simulation().driver(Driver.away().key(2));
        Set<String> fitted =
                d.modules().stream()
                        .map(ControlModule::id)
                        .filter(m -> v.module(m) != null && !m.equals(Network.GATEWAY))
                        .collect(Collectors.toSet());
        Map<String, Integer> answered = new HashMap<>();
        for (int i = 0; i < rounds; i++) {
            v.live(0.4);
            for (String m : fitted) {
                answered.merge(m, reach.answers(m) ? 1 : 0, Integer::sum);
            }
        }
        Map<String, RollCall.Tally> calls = new HashMap<>();
        answered.forEach((m, n) -> calls.put(m, new RollCall.Tally(rounds, n)));
        Set<String> read =
                fitted.stream().filter(m -> answered.get(m) > 0).collect(Collectors.toSet());
        Map<String, String> byCode = new HashMap<>();
        d.modules().forEach(m -> byCode.put(m.missed(), m.id()));
        Map<String, Set<Integer>> failed =
                read.stream().collect(Collectors.toMap(m -> m, reach::failed));
        Set<RollCall.Miss> misses =
                d.codes().stream()
                        .filter(c -> byCode.containsKey(c.code()) && read.contains(c.module()))
                        .filter(c -> failed.get(c.module()).contains(Dtc.parse(c.code()).number()))
                        .map(c -> new RollCall.Miss(c.module(), byCode.get(c.code())))
                        .collect(Collectors.toSet());
        boolean right = misses.isEmpty() && answered.values().stream().allMatch(n -> n == rounds);
        return new Evidence.Heard(new RollCall(calls, read, misses), fitted, right);
    }

    private Evidence wiresOf(String bus) {
        VehicleDescription d = v.description();
        Bus described =
                d.buses().stream().filter(b -> b.id().equals(bus)).findFirst().orElseThrow();
        Set<String> fitted =
                d.modules().stream()
                        .map(ControlModule::id)
                        .filter(m -> v.module(m) != null)
                        .collect(Collectors.toSet());
        BusStudy.Judgement judgement =
                BusStudy.judge(
                                ScopedCapture.ofBus(v, described),
                                described.rate(),
                                BusStudy.stations(d.network(), bus, fitted))
                        .orElseThrow();
        return new Evidence.BusSeen(
                bus,
                judgement.state(),
                judgement.at().orElse(-1),
                judgement.upTo(),
                judgement.absent(),
                judgement.holds());
    }

    private String shown(Gauge g) {
        Circuits c = v.simulation().circuits().orElseThrow();
        if (g.isCompared()) {
            Value value = v.description().value(g.value()).orElseThrow();
            double right = v.simulation().felt(g.value());
            double held = right + OWN_SHARE * Math.abs(right) * random.nextGaussian();
            Characteristic its =
                    v.description().circuits().stream()
                            .filter(on -> on.gauges().contains(g))
                            .flatMap(on -> Characteristic.of(on, g, value).stream())
                            .findFirst()
                            .orElseThrow();
            return g.compared(its, value, held, reach.value(g.value())).id();
        }
        if (g.isOhms()) {
            return g.at(reach.ohms(g) / g.nominal()).id();
        }
        if (g.isClamped()) {
            return clamped(g, c);
        }
        if (g.isFed()) {
            String does = c.hands().fed(g);
            return g.bands().stream()
                    .filter(b -> b.name().equals(does))
                    .findFirst()
                    .orElseThrow()
                    .id();
        }
        if (g.isAcross()) {
            return g.at((reach.volts(g.from()) - reach.volts(g.to())) / g.nominal()).id();
        }
        if (g.feedsModule()) {
            return g.at(reach.answers(g.module()) ? reach.value(g.value()) / g.nominal() : 0).id();
        }
        if (g.isToldByValue()) {
            return g.told(v.description().value(g.value()).orElseThrow(), reach.value(g.value()))
                    .id();
        }
        if (g.isOff() && v.simulation().running()) {
            // what the engine makes goes off with it
            v.driver(v.simulation().driver().key(0));
            v.live(ENGINE_STOPS_SECONDS);
            v.driver(v.simulation().driver().key(2));
            v.live(ENGINE_STOPS_SECONDS);
        }
        if (!g.made().isEmpty()) {
            c.set(g.made(), true);
        }
        String state =
                c.seen().stream()
                        .filter(s -> s.name().equals(g.name()))
                        .map(Circuits.Seen::state)
                        .findFirst()
                        .orElseThrow();
        if (!g.made().isEmpty()) {
            c.set(g.made(), false);
        }
        return g.bands().stream()
                .filter(b -> b.name().equals(state))
                .findFirst()
                .orElseThrow()
                .id();
    }

    private String clamped(Gauge g, Circuits c) {
        boolean off = !g.made().isEmpty() && !c.isSet(g.made());
        if (off) {
            c.set(g.made(), true);
        }
        double amps = reach.amps(g);
        if (off) {
            c.set(g.made(), false);
        }
        return MeterFinding.of(v.description(), g.findingId()).orElseThrow().outcome().apply(amps);
    }

    /** What is told, and what the sweep tells with which each job begins. */
    List<Evidence> toldAndSwept(Breaker.Broken broken) {
        List<Evidence> all = told(broken);
        all.add(listened());
        return all;
    }

    /** What is told and stored before anybody looks. */
    List<Evidence> told(Breaker.Broken broken) {
        List<Evidence> all = new ArrayList<>();
        broken.symptoms().forEach(g -> all.add(new Evidence.SymptomTold(g)));
        Set<Integer> stored = stored();
        Set<String> spoken =
                Reasoners.written(v.description()).stream()
                        .flatMap(k -> k.codes().keySet().stream())
                        .collect(Collectors.toSet());
        Set<String> present =
                v.description().codes().stream()
                        .map(Code::code)
                        .filter(c -> stored.contains(Dtc.parse(c).number()))
                        .collect(Collectors.toSet());
        spoken.addAll(
                Reasoners.askedAfter(v.description(), Set.copyOf(broken.symptoms()), present));
        Set<String> misses =
                v.description().modules().stream()
                        .map(ControlModule::missed)
                        .collect(Collectors.toSet());
        v.description().codes().stream()
                .map(Code::code)
                .distinct()
                .forEach(
                        c -> {
                            boolean there = stored.contains(Dtc.parse(c).number());
                            if (there && !misses.contains(c) || spoken.contains(c)) {
                                all.add(new Evidence.CodeSeen(c, there));
                            }
                        });
        return all;
    }

    /** What the body module tells of the supply; as usual where it tells nothing. */
    private double supply() {
        double told = reach.value("body.supply");
        return Double.isNaN(told) ? GaugeState.TYPICAL_VOLTS : told;
    }

    /** What all modules hold as failed that can be asked. */
    private Set<Integer> stored() {
        return v.description().modules().stream()
                .map(ControlModule::id)
                .filter(m -> v.module(m) != null)
                .flatMap(m -> reach.failed(m).stream())
                .collect(Collectors.toSet());
    }

    /** The part that a suspect stands for; one that is in no circuit is its own. */
    static String part(VehicleDescription d, String suspectId) {
        return d.suspect(suspectId)
                .flatMap(Suspect::effect)
                .flatMap(Effect::part)
                .orElse(suspectId);
    }

    /** What was not well is looked at once more, as a proof asks for. */
    Optional<Evidence> again(Evidence before) {
        if (before instanceof Evidence.BusSeen seen) {
            // its check is made by the program, and stands in no description
            return seen.right() ? Optional.empty() : Optional.of(wiresOf(seen.bus()));
        }
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
        List<Gauge> wrong = new EverydayUse(c).used(v::report);
        for (Circuit circuit : v.description().circuits()) {
            for (Gauge g : circuit.gauges()) {
                g.bands().stream()
                        .filter(b -> !b.code().isEmpty() && !wrong.contains(g))
                        .forEach(b -> all.add(new Evidence.CodeSeen(b.code(), false)));
            }
        }
        all.add(listened());
        return all;
    }
}
