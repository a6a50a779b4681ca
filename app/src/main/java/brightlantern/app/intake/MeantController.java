package brightlantern.app.intake;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.page.JobPages;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Symptom;
import java.security.Principal;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What a complaint means, said after the job was opened. */
@Controller
class MeantController {
    private final JobPages pages;
    private final Jobs jobs;
    private final Findings findings;

    MeantController(JobPages pages, Jobs jobs, Findings findings) {
        this.pages = pages;
        this.jobs = jobs;
        this.findings = findings;
    }

    @PostMapping("/jobs/{id}/meant")
    String meant(
            @PathVariable("id") long id,
            @RequestParam(name = "symptom", defaultValue = "") Set<String> symptoms,
            @RequestParam(name = "none", defaultValue = "false") boolean none,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Job job = context.job();
        List<Symptom> told =
                context.description().symptoms().stream()
                        .filter(s -> symptoms.contains(s.id()))
                        .filter(s -> !job.symptoms().contains(s.id()))
                        .toList();
        if (none) {
            findings.add(
                    id,
                    "intake",
                    who.getName(),
                    "The complaint is none of those that are described.",
                    Optional.empty(),
                    Optional.empty(),
                    null,
                    JobPages.COMPLAINT_ASKED);
        } else if (told.isEmpty()) {
            flash.addFlashAttribute(
                    "error",
                    "Complaint: expected one or more that are not told yet, found none. Tick what is meant, or say that it is none of these.");
            return "redirect:/jobs/" + id + "/intake#meant";
        } else {
            Set<String> all = new LinkedHashSet<>(job.symptoms());
            told.forEach(s -> all.add(s.id()));
            jobs.symptoms(id, all);
            told.forEach(
                    s ->
                            findings.add(
                                    id,
                                    "intake",
                                    who.getName(),
                                    OpeningController.told(s),
                                    Optional.empty(),
                                    new Evidence.SymptomTold(s.id())));
            flash.addFlashAttribute("notice", "Kept, and weighed: see Trace.");
        }
        return "redirect:/jobs/" + id + "/intake";
    }
}
