package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Instruments;
import brightlantern.app.job.Job;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.job.Workshop;
import brightlantern.app.job.Workshops;
import brightlantern.app.learned.LearnedDesk;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Proofs;
import brightlantern.core.code.StoredCode;
import brightlantern.core.learned.LearnedStudy;
import brightlantern.core.proof.BeforeAfter;
import brightlantern.core.proof.Proof;
import brightlantern.core.reason.Standing;
import brightlantern.core.signal.Scaling;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Puts together what the reports of a job tell. */
@Component
class ReportMaker {
    private static final String NOTHING_REPAIRED = "No repair was done, so nothing is proven.";

    private final Proofs proofs;
    private final Repairs repairs;
    private final Findings findings;
    private final Sweeps sweeps;
    private final Workshops workshops;
    private final Answers answers;
    private final Deciders deciders;
    private final Curves curves;
    private final LearnedDesk learned;
    private final Instruments instruments;

    ReportMaker(
            Proofs proofs,
            Repairs repairs,
            Findings findings,
            Sweeps sweeps,
            Workshops workshops,
            Answers answers,
            Deciders deciders,
            Curves curves,
            LearnedDesk learned,
            Instruments instruments) {
        this.instruments = instruments;
        this.proofs = proofs;
        this.repairs = repairs;
        this.findings = findings;
        this.sweeps = sweeps;
        this.workshops = workshops;
        this.answers = answers;
        this.deciders = deciders;
        this.curves = curves;
        this.learned = learned;
    }

    Report of(JobPages.Context context) {
        Job job = context.job();
        VehicleDescription d = context.description();
        List<Sweeps.Head> kept = sweeps.heads(job.id());
        Optional<Sweep> first =
                kept.isEmpty()
                        ? Optional.empty()
                        : Optional.of(sweeps.read(kept.get(kept.size() - 1).id()).sweep());
        Optional<Sweep> last =
                kept.isEmpty()
                        ? Optional.empty()
                        : Optional.of(sweeps.read(kept.get(0).id()).sweep());
        Optional<Suspect> cause = cause(context);
        List<LearnedStudy.Verdict> verdicts = learned.verdicts(context);
        Workshop workshop = workshops.get();
        Proof.Verdict proof =
                proofs.of(context)
                        .orElse(new Proof.Verdict(Proof.State.OPEN, NOTHING_REPAIRED, List.of()));
        return new Report(
                workshop,
                job,
                d.name(),
                d.engine(),
                d.symptoms().stream()
                        .filter(s -> job.symptoms().contains(s.id()))
                        .map(s -> s.name() + ", " + s.when())
                        .toList(),
                deciders.ranking(context).sentence(),
                cause.map(Suspect::chain).orElse(List.of()),
                deciders.decisive(context),
                measured(context).stream().map(Report.Measured::of).toList(),
                repairs.of(job.id()),
                answers.agreed(job.id())
                        .map(a -> a.way() + ": " + workshop.money(workshop.taxed(a.price())))
                        .orElse(""),
                proof,
                proof.requirements().stream()
                        .filter(r -> r.state() == Proof.State.PROVEN)
                        .map(r -> r.what().replaceAll("[.]$", "") + ": " + r.seen())
                        .toList(),
                watch(context, proof, verdicts),
                first.map(ReportMaker::codes).orElse(List.of()),
                last.map(ReportMaker::codes).orElse(List.of()),
                first.map(f -> frames(f, d)).orElse(List.of()),
                verdicts.stream().map(Report.Learned::of).toList(),
                instruments.of(job.id()),
                findings.of(job.id()));
    }

    /** When the repair was that was done last; after everything without one. */
    Instant repaired(JobPages.Context context) {
        return repairs.current(context.job().id()).map(Repairs.Repair::at).orElse(Instant.MAX);
    }

    /** What was measured wrong, before the repair and after it. */
    List<BeforeAfter> measured(JobPages.Context context) {
        return BeforeAfter.of(context.description(), proofs.findings(context), repaired(context));
    }

    /** Curves of what stayed behind its target. */
    List<Curves.Curve> curves(JobPages.Context context) {
        return curves.of(context, repaired(context));
    }

    private Optional<Suspect> cause(JobPages.Context context) {
        return repairs.current(context.job().id())
                .map(Repairs.Repair::suspectId)
                .or(() -> deciders.ranking(context).accused().map(Standing::suspectId))
                .flatMap(context.description()::suspect);
    }

    private List<String> watch(
            JobPages.Context context, Proof.Verdict proof, List<LearnedStudy.Verdict> verdicts) {
        List<String> watch = new ArrayList<>();
        cause(context)
                .map(s -> s.repair().risk())
                .filter(r -> !r.isBlank() && !r.startsWith("none"))
                .ifPresent(r -> watch.add("After this repair: " + r));
        proof.requirements().stream()
                .filter(r -> r.state() == Proof.State.OPEN)
                .map(r -> "Not shown yet: " + r.what())
                .forEach(watch::add);
        verdicts.stream()
                .filter(v -> !v.holds())
                .map(v -> v.value().name() + ": " + v.sentence())
                .forEach(watch::add);
        proofs.leftAlone(context).stream()
                .map(c -> c + " is stored as well, and has a cause of its own")
                .forEach(watch::add);
        return watch;
    }

    static List<String> codes(Sweep sweep) {
        return sweep.codes().stream()
                .map(
                        c ->
                                c.code()
                                        + " "
                                        + c.name()
                                        + " ("
                                        + c.moduleName()
                                        + "): "
                                        + c.statusByte().standing().words())
                .toList();
    }

    private static List<String> frames(Sweep sweep, VehicleDescription d) {
        return sweep.codes().stream()
                .filter(c -> !c.frames().isEmpty())
                .map(c -> frame(c, d))
                .toList();
    }

    private static String frame(StoredCode code, VehicleDescription d) {
        StoredCode.Frame newest = code.frames().get(code.frames().size() - 1);
        return newest.values().entrySet().stream()
                .flatMap(
                        v ->
                                d.value(v.getKey()).stream()
                                        .map(
                                                k ->
                                                        (k.name()
                                                                        + " "
                                                                        + Scaling.show(
                                                                                k, v.getValue())
                                                                        + " "
                                                                        + k.unit())
                                                                .strip()))
                .sorted()
                .collect(Collectors.joining(", ", code.code() + ": ", ""));
    }
}
