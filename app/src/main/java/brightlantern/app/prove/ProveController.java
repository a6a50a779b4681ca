package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Workshops;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Proofs;
import brightlantern.core.proof.Proof;
import brightlantern.core.proof.ProofRecord;
import brightlantern.core.reason.Ranking;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
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
    private final JobPages pages;
    private final Proofs proofs;
    private final Repairs repairs;
    private final Findings findings;
    private final Jobs jobs;
    private final Deciders deciders;
    private final Answers answers;
    private final Workshops workshops;
    private final VehicleLinks links;

    ProveController(
            JobPages pages,
            Proofs proofs,
            Repairs repairs,
            Findings findings,
            Jobs jobs,
            Deciders deciders,
            Answers answers,
            Workshops workshops,
            VehicleLinks links) {
        this.links = links;
        this.answers = answers;
        this.workshops = workshops;
        this.pages = pages;
        this.proofs = proofs;
        this.repairs = repairs;
        this.findings = findings;
        this.jobs = jobs;
        this.deciders = deciders;
    }

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "prove", model);
        Optional<Proof.Verdict> verdict = proofs.of(context);
        Ranking ranking = deciders.ranking(context);
        List<RepairOptions.Option> options =
                RepairOptions.options(context.description(), ranking, workshops.get().minute());
        Optional<Repairs.Repair> current = repairs.current(id);
        model.addAttribute("options", options);
        model.addAttribute(
                "hows",
                RepairHow.of(
                        current.map(r -> List.of(r.suspectId()))
                                .orElseGet(() -> RepairOptions.likely(options)),
                        context.description(),
                        links.procedures(context.job())));
        model.addAttribute("authorised", answers.agreed(id).map(Answers.Answer::byWhom).orElse(""));
        model.addAttribute("repairs", repairs.of(id));
        model.addAttribute("current", current.orElse(null));
        model.addAttribute("verdict", verdict.orElse(null));
        model.addAttribute("leftAlone", proofs.leftAlone(context));
        model.addAttribute("drive", proofs.drive(context).orElse(null));
        model.addAttribute(
                "proof",
                verdict.stream()
                        .flatMap(v -> v.requirements().stream())
                        .map(ProofRow::of)
                        .toList());
        model.addAttribute(
                "answer",
                verdict.map(Proof.Verdict::sentence)
                        .or(() -> RepairOptions.told(context.description(), ranking))
                        .orElse(
                                repairs.of(id).isEmpty()
                                        ? "No repair was done yet. Choose one, with who authorised it."
                                        : "The last repair did not hold. Go back to the suspects, then choose another."));
        return "prove/prove";
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
        } else if (!repairs.add(
                id, suspectId, suspect.get().repair().name(), authorised.trim(), who.getName())) {
            flash.addFlashAttribute(
                    "error",
                    "A repair was entered already and waits for its proof. Take it back first, or let the proof show that it did not help.");
        } else {
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
                    ProofRecord.COMPLAINT);
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
}
