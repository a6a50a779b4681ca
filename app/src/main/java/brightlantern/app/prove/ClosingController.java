package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Shelf;
import brightlantern.app.page.JobPages;
import brightlantern.core.proof.Proof;
import brightlantern.core.shelf.ShelfCase;
import brightlantern.core.suspect.Suspect;
import java.security.Principal;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** A job is closed, and may be opened again. */
@Controller
@RequestMapping("/jobs/{id}/prove")
class ClosingController {
    private final JobPages pages;
    private final Proofs proofs;
    private final Repairs repairs;
    private final Findings findings;
    private final Shelf shelf;
    private final Jobs jobs;
    private final LeadCodes leads;
    private final Deciders deciders;

    ClosingController(
            JobPages pages,
            Proofs proofs,
            Repairs repairs,
            Findings findings,
            Shelf shelf,
            Jobs jobs,
            LeadCodes leads,
            Deciders deciders) {
        this.pages = pages;
        this.proofs = proofs;
        this.repairs = repairs;
        this.findings = findings;
        this.shelf = shelf;
        this.jobs = jobs;
        this.leads = leads;
        this.deciders = deciders;
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
                deciders.decisive(context),
                context.description()
                        .suspect(repair.suspectId())
                        .map(Suspect::name)
                        .orElse(repair.suspectId()),
                repair.name());
    }
}
