package brightlantern.app.exercise;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.sound.InjectorSound;
import brightlantern.core.sound.Wav;
import brightlantern.core.suspect.Evidence;
import java.io.IOException;
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
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The sound of injectors, cold and warm, from recordings or by ear. */
@Controller
@RequestMapping("/jobs/{id}/exercise/sound")
class SoundController {
    private static final String FINDING = "injector-sound";

    private final JobPages pages;
    private final KeptSounds kept;
    private final Findings findings;

    SoundController(JobPages pages, KeptSounds kept, Findings findings) {
        this.pages = pages;
        this.kept = kept;
        this.findings = findings;
    }

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        Optional<InjectorSound.Verdict> cold = kept.newest(id, false);
        Optional<InjectorSound.Verdict> warm = kept.newest(id, true);
        model.addAttribute("cold", cold.orElse(null));
        model.addAttribute("warm", warm.orElse(null));
        model.addAttribute("order", order(context));
        model.addAttribute("answer", answer(cold, warm));
        return "exercise/sound";
    }

    private static String answer(
            Optional<InjectorSound.Verdict> cold, Optional<InjectorSound.Verdict> warm) {
        if (cold.isPresent() && warm.isPresent()) {
            return InjectorSound.together(cold.get(), warm.get());
        }
        return warm.map(InjectorSound.Verdict::sentence)
                .or(
                        () ->
                                cold.map(
                                        c ->
                                                c.sentence()
                                                        + " Heard cold, this tells nothing of a"
                                                        + " fault: listen again when it is warm."))
                .orElse("Does one injector sound unlike its fellows?");
    }

    private static List<Integer> order(JobPages.Context context) {
        return context.description().cylinders().map(c -> c.order()).orElse(List.of());
    }

    @PostMapping
    String measure(
            @PathVariable("id") long id,
            @RequestParam("file") MultipartFile file,
            @RequestParam("warm") boolean warm,
            Principal who,
            RedirectAttributes flash)
            throws IOException {
        JobPages.Context context = pages.context(id);
        try {
            InjectorSound.Verdict verdict =
                    InjectorSound.judge(Wav.read(file.getBytes()), order(context));
            kept.keep(id, warm, who.getName(), verdict);
            found(context, warm, who.getName(), verdict);
        } catch (IllegalArgumentException bad) {
            String name = Optional.ofNullable(file.getOriginalFilename()).orElse("the file");
            flash.addFlashAttribute("error", name + ": " + bad.getMessage() + ".");
        }
        return "redirect:/jobs/" + id + "/exercise/sound";
    }

    /** What was heard by ear: the number of the dull one, 0 for none. */
    @PostMapping("/ear")
    String ear(
            @PathVariable("id") long id,
            @RequestParam("dull") int dull,
            @RequestParam("warm") boolean warm,
            Principal who) {
        JobPages.Context context = pages.context(id);
        boolean known = order(context).contains(dull);
        InjectorSound.Verdict verdict =
                new InjectorSound.Verdict(
                        true,
                        known ? Optional.of(dull) : Optional.empty(),
                        known
                                ? "Injector " + dull + " sounds dull among its fellows."
                                : "All injectors sound alike.",
                        List.of("Judged by ear."),
                        List.of());
        kept.keep(id, warm, who.getName(), verdict);
        found(context, warm, who.getName(), verdict);
        return "redirect:/jobs/" + id + "/exercise/sound";
    }

    /** Only a warm engine tells of a fault: cold ones are dull throughout. */
    private void found(
            JobPages.Context context, boolean warm, String who, InjectorSound.Verdict verdict) {
        String outcome =
                verdict.dull()
                        .map(n -> "dull-" + n)
                        .orElse(
                                verdict.cylinders().stream().anyMatch(c -> c.dull())
                                        ? "uneven"
                                        : "even");
        boolean described =
                context.description().finding(FINDING).stream()
                        .flatMap(f -> f.outcomes().stream())
                        .anyMatch(o -> o.id().equals(outcome));
        findings.add(
                context.job().id(),
                "exercise",
                who,
                (warm ? "Warm: " : "Cold: ") + verdict.sentence(),
                warm && verdict.judged() ? Optional.of(outcome.equals("even")) : Optional.empty(),
                warm && verdict.judged() && described
                        ? Optional.of(new Evidence.Outcome(FINDING, outcome))
                        : Optional.empty(),
                verdict.reasons(),
                "injector sound");
    }
}
