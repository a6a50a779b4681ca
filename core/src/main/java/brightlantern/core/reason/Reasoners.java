package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Need;
import brightlantern.core.circuit.Segment;
import brightlantern.core.network.RollCall;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Reasoners for one kind of vehicle. Of the hundreds of parts in its circuits only those are
 * weighed that stand in a circuit in question: one of which a complaint, a code, a look or a
 * reading tells. A break anywhere else would have shown elsewhere.
 */
public final class Reasoners {
    /** So many sets of circuits in question are remembered with what was computed of them. */
    private static final int MOST = 6;

    /** So many other circuits are looked at for each part that they share. */
    private static final int WITNESSES = 2;

    private final VehicleDescription description;
    private final Predictions predictions;

    /** Findings that circuits with gauges have derived. */
    private final Set<String> drawnLooks = new HashSet<>();

    /**
     * What a reasoner is made for.
     *
     * @param circuits ids of those in question
     * @param told ids of the symptoms that were told
     */
    private record Question(Set<String> circuits, Set<String> told) {}

    /** Parts that feed modules, and something else too. */
    private final Set<String> feedingOthersToo;

    private final Map<Question, Reasoner> known = new Remembered<>(MOST);

    /**
     * @param description with what its circuits derive ({@link CircuitSuspects#added})
     */
    public Reasoners(VehicleDescription description) {
        this.description = description;
        this.predictions = new Predictions(description);
        this.feedingOthersToo = description.wiring().feedingModules();
        this.feedingOthersToo.removeAll(description.wiring().feedingOnlyModules());
        for (Circuit c : description.circuits()) {
            c.gauges().forEach(g -> drawnLooks.add(g.findingId()));
            drawnLooks.addAll(looksOf(c));
        }
    }

    /** The reasoner that weighs what may lie behind this evidence. */
    public Reasoner of(List<Evidence> evidence) {
        Set<String> circuits = inQuestion(evidence);
        Set<String> told =
                evidence.stream()
                        .filter(Evidence.SymptomTold.class::isInstance)
                        .map(e -> ((Evidence.SymptomTold) e).symptomId())
                        .collect(Collectors.toCollection(TreeSet::new));
        synchronized (known) {
            return known.computeIfAbsent(
                    new Question(circuits, told),
                    q -> new Reasoner(about(q.circuits(), q.told()), predictions));
        }
    }

    /** Ids of the circuits with gauges of which evidence tells something wrong, or a reading. */
    Set<String> inQuestion(List<Evidence> evidence) {
        Set<String> ids = new TreeSet<>();
        Set<String> needed =
                evidence.stream()
                        .flatMap(e -> neededBy(description, e))
                        .collect(Collectors.toSet());
        for (Circuit c : description.circuits()) {
            boolean spoken = evidence.stream().anyMatch(e -> speaksOf(e, c));
            boolean missed = c.gauges().stream().anyMatch(g -> needed.contains(g.id()));
            if (!c.gauges().isEmpty() && (spoken || missed)) {
                ids.add(c.id());
            }
        }
        return ids;
    }

    /**
     * Gauges of what the engine needs to turn or to run, where it is told that it does not. That it
     * burns badly in a cylinder has many causes; those in its circuits set codes of their own.
     */
    private static Stream<String> neededBy(VehicleDescription d, Evidence piece) {
        List<Need> needs = d.wiring().needs();
        Set<Need.What> missed =
                needs.stream()
                        .filter(n -> n.what() != Need.What.BURNING)
                        .filter(n -> isMissed(n, piece))
                        .map(Need::what)
                        .collect(Collectors.toSet());
        // one of which no cylinder burns does not run either
        if (missed.contains(Need.What.RUNNING)) {
            missed.add(Need.What.BURNING);
        }
        return needs.stream()
                .filter(n -> missed.contains(n.what()))
                .flatMap(n -> n.gauges().stream());
    }

    private static boolean isMissed(Need need, Evidence piece) {
        return piece instanceof Evidence.SymptomTold told
                ? told.symptomId().equals(need.symptom())
                : piece instanceof Evidence.CodeSeen code
                        && code.present()
                        && need.codes().contains(code.code());
    }

