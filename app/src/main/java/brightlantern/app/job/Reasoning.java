package brightlantern.app.job;

import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoner;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.reason.Remaining;
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
    private final Map<String, Reasoners> reasoners = new ConcurrentHashMap<>();

    /** The newest state of each job; every page asks for it, and few change it. */
    private final Map<Long, Known> known = new ConcurrentHashMap<>();

    private record Known(List<Findings.Finding> findings, double volts, State state) {}

    Reasoning(Findings findings, Repairs repairs) {
        this.findings = findings;
        this.repairs = repairs;
    }

    private Reasoners reasoners(VehicleDescription description) {
        return reasoners.computeIfAbsent(description.id(), id -> new Reasoners(description));
    }

    /** What may be entered by hand: what is written, and what the circuits in question show. */
    public List<Finding> toEnter(VehicleDescription description, State state) {
        return reasoners(description).findings(evidence(state.findings()));
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

    public record State(List<Findings.Finding> findings, Ranking ranking, List<NextCheck> next) {
        /** What the findings tell, in their order. */
        public List<Evidence> evidence() {
            return Reasoning.evidence(findings);
        }
    }

    public State of(long jobId, VehicleDescription description, double supplyVolts) {
        List<Findings.Finding> relevant = relevant(jobId);
        List<Evidence> evidence = evidence(relevant);
        // a forecast to a quarter of a volt is exact enough, and is remembered
        double volts =
                supplyVolts > 9 && supplyVolts < 16
                        ? Math.round(supplyVolts * 4) / 4.0
                        : TYPICAL_VOLTS;
        Known before = known.get(jobId);
        if (before != null && before.volts() == volts && before.findings().equals(relevant)) {
            return before.state();
        }
        Reasoner reasoner = reasoners(description).of(evidence);
        State state =
                new State(relevant, reasoner.rank(evidence), reasoner.nextChecks(evidence, volts));
        known.put(jobId, new Known(relevant, volts, state));
        return state;
    }
}
