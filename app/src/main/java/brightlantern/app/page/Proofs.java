package brightlantern.app.page;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Reasoning;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.job.Takes;
import brightlantern.core.code.Code;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StoredCode;
import brightlantern.core.proof.DriveConditions;
import brightlantern.core.proof.Proof;
import brightlantern.core.proof.ProofDrive;
import brightlantern.core.proof.ProofRecord;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Gathers what was recorded since a repair and lets the core judge it. */
@Component
public class Proofs {
    private final Findings findings;
    private final Repairs repairs;
    private final Sweeps sweeps;
    private final CommandLog log;
    private final LeadCodes leads;
    private final Takes takes;
    private final Reasoning reasoning;

    Proofs(
            Findings findings,
            Repairs repairs,
            Sweeps sweeps,
            CommandLog log,
            LeadCodes leads,
            Takes takes,
            Reasoning reasoning) {
        this.findings = findings;
        this.repairs = repairs;
        this.sweeps = sweeps;
        this.log = log;
        this.leads = leads;
        this.takes = takes;
        this.reasoning = reasoning;
    }

    /** How far the proof of the repair that was done last has come; empty without one. */
    public Optional<Proof.Verdict> of(JobPages.Context context) {
        return repairs.current(context.job().id()).map(r -> judged(context, r));
    }

    /** All findings of a job that count, as a proof sees them. */
    public List<ProofRecord.DatedFinding> findings(JobPages.Context context) {
        return findings.of(context.job().id()).stream()
                .map(f -> dated(f, context.description()))
                .toList();
    }

    /** The one drive that this proof still needs; empty when it needs none. */
    public Optional<ProofDrive> drive(JobPages.Context context) {
        return repairs.current(context.job().id())
                .filter(r -> context.job().isOpen())
                .flatMap(r -> ProofDrive.of(record(context, r)));
    }

    private Proof.Verdict judged(JobPages.Context context, Repairs.Repair repair) {
        ProofRecord record = record(context, repair);
        return Proof.judge(
                record,
                reasoning.remaining(
                        context.job().id(),
                        context.description(),
                        repair.suspectId(),
                        Proof.shown(record),
                        ofSupply(context)));
    }

    private ProofRecord record(JobPages.Context context, Repairs.Repair repair) {
        Job job = context.job();
        VehicleDescription d = context.description();
        List<Findings.Finding> all = findings.of(job.id());
        Set<String> codes = codes(context, repair, all);
        DriveConditions conditions = leads.conditions(job, d);
        List<Instant> clears = log.times(job.id(), CommandLog.CLEAR);
        Set<String> families = families(codes, d);
        Optional<Set<String>> before = before(job, d, repair.at());
        return new ProofRecord(
                repair.at(),
                codes,
                job.symptoms(),
                conditions,
                Reasoners.showStanding(d, job.symptoms(), codes),
                came(job, d, codes, repair.at()),
                all.stream().map(f -> dated(f, d)).toList(),
                clears,
                log.times(job.id(), CommandLog.KEY),
                sweeps.heads(job.id()).stream()
                        .filter(h -> h.whole() && h.started().isAfter(repair.at()))
                        .map(h -> dated(sweeps.read(h.id()).sweep(), d, codes, families, before))
                        .toList(),
                takes.of(job.id()).stream()
                        .filter(t -> t.ended().isPresent() && !t.setAside() && t.source().isEmpty())
                        .filter(t -> t.started().isAfter(repair.at()))
                        .map(t -> dated(t, conditions, d))
                        .toList());
    }

    /** What the freeze frames of these codes showed, from the newest sweep that had them. */
    private Map<String, String> came(
            Job job, VehicleDescription d, Set<String> codes, Instant repaired) {
        Map<String, String> came = new HashMap<>();
        for (Sweeps.Head head : sweeps.heads(job.id())) {
            if (!head.started().isBefore(repaired)) {
                continue;
            }
            for (StoredCode code : sweeps.read(head.id()).sweep().codes()) {
                if (codes.contains(code.code())) {
                    code.frames().stream()
                            .reduce((older, newer) -> newer)
                            .map(f -> DriveConditions.ofFrame(f.values(), d))
                            .filter(c -> !c.isEmpty())
                            .ifPresent(c -> came.putIfAbsent(code.code(), c.words()));
                }
            }
        }
        return came;
    }

    /** Codes that this repair leaves alone, because its cause does not set them. */
    public List<String> leftAlone(JobPages.Context context) {
        return repairs.current(context.job().id()).stream()
                .flatMap(
                        r -> {
                            List<Findings.Finding> all = findings.of(context.job().id());
                            Set<String> its = codes(context, r, all);
                            return present(context, all, r.at()).stream()
                                    .filter(c -> !its.contains(c));
                        })
                .sorted()
                .toList();
    }

