package brightlantern.app.prove;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Json;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StoredCode;
import brightlantern.core.proof.Proof;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Gathers what was recorded since a repair and lets the core judge it. */
@Component
class Proofs {
    private final Findings findings;
    private final Repairs repairs;
    private final Sweeps sweeps;
    private final CommandLog log;
    private final LeadCodes leads;
    private final Json json;

    Proofs(
            Findings findings,
            Repairs repairs,
            Sweeps sweeps,
            CommandLog log,
            LeadCodes leads,
            Json json) {
        this.findings = findings;
        this.repairs = repairs;
        this.sweeps = sweeps;
        this.log = log;
        this.leads = leads;
        this.json = json;
    }

    Optional<Proof.Verdict> of(JobPages.Context context) {
        return repairs.current(context.job().id()).map(r -> Proof.judge(record(context, r)));
    }

    private Proof.Record record(JobPages.Context context, Repairs.Repair repair) {
        Job job = context.job();
        VehicleDescription d = context.description();
        Optional<StoredCode> lead = leads.of(job, d);
        List<Proof.DatedEvidence> evidence = new ArrayList<>();
        List<Proof.DatedDrive> drives = new ArrayList<>();
        for (Findings.Finding f : findings.of(job.id())) {
            f.evidence().ifPresent(e -> evidence.add(new Proof.DatedEvidence(f.at(), e, f.text())));
            if (f.evidence().orElse(null) instanceof Evidence.Outcome o
                    && d.follows().stream()
                            .anyMatch(follow -> follow.finding().equals(o.findingId()))
                    && f.stage().equals("watch")
                    && !f.detail().isEmpty()) {
                drives.add(
                        new Proof.DatedDrive(
                                f.at(), json.read(f.detail(), TargetStudy.Verdict.class)));
            }
        }
        return new Proof.Record(
                repair.at(),
                lead.map(StoredCode::code),
                lead.map(c -> !c.frames().isEmpty()).orElse(false),
                evidence,
                log.times(job.id(), CommandLog.CLEAR),
                log.times(job.id(), CommandLog.KEY),
                sweeps.heads(job.id()).stream()
                        .filter(h -> h.whole() && h.started().isAfter(repair.at()))
                        .map(h -> dated(sweeps.read(h.id()).sweep(), d, lead))
                        .toList(),
                drives,
                asksForADrive(d));
    }

    /** A drive proves something only where one of the suspects would show in it. */
    private static boolean asksForADrive(VehicleDescription d) {
        return d.follows().stream()
                .anyMatch(
                        f ->
                                d.suspects().stream()
                                        .anyMatch(s -> s.tells().containsKey(f.finding())));
    }

    private static Proof.DatedSweep dated(
            Sweep sweep, VehicleDescription d, Optional<StoredCode> lead) {
        Set<String> families =
                lead.flatMap(c -> d.code(c.moduleId(), c.code()))
                        .map(c -> Set.of(c.family()))
                        .orElseGet(
                                () ->
                                        d.suspects().stream()
                                                .flatMap(s -> s.codes().keySet().stream())
                                                .flatMap(
                                                        code ->
                                                                d.codes().stream()
                                                                        .filter(
                                                                                c ->
                                                                                        c.code()
                                                                                                .equals(
                                                                                                        code)))
                                                .map(VehicleDescription.Code::family)
                                                .collect(Collectors.toSet()));
        Set<String> back =
                sweep.codes().stream()
                        .filter(c -> c.statusByte().standing() != DtcStatus.Standing.QUIET)
                        .filter(
                                c ->
                                        d.code(c.moduleId(), c.code())
                                                .map(k -> families.contains(k.family()))
                                                .orElse(false))
                        .map(StoredCode::code)
                        .collect(Collectors.toSet());
        return new Proof.DatedSweep(sweep.finished().orElse(sweep.started()), sweep.whole(), back);
    }
}
