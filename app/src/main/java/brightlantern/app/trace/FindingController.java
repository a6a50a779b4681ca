package brightlantern.app.trace;

import brightlantern.app.job.Findings;
import brightlantern.app.link.HandMeter;
import brightlantern.app.page.JobPages;
import brightlantern.core.reason.MeterFinding;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Suspect;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.util.Optional;
import java.util.stream.Collectors;
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
    private static final String AWAKE =
            "'%s' was not kept: the vehicle says that its key is on. While modules send, no meter reads ohms between their wires. Turn the key off, wait until all sleep, and read again.";

    private static final String OFF =
            "The clamp reads nothing, which was not kept: either it is not on, or nothing flows. Switch it on and read again (%s); where it is on, type 0.";

    /** Who reads the figure. */
    private static final String METER = "meter";

    private final JobPages pages;
    private final Findings findings;
    private final HandMeter meter;

    FindingController(JobPages pages, Findings findings, HandMeter meter) {
        this.meter = meter;
        this.pages = pages;
        this.findings = findings;
    }

    private static String back(long id) {
        return "redirect:/jobs/" + id + "/trace";
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
            flash.addFlashAttribute("error", unknown(finding, findingId, outcomeId));
        } else {
            keep(id, who, finding.get(), outcome.get(), outcome.get().name());
        }
        return back(id);
    }

    private static String unknown(Optional<Finding> finding, String findingId, String outcomeId) {
        return finding.map(
                        f ->
                                "Choose what was seen: '"
                                        + outcomeId
                                        + "' is no outcome of \""
                                        + f.name()
                                        + "\". Expected one of: "
                                        + f.outcomes().stream()
                                                .map(FindingOutcome::name)
                                                .collect(Collectors.joining("; "))
                                        + ".")
                .orElse("There is no finding '" + findingId + "' for this vehicle.");
    }

    private void keep(
            long id, Principal who, Finding finding, FindingOutcome outcome, String words) {
        findings.add(
                id,
                "trace",
                who.getName(),
                finding.name() + ": " + words + ".",
                Optional.of(outcome.healthy() >= 0.5),
                new Evidence.Outcome(finding.id(), outcome.id()));
    }

    /** What a meter reads, typed or over its wire, tells the outcome. */
    @PostMapping("/measured")
    String measured(
            @PathVariable("id") long id,
            @RequestParam("finding") String findingId,
            @RequestParam(name = "reads", defaultValue = "") String reads,
            @RequestParam(name = "by", defaultValue = "") String by,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<MeterFinding> finding = MeterFinding.of(context.description(), findingId);
        if (finding.isEmpty()) {
            flash.addFlashAttribute("error", "No meter tells the finding '" + findingId + "'.");
            return back(id);
        }
        MeterFinding its = finding.get();
        if (its.wantsKeyOff() && context.keyOn()) {
            flash.addFlashAttribute("error", AWAKE.formatted(reads.trim()));
            return back(id);
        }
        try {
            if (by.equals(METER)) {
                double figure = meter.read(context.job(), its);
                if (its.mayBeOff(figure)) {
                    flash.addFlashAttribute("error", OFF.formatted(its.finding().name()));
                } else {
                    keep(id, who, its, its.outcomeOf(figure), its.told(figure));
                }
            } else {
                keep(id, who, its, its.read("Your meter", reads), reads.trim());
            }
        } catch (IllegalArgumentException | IllegalStateException noFigure) {
            flash.addFlashAttribute("error", noFigure.getMessage());
        } catch (WireException lost) {
            flash.addFlashAttribute("error", "No reading. " + lost.getMessage());
        }
        return back(id);
    }

    private void keep(
            long id, Principal who, MeterFinding its, FindingOutcome outcome, String reads) {
        keep(id, who, its.finding(), outcome, "the meter reads " + reads + ", " + outcome.name());
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
        return back(id) + "#story";
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
        return back(id);
    }
}