    /** Codes that any passing dip of the supply sets, where the cause does not. */
    private Set<String> ofSupply(JobPages.Context context) {
        List<String> alone = leftAlone(context);
        return context.description().codes().stream()
                .filter(c -> c.sets().equals("supply"))
                .map(Code::code)
                .filter(alone::contains)
                .collect(Collectors.toSet());
    }

    private Set<String> codes(
            JobPages.Context context, Repairs.Repair repair, List<Findings.Finding> all) {
        VehicleDescription d = context.description();
        return Proof.ofCause(
                present(context, all, repair.at()),
                leads.of(context.job(), d).map(StoredCode::code),
                d.suspect(repair.suspectId()),
                d.codes());
    }

    /** Codes that were there before the repair. */
    private Set<String> present(
            JobPages.Context context, List<Findings.Finding> all, Instant repaired) {
        Set<String> codes = new HashSet<>();
        leads.of(context.job(), context.description()).map(StoredCode::code).ifPresent(codes::add);
        all.stream()
                .filter(f -> f.at().isBefore(repaired))
                .forEach(
                        f -> {
                            if (f.evidence().orElse(null) instanceof Evidence.CodeSeen c
                                    && c.present()) {
                                codes.add(c.code());
                            }
                        });
        return codes;
    }

    private static ProofRecord.DatedFinding dated(Findings.Finding f, VehicleDescription d) {
        return new ProofRecord.DatedFinding(
                f.at(), where(f, d), checkKey(f), f.passed(), f.text(), f.evidence());
    }

    /** Where a check is done again, with its condition set. */
    private static Place where(Findings.Finding f, VehicleDescription d) {
        return f.evidence()
                .flatMap(e -> e.place(d.checks()))
                .orElseGet(
                        () ->
                                Place.of(
                                        f.about().startsWith("procedure ")
                                                ? "exercise/procedures/"
                                                        + f.about().substring("procedure ".length())
                                                : f.stage()));
    }

    /** The key of what can be done again; codes have a requirement of their own. */
    private static String checkKey(Findings.Finding f) {
        return f.evidence().filter(e -> !e.repeatable() || Reasoners.isDoneOnce(e)).isPresent()
                ? ""
                : f.key();
    }

    private ProofRecord.DatedTake dated(
            Takes.TakeHead head, DriveConditions conditions, VehicleDescription d) {
        Take take = takes.ended(head);
        return new ProofRecord.DatedTake(
                head.started(), head.name(), take.lengthSeconds(), conditions.met(take, d));
    }

    private static Set<String> families(Set<String> codes, VehicleDescription d) {
        return d.codes().stream()
                .filter(c -> codes.contains(c.code()))
                .map(Code::family)
                .collect(Collectors.toSet());
    }

    /**
     * Codes that some sweep before the repair had, and those that any passing dip sets; empty when
     * nobody swept, and nobody can tell what is new.
     */
    private Optional<Set<String>> before(Job job, VehicleDescription d, Instant repaired) {
        List<Sweeps.Head> earlier =
                sweeps.heads(job.id()).stream()
                        .filter(h -> h.whole() && h.started().isBefore(repaired))
                        .toList();
        if (earlier.isEmpty()) {
            return Optional.empty();
        }
        Set<String> before =
                d.codes().stream()
                        .filter(c -> c.sets().equals("supply"))
                        .map(Code::code)
                        .collect(Collectors.toCollection(HashSet::new));
        earlier.stream()
                .flatMap(h -> sweeps.read(h.id()).sweep().codes().stream())
                .map(StoredCode::code)
                .forEach(before::add);
        return Optional.of(before);
    }

    private static ProofRecord.DatedSweep dated(
            Sweep sweep,
            VehicleDescription d,
            Set<String> codes,
            Set<String> families,
            Optional<Set<String>> before) {
        Set<String> back =
                sweep.codes().stream()
                        .filter(c -> c.statusByte().standing() != DtcStatus.Standing.QUIET)
                        .filter(
                                c ->
                                        codes.contains(c.code())
                                                || d.code(c.moduleId(), c.code())
                                                        .map(k -> families.contains(k.family()))
                                                        .orElse(false))
                        .map(StoredCode::code)
                        .collect(Collectors.toSet());
        Set<String> notRun =
                sweep.modules().stream()
                        .flatMap(m -> m.notRun().stream())
                        .flatMap(Set::stream)
                        .filter(codes::contains)
                        .collect(Collectors.toSet());
        Set<String> more =
                sweep.codes().stream()
                        .filter(c -> c.statusByte().standing() != DtcStatus.Standing.QUIET)
                        .map(StoredCode::code)
                        .filter(c -> before.isPresent() && !before.get().contains(c))
                        .filter(c -> !back.contains(c))
                        .collect(Collectors.toSet());
        return new ProofRecord.DatedSweep(
                sweep.finished().orElse(sweep.started()), sweep.whole(), back, notRun, more);
    }
}