    private static boolean speaksOf(Evidence piece, Circuit circuit) {
        if (piece instanceof Evidence.Reading reading) {
            return reading.circuitId().equals(circuit.id());
        }
        return circuit.gauges().stream().anyMatch(g -> speaksOf(piece, g));
    }

    private static boolean speaksOf(Evidence piece, Gauge gauge) {
        if (piece instanceof Evidence.SymptomTold told) {
            return told.symptomId().equals(DrawnCircuits.symptomId(gauge));
        }
        if (piece instanceof Evidence.CodeSeen code) {
            return code.present()
                    && gauge.bands().stream().anyMatch(b -> b.code().equals(code.code()));
        }
        if (piece instanceof Evidence.Heard heard) {
            return gauge.feedsModule() && isMissed(gauge.module(), heard);
        }
        return piece instanceof Evidence.Outcome outcome
                && outcome.findingId().equals(gauge.findingId())
                && gauge.bands().stream()
                        .anyMatch(b -> b.id().equals(outcome.outcomeId()) && !b.well());
    }

    private static boolean isMissed(String module, Evidence.Heard heard) {
        RollCall.Tally its = heard.call().calls().get(module);
        return heard.fitted().contains(module)
                && (its != null && its.answered() < its.asked()
                        || heard.call().misses().stream()
                                .anyMatch(m -> m.missing().equals(module)));
    }

    /** Whether a finding follows from a circuit, and was written by nobody. */
    public static boolean isDerived(Finding finding) {
        return Gauge.isFinding(finding.id()) || DrawnCircuits.isLook(finding.id());
    }

    /**
     * Whether something found tells nothing when it is done again after a repair: a bus that lives
     * has no plug without which it comes back.
     */
    public static boolean isDoneOnce(Evidence piece) {
        return piece instanceof Evidence.Outcome o && PulledPlugs.isFinding(o.findingId());
    }

    /** Whether a suspect follows from a circuit with gauges, and was written by nobody. */
    public static boolean isDerived(Suspect suspect) {
        Effect effect = suspect.effect().orElse(null);
        return effect instanceof Effect.Chafed
                || effect instanceof Effect.Shorted
                || effect instanceof Effect.Off
                || effect instanceof Effect.Loose
                || effect instanceof Effect.Stuck
                || effect instanceof Effect.Series series && series.breaks();
    }

    /** The suspects that were written; hundreds follow from the circuits beside them. */
    public static List<Suspect> written(VehicleDescription d) {
        return d.suspects().stream().filter(s -> !isDerived(s)).toList();
    }

    /**
     * Whether all that was told and stored shows at what is switched or sensed while the vehicle
     * stands.
     */
    public static boolean showStanding(
            VehicleDescription d, Set<String> symptoms, Set<String> codes) {
        Set<String> told = new HashSet<>();
        Set<String> set = new HashSet<>();
        for (Circuit c : d.circuits()) {
            for (Gauge g : c.gauges()) {
                told.add(DrawnCircuits.symptomId(g));
                g.bands().forEach(b -> set.add(b.code()));
            }
        }
        d.wiring().needs().stream()
                .filter(n -> n.what() != Need.What.BURNING)
                .forEach(n -> told.add(n.symptom()));
        return told.containsAll(symptoms)
                && set.containsAll(codes)
                && !(symptoms.isEmpty() && codes.isEmpty());
    }

    /**
     * Codes that modules set by what they see at the pins of what the engine needs to do what it
     * does not do, and of the circuits of which one is stored: here it tells as well that one of
     * them is not.
     *
     * @param symptoms that were told
     * @param codes that are stored
     */
    public static Set<String> askedAfter(
            VehicleDescription d, Set<String> symptoms, Set<String> codes) {
        Set<String> needed =
                Stream.concat(
                                symptoms.stream().map(Evidence.SymptomTold::new),
                                codes.stream().map(c -> new Evidence.CodeSeen(c, true)))
                        .flatMap(e -> neededBy(d, e))
                        .collect(Collectors.toSet());
        return d.circuits().stream()
                .flatMap(
                        c ->
                                // who shares a reference or an earth with what is told of, and is
                                // well, says that it is not what they share
                                codes(c.gauges().stream()).anyMatch(codes::contains)
                                        ? codes(c.gauges().stream())
                                        : codes(
                                                c.gauges().stream()
                                                        .filter(g -> needed.contains(g.id()))))
                .collect(Collectors.toSet());
    }

