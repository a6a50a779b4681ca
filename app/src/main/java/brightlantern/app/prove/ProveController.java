package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Reasoning;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Shelf;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.NextCard;
import brightlantern.app.page.Pdf;
import brightlantern.core.proof.Proof;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Standing;
import brightlantern.core.shelf.ShelfCase;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.IOException;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The Prove page: did it hold? */
@Controller
@RequestMapping("/jobs/{id}/prove")
class ProveController {
    /** Repairs of suspects further down are hardly what anybody did. */
    private static final int OPTIONS = 14;

    private final JobPages pages;
    private final Proofs proofs;
    private final Repairs repairs;
    private final Reasoning reasoning;
    private final Findings findings;
    private final Sweeps sweeps;
    private final Shelf shelf;
    private final Jobs jobs;
    private final LeadCodes leads;
    private final Json json;
    private final Pdf pdf;
    private final String workshop;

    ProveController(
            JobPages pages,
            Proofs proofs,
            Repairs repairs,
            Reasoning reasoning,
            Findings findings,
            Sweeps sweeps,
            Shelf shelf,
            Jobs jobs,
            LeadCodes leads,
            Json json,
            Pdf pdf,
            @Value("${lantern.workshop}") String workshop) {
        this.pages = pages;
        this.proofs = proofs;
        this.repairs = repairs;
        this.reasoning = reasoning;
        this.findings = findings;
        this.sweeps = sweeps;
        this.shelf = shelf;
        this.jobs = jobs;
        this.leads = leads;
        this.json = json;
        this.pdf = pdf;
        this.workshop = workshop;
    }

