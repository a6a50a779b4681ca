package brightlantern.app.sweep;

import brightlantern.app.page.JobPages;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Guided: clear, key off, key on, and see what comes back first. */
@Controller
@RequestMapping("/jobs/{id}/sweep/come-back")
class ComeBackController {
    private final JobPages pages;
    private final ComeBack comeBack;
    private final NetworkFindings network;

    ComeBackController(JobPages pages, ComeBack comeBack, NetworkFindings network) {
        this.pages = pages;
        this.comeBack = comeBack;
        this.network = network;
    }

    record Row(int place, String seconds, String module, String code, String name) {}

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        show(pages.fill(id, "sweep", model), model);
        return "sweep/comeback";
    }

    @GetMapping("/now")
    String now(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        show(context, model);
        return "sweep/comeback :: now";
    }

    private void show(JobPages.Context context, Model model) {
        ComeBack.Step step = comeBack.step(context.job().id());
        Optional<ComeBack.Watch> watch = comeBack.of(context.job().id());
        List<ComeBack.Back> back = watch.map(ComeBack.Watch::back).orElse(List.of());
        List<Row> rows = new ArrayList<>();
        for (ComeBack.Back b : back) {
            rows.add(
                    new Row(
                            rows.size() + 1,
                            String.format(Locale.ROOT, "%.1f s", b.seconds()),
                            b.module(),
                            b.code(),
                            b.name()));
        }
        model.addAttribute("step", step.name());
        model.addAttribute("rows", rows);
        model.addAttribute("listened", watch.isPresent());
        model.addAttribute("answer", answer(step, watch, back));
    }

    private static String answer(
            ComeBack.Step step, Optional<ComeBack.Watch> watch, List<ComeBack.Back> back) {
        return switch (step) {
            case CLEAR ->
                    "First clear the codes of all modules; what comes back afterwards matters.";
            case KEY_OFF_AND_ON ->
                    "Cleared. Now turn the key off, wait until the modules sleep, and turn it on.";
            case LISTEN ->
                    watch.isEmpty()
                            ? "The key is on again. Listen for what comes back, and bring the complaint about: drive, load, wiggle."
                            : ended(back);
            case LISTENING ->
                    back.isEmpty()
                            ? String.format(
                                    Locale.ROOT,
                                    "Listening for %.0f s: nothing came back yet.",
                                    watch.map(ComeBack.Watch::seconds).orElse(0.0))
                            : "First back: " + first(back) + ".";
        };
    }

    private static String ended(List<ComeBack.Back> back) {
        return back.isEmpty()
                ? "Nothing came back while you listened."
                : "First back was " + first(back) + ": chase that one.";
    }

    private static String first(List<ComeBack.Back> back) {
        ComeBack.Back b = back.get(0);
        return b.code() + ", " + b.name() + " (" + b.module() + ")";
    }

    @PostMapping("/start")
    String start(@PathVariable("id") long id, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        if (comeBack.step(id) != ComeBack.Step.LISTEN) {
            flash.addFlashAttribute(
                    "error", "Not yet: clear all modules, then key off and on, then listen.");
        } else {
            comeBack.start(context, network.fitted(context));
        }
        return "redirect:/jobs/" + id + "/sweep/come-back";
    }

    @PostMapping("/stop")
    String stop(@PathVariable("id") long id, Principal who) {
        comeBack.stop(pages.context(id), who.getName());
        return "redirect:/jobs/" + id + "/sweep/come-back";
    }
}