    private static Stream<String> codes(Stream<Gauge> gauges) {
        return gauges.flatMap(g -> g.bands().stream()).map(Band::code).filter(c -> !c.isEmpty());
    }

    /** Findings that may be entered: those that are written, and those of circuits in question. */
    public List<Finding> findings(List<Evidence> evidence) {
        Set<String> seen = seen(inQuestion(evidence));
        return description.findings().stream()
                .filter(f -> !isDerived(f) || seen.contains(f.id()))
                .toList();
    }

    /** Findings of circuits in question, and of those that bear witness to their parts. */
    private Set<String> seen(Set<String> ids) {
        Set<String> looked = new HashSet<>(ids);
        ids.forEach(id -> looked.addAll(witnesses(description.circuit(id).orElseThrow())));
        Set<String> seen =
                description.circuits().stream()
                        .filter(c -> looked.contains(c.id()))
                        .flatMap(c -> c.gauges().stream())
                        .map(Gauge::findingId)
                        .collect(Collectors.toCollection(HashSet::new));
        ids.forEach(id -> seen.addAll(looksOf(description.circuit(id).orElseThrow())));
        return seen;
    }

    private VehicleDescription about(Set<String> ids, Set<String> told) {
        Set<String> parts = new HashSet<>();
        for (Circuit c : description.circuits()) {
            if (c.gauges().isEmpty() || ids.contains(c.id())) {
                c.components().stream().map(Component::id).forEach(parts::add);
            }
        }
        Set<String> seen = seen(ids);
        Set<String> drawn =
                description.circuits().stream()
                        .filter(c -> !c.gauges().isEmpty() && !ids.contains(c.id()))
                        .map(Circuit::id)
                        .collect(Collectors.toSet());
        return description.withOnly(
                description.suspects().stream()
                        .filter(s -> stands(s, parts))
                        .map(s -> FedModules.untold(s, told, feedingOthersToo))
                        .toList(),
                description.checks().stream().filter(c -> isDone(c, drawn, seen)).toList());
    }

    /**
     * For each part of a circuit another circuit that has it too, such as a fuse or an earth: what
     * works there acquits it.
     */
    private Set<String> witnesses(Circuit circuit) {
        Set<String> all = new HashSet<>();
        for (Component part : circuit.components()) {
            description.wiring().with(part.id()).stream()
                    .filter(c -> !c.id().equals(circuit.id()) && !c.gauges().isEmpty())
                    .limit(WITNESSES)
                    .forEach(c -> all.add(c.id()));
        }
        return all;
    }

    /** What is looked at in a circuit: pins, along wires, and behind fuses. */
    private static Set<String> looksOf(Circuit circuit) {
        Set<String> looks = new HashSet<>();
        for (Segment s : circuit.segments()) {
            s.pin()
                    .ifPresent(
                            p -> {
                                looks.add(DrawnCircuits.lookedAt(p.plug()));
                                looks.add(Shaken.id(p.plug()));
                            });
            looks.add(Shaken.id(s.id()));
            looks.add(DrawnCircuits.along(s.id()));
            looks.add(DrawnCircuits.behind(s.id()));
        }
        return looks;
    }

    private static boolean stands(Suspect suspect, Set<String> parts) {
        return suspect.effect().flatMap(Effect::part).map(parts::contains).orElse(true);
    }

    private boolean isDone(Check check, Set<String> drawn, Set<String> seen) {
        if (check instanceof Check.Reading reading) {
            return !drawn.contains(reading.circuit());
        }
        return !(check instanceof Check.Look look)
                || !drawnLooks.contains(look.finding())
                || seen.contains(look.finding());
    }
}
