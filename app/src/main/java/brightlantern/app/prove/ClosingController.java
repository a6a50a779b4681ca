package brightlantern.app.prove;

import brightlantern.app.job.Customers;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Shelf;
import brightlantern.app.job.Workshops;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Proofs;
import brightlantern.core.proof.Proof;
import brightlantern.core.proof.RepairWays;
import brightlantern.core.reason.Standing;
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
    private final Workshops workshops;
    private final Customers customers;

    ClosingController(
            JobPages pages,
            Proofs proofs,
            Repairs repairs,
            Findings findings,
            Shelf shelf,
            Jobs jobs,
            LeadCodes leads,
            Deciders deciders,
            Workshops workshops,
            Customers customers) {
        this.customers = customers;
        this.workshops = workshops;
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

    /** Forgets what a closed job keeps of its customer; what was found stays. */
    @PostMapping("/forget")
    String forget(@PathVariable("id") long id, Principal who, RedirectAttributes flash) {
        if (pages.job(id).isOpen()) {
            flash.addFlashAttribute("error", "The job is open; close it first.");
        } else {
            customers.forget(id);
            findings.note(id, "prove", who.getName(), "What was the customer's was forgotten.");
            flash.addFlashAttribute(
                    "notice",
                    "Forgotten: the complaint's words, plate, names, pictures, signature.");
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
        Optional<Suspect> cause = context.description().suspect(repair.suspectId());
        return new ShelfCase(
                job.id(),
                job.vehicleId(),
                context.description().name(),
                job.complaint(),
                job.symptoms(),
                codes,
                deciders.decisive(context),
                cause.map(Suspect::name).orElse(repair.suspectId()),
                repair.name(),
                repair.suspectId(),
                deciders.ranking(context).of(repair.suspectId()).map(Standing::size).orElse(""),
                cause.map(s -> s.repair().minutes()).orElse(0.0),
                cause.map(s -> RepairWays.price(s, workshops.get().minute())).orElse(0.0),
                "");
    }
}
