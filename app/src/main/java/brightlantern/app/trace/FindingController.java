package brightlantern.app.trace;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Suspect;
import java.security.Principal;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What a technician enters: a finding, one taken back, a suspect ruled out. */
@Controller
@RequestMapping("/jobs/{id}/trace")
class FindingController {
    private final JobPages pages;
    private final Findings findings;

    FindingController(JobPages pages, Findings findings) {
        this.pages = pages;
        this.findings = findings;
    }

    @PostMapping("/finding")
    String finding(
            @PathVariable("id") long id,
            @RequestParam("finding") String findingId,
            @RequestParam("outcome") String outcomeId,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Finding> finding = context.description().finding(findingId);
        Optional<FindingOutcome> outcome =
                finding.flatMap(
                        f ->
                                f.outcomes().stream()
                                        .filter(o -> o.id().equals(outcomeId))
                                        .findFirst());
        if (outcome.isEmpty()) {
            flash.addFlashAttribute(
                    "error",
                    "Choose what was seen: '" + outcomeId + "' is no outcome of that finding.");
        } else {
            findings.add(
                    id,
                    "trace",
                    who.getName(),
                    finding.get().name() + ": " + outcome.get().name() + ".",
                    Optional.of(outcome.get().healthy() >= 0.5),
                    new Evidence.Outcome(findingId, outcomeId));
        }
        return "redirect:/jobs/" + id + "/trace";
    }

    /** Entered by mistake: it stays in the story and weighs no more. */
    @PostMapping("/take-back")
    String takeBack(
            @PathVariable("id") long id,
            @RequestParam("finding") long finding,
            Principal who,
            RedirectAttributes flash) {
        pages.job(id);
        if (!findings.takeBack(id, finding, who.getName())) {
            flash.addFlashAttribute("error", "That finding was taken back already.");
        }
        return "redirect:/jobs/" + id + "/trace#story";
    }

    @PostMapping("/rule-out")
    String ruleOut(
            @PathVariable("id") long id,
            @RequestParam("suspect") String suspectId,
            @RequestParam("reason") String reason,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Suspect> suspect = context.description().suspect(suspectId);
        if (suspect.isEmpty() || reason.isBlank()) {
            flash.addFlashAttribute(
                    "error", "A suspect is ruled out with a reason only; say how you know.");
        } else {
            findings.add(
                    id,
                    "trace",
                    who.getName(),
                    "Ruled out: " + suspect.get().name() + ". " + reason.trim(),
                    Optional.empty(),
                    new Evidence.RuledOut(suspectId, reason.trim()));
        }
        return "redirect:/jobs/" + id + "/trace";
    }
}
