package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Workshops;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.Format;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Pdf;
import brightlantern.core.proof.RepairWays;
import brightlantern.core.reason.Standing;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.RepairWay;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.IOException;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What the customer can choose between, and what they said. */
@Controller
@RequestMapping("/jobs/{id}/prove/options")
class CustomerController {
    /** Less likely causes are nothing to spend money on. */
    private static final double LIKELY = 0.1;

    private static final int MOST_CAUSES = 3;
    private static final List<String> HOW = List.of("by telephone", "at the counter", "in writing");

    private final JobPages pages;
    private final Deciders deciders;
    private final Answers answers;
    private final Findings findings;
    private final Workshops workshops;
    private final VehicleLinks links;
    private final Pdf pdf;

    CustomerController(
            JobPages pages,
            Deciders deciders,
            Answers answers,
            Findings findings,
            Workshops workshops,
            VehicleLinks links,
            Pdf pdf) {
        this.links = links;
        this.pdf = pdf;
        this.workshops = workshops;
        this.pages = pages;
        this.deciders = deciders;
        this.answers = answers;
        this.findings = findings;
    }

    /**
     * @param said what was said so far, each in a sentence
     */
    record Offer(String answer, List<Cause> causes, List<String> how, List<String> said) {}

    /**
     * A cause with the ways to mend it.
     *
     * @param afterwards what must be learned or coded then
     */
    record Cause(String name, String sure, List<Choice> ways, List<RepairHow.Then> afterwards) {}

    /**
     * @param id names it in the form
     */
    record Choice(String id, RepairWay way) {}

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        model.addAttribute("view", offer(pages.fill(id, "prove", model)));
        return "prove/customer";
    }

    /** The same on paper, to be sent. */
    @GetMapping("/offer.pdf")
    ResponseEntity<byte[]> paper(@PathVariable("id") long id) throws IOException {
        JobPages.Context context = pages.context(id);
        return pdf.of(
                "prove/customer-pdf",
                Map.of(
                        "job",
                        context.job(),
                        "vehicle",
                        context.description().name(),
                        "view",
                        offer(context)),
                "job-" + id + "-offer");
    }

    private Offer offer(JobPages.Context context) {
        List<Cause> causes = causes(context);
        return new Offer(
                causes.isEmpty()
                        ? "Nothing is likely enough yet to offer a repair for."
                        : "What can be done, and what does it cost?",
                causes,
                HOW,
                answers.of(context.job().id()).stream().map(CustomerController::said).toList());
    }

    private static String said(Answers.Answer a) {
        return (a.agreed() ? "Agreed: " : "Refused: ")
                + a.way()
                + ", "
                + Math.round(a.price())
                + ". "
                + a.byWhom()
                + ", "
                + a.how()
                + ", "
                + Format.time(a.at())
                + ", noted by "
                + a.who()
                + ".";
    }

    private List<Cause> causes(JobPages.Context context) {
        VehicleDescription d = context.description();
        List<Cause> causes = new ArrayList<>();
        for (Standing s : deciders.ranking(context).standings()) {
            Optional<Suspect> suspect = d.suspect(s.suspectId()).filter(x -> !x.repair().told());
            if (suspect.isEmpty() || s.sureness() < LIKELY || causes.size() >= MOST_CAUSES) {
                continue;
            }
            List<RepairWay> ways =
                    RepairWays.of(suspect.get(), d.circuits(), workshops.get().minute());
            List<Choice> choices = new ArrayList<>();
            for (int i = 0; i < ways.size(); i++) {
                choices.add(new Choice(s.suspectId() + "/" + i, ways.get(i)));
            }
            causes.add(
                    new Cause(
                            s.name(),
                            Words.percent(s.sureness()),
                            choices,
                            RepairHow.of(suspect.get(), d, links.procedures(context.job()))
                                    .afterwards()));
        }
        return causes;
    }

    @PostMapping
    String answered(
            @PathVariable("id") long id,
            @RequestParam(name = "way", defaultValue = "") String choice,
            @RequestParam("agreed") boolean agreed,
            @RequestParam("by") String by,
            @RequestParam("how") String how,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Choice> chosen =
                causes(context).stream()
                        .flatMap(c -> c.ways().stream())
                        .filter(w -> w.id().equals(choice))
                        .findFirst();
        if (chosen.isEmpty() || by.isBlank() || !HOW.contains(how)) {
            flash.addFlashAttribute(
                    "error",
                    "Choose one of the ways, and say who answered and how; nothing was kept.");
        } else {
            RepairWay way = chosen.get().way();
            Answers.Answer answer =
                    new Answers.Answer(
                            Instant.now(),
                            choice.substring(0, choice.lastIndexOf('/')),
                            way.name(),
                            way.price(),
                            agreed,
                            by.trim(),
                            how,
                            who.getName());
            answers.add(id, answer);
            findings.note(id, "prove", who.getName(), said(answer));
        }
        return "redirect:/jobs/" + id + "/prove/options";
    }
}
