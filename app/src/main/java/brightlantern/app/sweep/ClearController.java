package brightlantern.app.sweep;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Sweeps;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.page.JobPages;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.Words;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.util.ArrayList;
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

/** Codes cleared, after a sweep was kept. */
@Controller
@RequestMapping("/jobs/{id}/sweep")
class ClearController {
    private static final String CLEAR_ONE = "clear one";

    private static final int ALL_GROUPS = 0xFFFFFF;

    private final JobPages pages;
    private final Sweeps sweeps;
    private final SweepRunner runner;
    private final Findings findings;
    private final CommandLog log;

    ClearController(
            JobPages pages, Sweeps sweeps, SweepRunner runner, Findings findings, CommandLog log) {
        this.pages = pages;
        this.sweeps = sweeps;
        this.runner = runner;
        this.findings = findings;
        this.log = log;
    }

    @GetMapping("/clear")
    String askClear(
            @PathVariable("id") long id,
            @RequestParam(name = "module", defaultValue = "") String module,
            Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        boolean kept = sweeps.newestWhole(id).isPresent();
        model.addAttribute("kept", kept && !runner.isRunning(id));
        model.addAttribute("module", context.description().module(module).orElse(null));
        return "sweep/clear";
    }

    @PostMapping("/clear")
    String clear(
            @PathVariable("id") long id,
            @RequestParam(name = "module", defaultValue = "") String module,
            @RequestParam("why") String why,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        if (runner.isRunning(id) || sweeps.newestWhole(id).isEmpty()) {
            flash.addFlashAttribute("error", "Nothing was cleared: keep a whole sweep first.");
            return "redirect:/jobs/" + id + "/sweep";
        }
        List<ControlModule> targets =
                context.description().modules().stream()
                        .filter(m -> module.isEmpty() || m.id().equals(module))
                        .toList();
        List<String> refused = new ArrayList<>();
        try {
            context.link().lease().claim(who.getName());
            for (ControlModule target : targets) {
                long line =
                        log.begin(
                                context.job(),
                                who.getName(),
                                CLEAR_ONE,
                                "clear codes of " + target.name(),
                                why.isBlank() ? "no reason given" : why,
                                CommandLog.SENT);
                Optional<WireException> failure = clearOne(context.link(), target);
                failure.ifPresent(f -> refused.add(target.name() + ": " + f.getMessage()));
                log.complete(
                        line,
                        // only a clear of the whole vehicle starts a proof
                        module.isEmpty() && failure.isEmpty() ? CommandLog.CLEAR : CLEAR_ONE,
                        VehicleLink.answerOf(failure));
            }
            findings.note(
                    id,
                    "sweep",
                    who.getName(),
                    "Codes cleared in "
                            + (targets.size() - refused.size())
                            + " of "
                            + Words.count(targets.size(), "module")
                            + ".");
            flash.addFlashAttribute(
                    "notice",
                    "Cleared "
                            + (targets.size() - refused.size())
                            + " of "
                            + Words.count(targets.size(), "module")
                            + ". Key off, key on, and sweep again: what comes back first is the lead.");
        } catch (IllegalStateException held) {
            refused.add(held.getMessage());
        } finally {
            context.link().lease().release(who.getName());
        }
        if (!refused.isEmpty()) {
            flash.addFlashAttribute("error", String.join(" · ", refused));
        }
        return "redirect:/jobs/" + id + "/sweep";
    }

    private static Optional<WireException> clearOne(VehicleLink link, ControlModule target) {
        try {
            link.module(target.address()).clear(ALL_GROUPS);
            return Optional.empty();
        } catch (WireException failed) {
            return Optional.of(failed);
        }
    }
}
