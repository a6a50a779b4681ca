package brightlantern.app.intake;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.Vin;
import brightlantern.wire.transport.VehicleAddress;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The list of jobs, the making of a new one, and the Intake page. */
@Controller
class IntakeController {
    private static final int MOST_ALIKE = 5;

    private final JobPages pages;
    private final Jobs jobs;
    private final Findings findings;
    private final Sweeps sweeps;
    private final EarlierJobs earlier;

    IntakeController(
            JobPages pages, Jobs jobs, Findings findings, Sweeps sweeps, EarlierJobs earlier) {
        this.pages = pages;
        this.jobs = jobs;
        this.findings = findings;
        this.sweeps = sweeps;
        this.earlier = earlier;
    }

    record Stored(String module, String vin, boolean same) {}

    @GetMapping("/jobs/{id}/intake")
    String intake(@PathVariable("id") long id, Model model) {
        Job job = pages.job(id);
        JobPages.Context context = pages.fill(id, "intake", model);
        Optional<Sweep> newest = sweeps.newest(id).map(Sweeps.Kept::sweep);
        List<Stored> vins = new ArrayList<>();
        newest.ifPresent(
                s ->
                        s.modules().stream()
                                .filter(m -> !m.identity().getOrDefault("VIN", "").isEmpty())
                                .forEach(
                                        m ->
                                                vins.add(
                                                        new Stored(
                                                                m.name(),
                                                                m.identity().get("VIN"),
                                                                m.identity()
                                                                        .get("VIN")
                                                                        .equals(job.vin())))));
        model.addAttribute("vins", vins);
        model.addAttribute("before", earlier.of(job.vin(), id));
        model.addAttribute(
                "told",
                context.description().symptoms().stream()
                        .filter(s -> job.symptoms().contains(s.id()))
                        .toList());
        List<Symptom> meant = pages.meant(context);
        model.addAttribute("meant", meant);
        model.addAttribute(
                "others",
                context.description().symptoms().stream()
                        .filter(s -> !job.symptoms().contains(s.id()) && !meant.contains(s))
                        .toList());
        model.addAttribute("vinGood", new Vin(job.vin()).checkDigitHolds());
        model.addAttribute("alike", pages.alike(context, MOST_ALIKE));
        model.addAttribute(
                "repairs",
                context.description().suspects().stream()
                        .filter(s -> !s.repair().told())
                        .map(s -> s.repair().name())
                        .distinct()
                        .sorted()
                        .toList());
        model.addAttribute("agos", AGO.stream().map(Ago::words).toList());
        return "intake/intake";
    }

    /** How long ago something was done, as somebody tells it. */
    record Ago(String words, double months) {}

    private static final List<Ago> AGO =
            List.of(
                    new Ago("within a month", 0.5),
                    new Ago("one to six months ago", 3),
                    new Ago("half a year to two years ago", 14));

    /** Something was worked on before the complaint came. */
    @PostMapping("/jobs/{id}/worked-on")
    String workedOn(
            @PathVariable("id") long id,
            @RequestParam("what") String what,
            @RequestParam("ago") int ago,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Suspect> suspect =
                context.description().suspects().stream()
                        .filter(s -> s.repair().name().equalsIgnoreCase(what.trim()))
                        .findFirst();
        if (suspect.isEmpty() || ago < 0 || ago >= AGO.size()) {
            flash.addFlashAttribute(
                    "error",
                    "Earlier repair: expected one of the repairs in the list, found '"
                            + what
                            + "'. What is not in it is told with a note.");
        } else {
            findings.add(
                    id,
                    "intake",
                    who.getName(),
                    "Done before this complaint, "
                            + AGO.get(ago).words()
                            + ": "
                            + suspect.get().repair().name()
                            + ".",
                    Optional.empty(),
                    new Evidence.WorkedOn(suspect.get().id(), AGO.get(ago).months()));
            flash.addFlashAttribute("notice", "Kept, and weighed: see Trace.");
        }
        return "redirect:/jobs/" + id + "/intake";
    }

    @PostMapping("/jobs/{id}/note")
    String note(
            @PathVariable("id") long id,
            @RequestParam("stage") String stage,
            @RequestParam("text") String text,
            Principal who) {
        pages.job(id);
        if (!text.isBlank() && JobPages.STAGES.contains(stage)) {
            findings.note(id, stage, who.getName(), text.trim());
        }
        return "redirect:/jobs/" + id + "/" + (JobPages.STAGES.contains(stage) ? stage : "intake");
    }

    @PostMapping("/jobs/{id}/address")
    String address(
            @PathVariable("id") long id,
            @RequestParam("address") String address,
            RedirectAttributes flash) {
        pages.job(id);
        try {
            jobs.address(id, VehicleAddress.parse(address).text());
        } catch (IllegalArgumentException malformed) {
            flash.addFlashAttribute("error", malformed.getMessage());
        }
        return "redirect:/jobs/" + id + "/intake";
    }

    /** The vehicle as it is reached now, for a person who asks why nothing answers. */
    @GetMapping("/jobs/{id}/link")
    @ResponseBody
    Map<String, Object> link(@PathVariable("id") long id) {
        return Map.of("head", pages.head(pages.context(id)));
    }
}