    record Option(String suspectId, String suspect, double sureness, Repair repair) {
        /** Worth a line of its own: not all but ruled out. */
        public boolean likely() {
            return sureness >= 0.01;
        }
    }

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "prove", model);
        Optional<Proof.Verdict> verdict = proofs.of(context);
        Ranking ranking = ranking(context);
        model.addAttribute("options", options(context.description(), ranking));
        model.addAttribute("repairs", repairs.of(id));
        model.addAttribute("current", repairs.current(id).orElse(null));
        model.addAttribute("verdict", verdict.orElse(null));
        model.addAttribute(
                "answer",
                verdict.map(Proof.Verdict::sentence)
                        .or(() -> told(context.description(), ranking))
                        .orElse(
                                repairs.of(id).isEmpty()
                                        ? "No repair was done yet. Choose one, with who authorised it."
                                        : "The last repair did not hold. Go back to the suspects, then choose another."));
        return "prove/prove";
    }

    /** What is said instead of offering a repair when what was found is not to be mended. */
    private static Optional<String> told(VehicleDescription d, Ranking ranking) {
        return ranking.accused()
                .flatMap(a -> d.suspect(a.suspectId()))
                .filter(s -> s.repair().told())
                .map(s -> NextCard.told(s.name()));
    }

    private Ranking ranking(JobPages.Context context) {
        return reasoning
                .of(context.job().id(), context.description(), context.link().status().supply())
                .ranking();
    }

    private static List<Option> options(VehicleDescription d, Ranking ranking) {
        List<Option> options = new ArrayList<>();
        ranking.standings().stream()
                .limit(OPTIONS)
                .forEach(
                        s ->
                                d.suspect(s.suspectId())
                                        .filter(suspect -> !suspect.repair().told())
                                        .ifPresent(
                                                suspect ->
                                                        options.add(
                                                                new Option(
                                                                        suspect.id(),
                                                                        suspect.name(),
                                                                        s.sureness(),
                                                                        suspect.repair()))));
        return options;
    }

    @PostMapping("/repair")
    String repair(
            @PathVariable("id") long id,
            @RequestParam("suspect") String suspectId,
            @RequestParam("authorised") String authorised,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Suspect> suspect = context.description().suspect(suspectId);
        if (suspect.isEmpty() || authorised.isBlank()) {
            flash.addFlashAttribute(
                    "error", "Say who authorised the repair, and choose one of the list.");
        } else {
            repairs.add(
                    id, suspectId, suspect.get().repair().name(), authorised.trim(), who.getName());
            findings.note(
                    id,
                    "prove",
                    who.getName(),
                    "Repaired: "
                            + suspect.get().repair().name()
                            + ", authorised by "
                            + authorised.trim()
                            + ".");
        }
        return "redirect:/jobs/" + id + "/prove";
    }

    @PostMapping("/failed")
    String failed(@PathVariable("id") long id, Principal who, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Proof.Verdict> verdict = proofs.of(context);
        Optional<Repairs.Repair> current = repairs.current(id);
        if (current.isEmpty() || verdict.map(v -> v.state() != Proof.State.FAILED).orElse(true)) {
            flash.addFlashAttribute("error", "Nothing has shown yet that the repair failed.");
        } else {
            repairs.failed(current.get().id());
            findings.add(
                    id,
                    "prove",
                    who.getName(),
                    current.get().name() + " did not help.",
                    Optional.of(false),
                    new Evidence.RepairFailed(current.get().suspectId()));
        }
        return "redirect:/jobs/" + id + "/trace";
    }

    /** The technician's word on the complaint, tried again after a repair. */
    @PostMapping("/complaint")
    String complaint(
            @PathVariable("id") long id,
            @RequestParam("gone") boolean gone,
            @RequestParam(name = "how", defaultValue = "") String how,
            Principal who,
            RedirectAttributes flash) {
        pages.job(id);
        if (how.isBlank()) {
            flash.addFlashAttribute("error", "Say how it was tried: where, how long, how warm.");
        } else {
            findings.add(
                    id,
                    "prove",
                    who.getName(),
                    (gone
                                    ? "Tried again, the complaint is gone: "
                                    : "Tried again, it is still there: ")
                            + how.trim(),
                    Optional.of(gone),
                    Optional.empty(),
                    null,
                    Proof.COMPLAINT);
        }
        return "redirect:/jobs/" + id + "/prove";
    }

    /** An entry that was a mistake; it stays in the story. */
    @PostMapping("/repair/take-back")
    String takeBack(
            @PathVariable("id") long id,
            @RequestParam("repair") long repair,
            Principal who,
            RedirectAttributes flash) {
        pages.job(id);
        if (repairs.takeBack(id, repair, who.getName())) {
            findings.note(id, "prove", who.getName(), "The entry of the repair was taken back.");
        } else {
            flash.addFlashAttribute("error", "There is no such entry of a repair any more.");
        }
        return "redirect:/jobs/" + id + "/prove";
    }

    /** Goes on with a job that was closed by mistake, or whose trouble came back. */
    @PostMapping("/reopen")
    String reopen(@PathVariable("id") long id, Principal who) {
        if (!pages.job(id).isOpen()) {
            jobs.reopen(id);
            shelf.remove(id);
            findings.note(id, "prove", who.getName(), "Job opened again.");
        }
        return "redirect:/jobs/" + id + "/prove";
    }

    @PostMapping("/close")
    String close(
            @PathVariable("id") long id,
            @RequestParam(name = "unproven", defaultValue = "false") boolean unproven,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Proof.Verdict> verdict = proofs.of(context);
        boolean proven = verdict.map(v -> v.state() == Proof.State.PROVEN).orElse(false);
        if (!proven && !unproven) {
            flash.addFlashAttribute(
                    "error", "Not proven yet. Show what is open, or close the job as not proven.");
            return "redirect:/jobs/" + id + "/prove";
        }
        findings.note(
                id,
                "prove",
                who.getName(),
                proven ? "Job closed, repair proven." : "Job closed, not proven.");
        jobs.close(id, Instant.now());
        if (proven) {
            shelf.add(shelfCase(context));
        }
        return "redirect:/";
    }

    private ShelfCase shelfCase(JobPages.Context context) {
        Job job = context.job();
        Repairs.Repair repair = repairs.current(job.id()).orElseThrow();
        Set<String> codes = new LinkedHashSet<>();
        leads.of(job, context.description()).ifPresent(c -> codes.add(c.code()));
        return new ShelfCase(
                job.id(),
                job.vehicleId(),
                context.description().name(),
                job.complaint(),
                job.symptoms(),
                codes,
                decisive(context),
                context.description()
                        .suspect(repair.suspectId())
                        .map(Suspect::name)
                        .orElse(repair.suspectId()),
                repair.name());
    }

    /** The findings that spoke loudest for the repaired suspect. */
    private List<String> decisive(JobPages.Context context) {
        Reasoning.State state =
                reasoning.of(
                        context.job().id(),
                        context.description(),
                        context.link().status().supply());
        String suspect =
                repairs.current(context.job().id())
                        .map(Repairs.Repair::suspectId)
                        .orElse(state.ranking().lead().suspectId());
        return state.ranking().of(suspect).stream()
                .flatMap(s -> s.contributions().stream())
                .filter(p -> p.log10Odds() > 0.1)
                .sorted((a, b) -> Double.compare(b.log10Odds(), a.log10Odds()))
                .limit(4)
                .map(p -> state.findings().get(p.evidenceIndex()).text())
                .toList();
    }

    /** All that a report tells; for the page, the PDF and the data alike. */
    /**
     * @param workshop whose report it is; empty where none was named
     */
    record Report(
            String workshop,
            Job job,
            String vehicle,
            String engine,
            List<String> symptoms,
            List<String> codesBefore,
            List<String> codesAfter,
            List<String> decisive,
            String conclusion,
            List<String> chain,
            List<Repairs.Repair> repairs,
            Proof.Verdict proof,
            List<Findings.Finding> story) {}

    private Report report(JobPages.Context context) {
        Job job = context.job();
        VehicleDescription d = context.description();
        List<Sweeps.Head> kept = sweeps.heads(job.id());
        Optional<Suspect> cause =
                repairs.current(job.id())
                        .map(Repairs.Repair::suspectId)
                        .or(() -> ranking(context).accused().map(Standing::suspectId))
                        .flatMap(d::suspect);
        return new Report(
                workshop,
                job,
                d.name(),
                d.engine(),
                d.symptoms().stream()
                        .filter(s -> job.symptoms().contains(s.id()))
                        .map(s -> s.name() + ", " + s.when())
                        .toList(),
                kept.isEmpty()
                        ? List.of()
                        : codes(sweeps.read(kept.get(kept.size() - 1).id()).sweep()),
                kept.isEmpty() ? List.of() : codes(sweeps.read(kept.get(0).id()).sweep()),
                decisive(context),
                ranking(context).sentence(),
                cause.map(Suspect::chain).orElse(List.of()),
                repairs.of(job.id()),
                proofs.of(context)
                        .orElse(
                                new Proof.Verdict(
                                        Proof.State.OPEN,
                                        "No repair was done, so nothing is proven.",
                                        List.of())),
                findings.of(job.id()));
    }

    private static List<String> codes(Sweep sweep) {
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

    @GetMapping("/report")
    String report(@PathVariable("id") long id, Model model) {
        model.addAttribute("report", report(pages.context(id)));
        model.addAttribute("format", new brightlantern.app.page.Format());
        return "prove/report";
    }

    @GetMapping("/report.json")
    ResponseEntity<String> reportData(@PathVariable("id") long id) {
        Report report = report(pages.context(id));
        Map<String, Object> data = new LinkedHashMap<>();
        data.put("format", "bright-lantern-report-1");
        data.put("report", report);
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header("Content-Disposition", "attachment; filename=\"job-" + id + ".json\"")
                .body(json.pretty(data));
    }

    @GetMapping("/report.pdf")
    ResponseEntity<byte[]> reportPdf(@PathVariable("id") long id) throws IOException {
        return pdf.of("prove/report-pdf", Map.of("report", report(pages.context(id))), "job-" + id);
    }
}
