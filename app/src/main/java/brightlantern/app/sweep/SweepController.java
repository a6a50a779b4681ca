package brightlantern.app.sweep;

import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.Occasions;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.SweepComparison;
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

/** The Sweep page: which module, which code matters? */
@Controller
@RequestMapping("/jobs/{id}/sweep")
class SweepController {
    private final JobPages pages;
    private final Sweeps sweeps;
    private final SweepRunner runner;
    private final CodeParts parts;

    SweepController(JobPages pages, Sweeps sweeps, SweepRunner runner, CodeParts parts) {
        this.pages = pages;
        this.sweeps = sweeps;
        this.runner = runner;
        this.parts = parts;
    }

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @RequestParam(name = "before", required = false) Long before,
            @RequestParam(name = "find", defaultValue = "") String find,
            @RequestParam(name = "all", defaultValue = "false") boolean all,
            @RequestParam(name = "only", defaultValue = "") String only,
            @RequestParam(name = "sort", defaultValue = "") String sort,
            @RequestParam(name = "sweep", required = false) Long sweep,
            Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        show(
                context,
                Optional.ofNullable(before),
                Optional.ofNullable(sweep),
                new SweepWanted.Wanted(find, all, only, sort),
                model);
        return "sweep/sweep";
    }

    @GetMapping("/now")
    String now(
            @PathVariable("id") long id,
            @RequestParam(name = "before", required = false) Long before,
            @RequestParam(name = "find", defaultValue = "") String find,
            @RequestParam(name = "all", defaultValue = "false") boolean all,
            @RequestParam(name = "only", defaultValue = "") String only,
            @RequestParam(name = "sort", defaultValue = "") String sort,
            Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        show(
                context,
                Optional.ofNullable(before),
                Optional.empty(),
                new SweepWanted.Wanted(find, all, only, sort),
                model);
        return "sweep/sweep :: now";
    }

    /**
     * @param looked a kept sweep that is looked at instead of the newest one, of any job of the
     *     vehicle
     */
    private void show(
            JobPages.Context context,
            Optional<Long> before,
            Optional<Long> looked,
            SweepWanted.Wanted wanted,
            Model model) {
        long id = context.job().id();
        Optional<Sweeps.Kept> older =
                looked.map(
                        l -> JobPages.found(sweeps.ofVehicle(context.job().vin(), l), "sweep", l));
        model.addAttribute("older", older.isPresent());
        Optional<Sweeps.Kept> kept = older.or(() -> sweeps.newest(id));
        Optional<Sweep> newest = kept.map(Sweeps.Kept::sweep);
        model.addAttribute("leftOut", kept.map(Sweeps.Kept::leftOut).orElse(0));
        boolean running = runner.isRunning(id) && older.isEmpty();
        Optional<Element> suspected = newest.flatMap(s -> parts.suspected(context, s));
        List<CodeWeigher.Weighed> weighed =
                newest.map(s -> parts.weigh(context, s, suspected)).orElse(List.of());
        List<CodeWeigher.Weighed> found = wanted.of(weighed);
        model.addAttribute("wanted", wanted);
        model.addAttribute("codeCount", weighed.size());
        model.addAttribute("foundCount", found.size());
        model.addAttribute("running", running);
        model.addAttribute("mileage", !context.description().mileage().isEmpty());
        model.addAttribute("sweep", newest.orElse(null));
        model.addAttribute("before", before.orElse(null));
        model.addAttribute("halfway", !running && newest.isPresent() && !newest.get().whole());
        model.addAttribute(
                "failed",
                newest.map(s -> s.count(Answer.SILENT) + s.count(Answer.FAULTY)).orElse(0L));
        model.addAttribute("map", SweepWords.map(context, newest, runner.asking(id), suspected));
        model.addAttribute("codes", SweepWords.rows(context, wanted.shown(found)));
        model.addAttribute(
                "occasions",
                Occasions.of(
                        weighed.stream()
                                .filter(w -> !w.aside())
                                .map(CodeWeigher.Weighed::code)
                                .toList(),
                        context.description().signals(),
                        OdometerController.CLOCK));
        model.addAttribute(
                "foreign", newest.map(s -> SweepWords.foreign(context, s)).orElse(List.of()));
        model.addAttribute(
                "emission",
                newest.stream()
                        .flatMap(s -> s.modules().stream())
                        .anyMatch(m -> m.emission().isPresent()));
        model.addAttribute("known", context.description().isKnown());
        model.addAttribute(
                "answer",
                runner.searching(id)
                        .orElseGet(
                                () ->
                                        SweepWords.answer(
                                                newest,
                                                weighed,
                                                running,
                                                suspected.map(CodeParts::name))));
        model.addAttribute("kept", sweeps.headsOfVehicle(context.job().vin()));
        Optional<Sweeps.Kept> earlier =
                before.flatMap(b -> sweeps.ofVehicle(context.job().vin(), b))
                        .or(
                                () ->
                                        sweeps.heads(id).stream()
                                                .skip(1)
                                                .findFirst()
                                                .map(h -> sweeps.read(h.id())));
        model.addAttribute("earlier", earlier.orElse(null));
        Optional<SweepComparison.Result> comparison =
                earlier.filter(e -> newest.isPresent() && !running)
                        .map(e -> SweepComparison.compare(e.sweep(), newest.get()));
        model.addAttribute("comparison", comparison.orElse(null));
        model.addAttribute(
                "changeMap",
                comparison
                        .filter(c -> before.isPresent())
                        .map(c -> ChangeMap.of(context.description(), newest.get(), c))
                        .orElse(null));
        List<SweepComparison.CodeChange> changes =
                comparison.map(SweepComparison.Result::codes).orElse(List.of());
        model.addAttribute(
                "changes",
                wanted.all() || changes.size() <= SweepWords.MOST_ROWS
                        ? changes
                        : changes.stream()
                                .filter(c -> c.change() != SweepComparison.Change.UNCHANGED)
                                .limit(SweepWords.MOST_ROWS)
                                .toList());
    }

    @PostMapping("/start")
    String start(
            @PathVariable("id") long id,
            @RequestParam(name = "resume", defaultValue = "false") boolean resume,
            @RequestParam(name = "search", defaultValue = "false") boolean search,
            @RequestParam(name = "asleep", defaultValue = "false") boolean asleep,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        if (context.keyOff() && !asleep) {
            flash.addFlashAttribute("keyOff", true);
        } else {
            runner.start(context, who.getName(), resume, search);
        }
        return "redirect:/jobs/" + id + "/sweep";
    }

    @PostMapping("/stop")
    String stop(@PathVariable("id") long id) {
        runner.stop(id);
        return "redirect:/jobs/" + id + "/sweep";
    }
}
