package brightlantern.app.sweep;

import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.core.network.ControlModule;
import brightlantern.core.sweep.Sweep;
import brightlantern.wire.WireException;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** One module: what it holds and what it can tell. */
@Controller
@RequestMapping("/jobs/{id}/sweep")
class ModuleController {
    private final JobPages pages;
    private final Sweeps sweeps;
    private final CodeParts parts;

    ModuleController(JobPages pages, Sweeps sweeps, CodeParts parts) {
        this.pages = pages;
        this.sweeps = sweeps;
        this.parts = parts;
    }

    @GetMapping("/modules/{module}")
    String module(@PathVariable("id") long id, @PathVariable("module") String module, Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        Optional<Sweep> newest = sweeps.newest(id).map(Sweeps.Kept::sweep);
        model.addAttribute(
                "module", JobPages.found(context.description().module(module), "module", module));
        model.addAttribute("result", newest.flatMap(s -> s.module(module)).orElse(null));
        model.addAttribute(
                "codes",
                newest
                        .map(s -> SweepWords.rows(context, parts.weigh(context, s)))
                        .orElse(List.of())
                        .stream()
                        .filter(c -> c.weighed().code().moduleId().equals(module))
                        .toList());
        return "sweep/module";
    }

    /** All codes that a module can set, with their present status, asked now (0x19 0A). */
    @GetMapping("/modules/{module}/supported")
    String supported(
            @PathVariable("id") long id, @PathVariable("module") String module, Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        ControlModule asked =
                JobPages.found(context.description().module(module), "module", module);
        model.addAttribute("module", asked);
        try {
            model.addAttribute(
                    "codes", ModuleAsker.supported(context.link(), context.description(), asked));
        } catch (WireException silent) {
            model.addAttribute("codes", List.of());
            model.addAttribute("error", asked.name() + ": " + silent.getMessage());
        }
        return "sweep/supported";
    }
}
