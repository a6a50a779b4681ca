package brightlantern.app.job;

import brightlantern.core.reason.Budget;
import brightlantern.core.reason.InQuestion;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.Plan;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoner;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.reason.Remaining;
import brightlantern.core.shelf.LearnedRates;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Suspects and next checks of a job, from what was found and not yet repaired away. */
@Component
public class Reasoning {
    /** Assumed for forecasts while the vehicle's own supply voltage is not known. */
    private static final double TYPICAL_VOLTS = 12.4;

    private final Findings findings;
    private final Repairs repairs;
    private final Jobs jobs;
    private final Shelf shelf;

    /** By kind of vehicle; what the shelf has taught goes into them. */
    private final Map<String, Taught> reasoners = new ConcurrentHashMap<>();

    private record Taught(long shelf, Reasoners reasoners) {}

    /** The newest state of each job; every page asks for it, and few change it. */
    private final Map<Long, Known> known = new ConcurrentHashMap<>();

    private record Known(double volts, Reasoners by, List<Evidence> evidence, State state) {
        boolean isOf(Reasoners theirs, double theirVolts, double minutes, List<Evidence> found) {
            return by == theirs
                    && volts == theirVolts
                    && state.budget().minutes() == minutes
                    && evidence.equals(found);
        }
    }

    private final Map<Long, Object> locks = new ConcurrentHashMap<>();

    Reasoning(Jobs jobs, Findings findings, Repairs repairs, Shelf shelf) {
        this.jobs = jobs;
        this.shelf = shelf;
        this.findings = findings;
        this.repairs = repairs;
    }

    private Reasoners reasoners(VehicleDescription description) {
        long now = shelf.version();
        return reasoners
                .compute(
                        description.id(),
                        (id, known) ->
                                known != null && known.shelf() == now
                                        ? known
                                        : new Taught(
                                                now,
                                                new Reasoners(
                                                        LearnedRates.applied(
                                                                description, shelf.all()))))
                .reasoners();
    }

    /** What may be entered by hand: what is written, and what the circuits in question show. */
    public List<Finding> toEnter(VehicleDescription description, State state) {
        return reasoners(description).findings(evidence(state.findings()));
    }

    /** Part of the circuits → probability that the fault is there. */
    public Map<String, Double> inQuestion(long jobId, VehicleDescription d, double volts) {
        return InQuestion.parts(d, of(jobId, d, volts).ranking().standings());
    }

    private static List<Evidence> evidence(List<Findings.Finding> findings) {
        return findings.stream().map(f -> f.evidence().orElseThrow()).toList();
    }

    /**
     * Findings that speak about the fault as it was brought in: all until a repair that has not
     * been shown to have failed. What was measured after a good repair is proof, and must not
     * acquit the cause.
     */
    public List<Findings.Finding> relevant(long jobId) {
        Optional<Instant> until = repairs.current(jobId).map(Repairs.Repair::at);
        List<Repairs.Repair> done = repairs.of(jobId);
        return findings.of(jobId).stream()
                .filter(f -> f.evidence().isPresent())
                .filter(f -> until.isEmpty() || f.at().isBefore(until.get()))
                .sorted(Comparator.comparing((Findings.Finding f) -> since(f, done)))
                .toList();
    }

    /** A repair counts from when it was done, not from when it was found not to have helped. */
    private static Instant since(Findings.Finding finding, List<Repairs.Repair> done) {
        return finding.evidence().orElseThrow() instanceof Evidence.RepairFailed failed
                ? done.stream()
                        .filter(r -> r.suspectId().equals(failed.suspectId()))
                        .map(Repairs.Repair::at)
                        .filter(at -> at.isBefore(finding.at()))
                        .max(Comparator.naturalOrder())
                        .orElse(finding.at())
                : finding.at();
    }

    /**
     * What may still be broken after a repair, by what was shown since.
     *
     * @param shown since the repair
     * @param aside codes that have a reason of their own
     */
    public Remaining remaining(
            long jobId,
            VehicleDescription description,
            String repairedId,
            List<Evidence> shown,
            Set<String> aside) {
        List<Evidence> before = new ArrayList<>(evidence(relevant(jobId)));
        before.removeIf(e -> e instanceof Evidence.CodeSeen c && aside.contains(c.code()));
        List<Evidence> all = new ArrayList<>(before);
        all.addAll(shown);
        return reasoners(description).of(all).remaining(before, repairedId, shown, TYPICAL_VOLTS);
    }

    /**
     * Where a job stands.
     *
     * @param budget how its time stands
     */
    public record State(
            List<Findings.Finding> findings, Ranking ranking, List<NextCheck> next, Budget budget) {
        /** Whether nothing was found yet that speaks of the vehicle as it is. */
        public boolean isBare() {
            return findings.stream()
                    .allMatch(f -> f.evidence().orElse(null) instanceof Evidence.Driven);
        }

        /** What the findings tell, in their order. */
        public List<Evidence> evidence() {
            return Reasoning.evidence(findings);
        }
    }

    /**
     * The supply for which figures are foretold: that of the vehicle to a quarter of a volt, or a
     * typical one.
     */
    public static double rounded(double supplyVolts) {
        return supplyVolts > 9 && supplyVolts < 16
                ? Math.round(supplyVolts * 4) / 4.0
                : TYPICAL_VOLTS;
    }

    /** What checks of such a vehicle may come to, and where each leads. */
    public Plan plan(VehicleDescription description) {
        return new Plan(reasoners(description), description);
    }

    /**
     * What would be known without some findings, and with others.
     *
     * @param aside ids of those that are set aside
     * @param supposed what is taken as if it had been found
     */
    public Ranking supposing(
            VehicleDescription description, State state, Set<Long> aside, List<Evidence> supposed) {
        List<Evidence> evidence =
                new ArrayList<>(
                        evidence(
                                state.findings().stream()
                                        .filter(f -> !aside.contains(f.id()))
                                        .toList()));
        evidence.addAll(supposed);
        return reasoners(description).of(evidence).rank(evidence);
    }

    /**
     * Where a job stands by now. Who asks while it is worked out waits for it, and does not work it
     * out again.
     */
    public State of(long jobId, VehicleDescription description, double supplyVolts) {
        synchronized (locks.computeIfAbsent(jobId, id -> new Object())) {
            return worked(jobId, description, rounded(supplyVolts));
        }
    }

    private State worked(long jobId, VehicleDescription description, double volts) {
        List<Findings.Finding> relevant = relevant(jobId);
        List<Evidence> evidence = evidence(relevant);
        double minutes = jobs.budget(jobId);
        Reasoners by = reasoners(description);
        Known before = known.get(jobId);
        if (before == null || !before.isOf(by, volts, minutes, evidence)) {
            Reasoner reasoner = by.of(evidence);
            Ranking ranking = reasoner.rank(evidence);
            List<NextCheck> next = reasoner.nextChecks(evidence, volts);
            Budget budget = reasoner.budget(minutes, evidence, ranking, next);
            before = new Known(volts, by, evidence, new State(relevant, ranking, next, budget));
            known.put(jobId, before);
        }
        // a sweep that tells the same as the last one has findings of its own, and changes nothing
        State state = before.state();
        return new State(relevant, state.ranking(), state.next(), state.budget());
    }
}
