package brightlantern.app.exercise;

import brightlantern.app.link.CommandLease;
import brightlantern.app.page.JobPages;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.ProcedureRun;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** A run that is under way: what it asks, shows, and is told. */
@Controller
@RequestMapping("/jobs/{id}/exercise")
class RunController {
    private final JobPages pages;
    private final ProcedureRuns runs;
    private final RunPictures runPictures;
    private final RunAnswers runAnswers;

    RunController(
            JobPages pages, ProcedureRuns runs, RunPictures runPictures, RunAnswers runAnswers) {
        this.pages = pages;
        this.runs = runs;
        this.runPictures = runPictures;
        this.runAnswers = runAnswers;
    }

    private LiveRun live(JobPages.Context context, long run) {
        return runs.view(context, run)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND, "There is no run " + run + "."));
    }

    @GetMapping("/runs/{run}")
    String page(
            @PathVariable("id") long id,
            @PathVariable("run") long run,
            Principal who,
            Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        ping(context, run, who.getName());
        Optional<Long> next = next(context, run, who.getName(), model);
        if (next.isPresent()) {
            return ProcedureController.run(id, next.get());
        }
        show(context, live(context, run), who.getName(), model);
        return "exercise/run";
    }

    @GetMapping("/runs/{run}/now")
    String now(
            @PathVariable("id") long id,
            @PathVariable("run") long run,
            Principal who,
            HttpServletResponse response,
            Model model) {
        JobPages.Context context = pages.context(id);
        ping(context, run, who.getName());
        next(context, run, who.getName(), model)
                .ifPresent(
                        next ->
                                response.setHeader(
                                        "HX-Redirect", "/jobs/" + id + "/exercise/runs/" + next));
        model.addAttribute("job", context.job());
        show(context, live(context, run), who.getName(), model);
        return "exercise/run :: inside";
    }

    /** The next check in turn begins when the one before it has come to its end. */
    Optional<Long> next(JobPages.Context context, long run, String me, Model model) {
        LiveRun its = live(context, run);
        if (its.run().status() != ProcedureRun.Status.CONCLUDED || !its.who().equals(me)) {
            return Optional.empty();
        }
        try {
            return runs.following(context, run, me);
        } catch (IllegalStateException shut) {
            model.addAttribute("error", shut.getMessage());
            return Optional.empty();
        }
    }

    /** Only the page of whoever commands keeps a command alive. */
    private void ping(JobPages.Context context, long run, String me) {
        if (live(context, run).who().equals(me)) {
            runs.ping(run);
        }
    }

    void show(JobPages.Context context, LiveRun its, String me, Model model) {
        CommandLease lease = context.link().lease();
        model.addAttribute("me", me);
        model.addAttribute("commander", lease.holder().orElse(""));
        model.addAttribute("asked", lease.asked().orElse(""));
        List<RunPictures.Pot> pots = RunPictures.pots(context, its.run());
        model.addAttribute("pots", pots);
        model.addAttribute(
                "potsHeight", pots.stream().mapToInt(RunPictures.Pot::y).max().orElse(0) + 44);
        ProcedureRun run = its.run();
        model.addAttribute("run", run);
        model.addAttribute("number", its.id);
        model.addAttribute("procedure", run.procedure());
        model.addAttribute("step", run.step());
        model.addAttribute("ask", run.step().act() instanceof Act.Ask ask ? ask : null);
        model.addAttribute("tell", run.step().act() instanceof Act.Tell);
        model.addAttribute(
                "holds", !run.holding().isEmpty() || run.step().act() instanceof Act.Command);
        model.addAttribute("progress", RunPictures.progress(its, run));
        model.addAttribute("present", its.present());
        model.addAttribute("gates", its.gates());
        model.addAttribute("who", its.who());
        model.addAttribute("mine", its.who().equals(me) || !run.procedure().commands());
        model.addAttribute("items", RunPictures.items(run));
        model.addAttribute(
                "picture",
                ProcedurePicture.of(
                        run.procedure(),
                        context.description(),
                        run.running() ? run.at() : "",
                        run.been()));
        model.addAttribute("charts", runPictures.charts(context, its, run));
        model.addAttribute("cells", runPictures.cells(its, run));
    }

    /** Asks whoever commands the vehicle for the command, or hands it over. */
    @PostMapping("/command/{what}")
    String command(
            @PathVariable("id") long id,
            @PathVariable("what") String what,
            @RequestParam("run") long run,
            Principal who) {
        CommandLease lease = pages.context(id).link().lease();
        if (what.equals("ask")) {
            lease.ask(who.getName());
        } else {
            lease.handOver(who.getName());
        }
        return ProcedureController.run(id, run);
    }

    @PostMapping("/runs/{run}/{what}")
    String act(
            @PathVariable("id") long id,
            @PathVariable("run") long run,
            @PathVariable("what") String what,
            @RequestParam Map<String, String> form,
            HttpServletRequest request,
            RedirectAttributes flash) {
        Principal who = request.getUserPrincipal();
        JobPages.Context context = pages.context(id);
        LiveRun its = live(context, run);
        String step = form.getOrDefault("step", "");
        try {
            RunAnswers.ownsOrStops(its, what, who.getName());
            switch (what) {
                case "done" -> runs.told(its, new Event.Pressed(step));
                case "choose" ->
                        runs.told(its, new Event.Chosen(step, form.getOrDefault("choice", "")));
                case "type" -> runAnswers.typed(its, step, form.getOrDefault("number", ""));
                case "stop" -> runs.stop(its, "Stopped by " + who.getName() + ".");
                case "resume" -> {
                    ProcedureController.mayWrite(its.run().procedure(), request);
                    runs.resume(its, who.getName());
                }
                default ->
                        throw new ResponseStatusException(
                                HttpStatus.NOT_FOUND, "A run cannot '" + what + "'.");
            }
        } catch (IllegalStateException refused) {
            flash.addFlashAttribute("error", refused.getMessage());
        }
        return ProcedureController.run(id, run);
    }
}
