package brightlantern.app.exercise;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Json;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.Chart;
import brightlantern.app.page.JobPages;
import brightlantern.core.actuator.ActuatorRun;
import brightlantern.core.procedure.Gate;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription.Actuator;
import java.security.Principal;
import java.time.Instant;
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

/** The Exercise page: does it do what it is told? */
@Controller
@RequestMapping("/jobs/{id}/exercise")
class ExerciseController {
    private final JobPages pages;
    private final ActuatorRuns runs;
    private final ProcedureRuns procedures;
    private final KeptRuns kept;
    private final VehicleLinks links;
    private final Findings findings;
    private final Json json;

    ExerciseController(
            JobPages pages,
            ActuatorRuns runs,
            ProcedureRuns procedures,
            KeptRuns kept,
            VehicleLinks links,
            Findings findings,
            Json json) {
        this.procedures = procedures;
        this.kept = kept;
        this.links = links;
        this.pages = pages;
        this.runs = runs;
        this.findings = findings;
        this.json = json;
    }

    record ActuatorView(Actuator actuator, List<Gate> gates, boolean open) {}

    record PastRun(Findings.Finding finding, String name, Chart chart) {}

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        show(context, model);
        List<PastRun> past = past(context);
        model.addAttribute("kinds", kinds(context));
        model.addAttribute("begun", begun(context));
        model.addAttribute("past", past);
        model.addAttribute("answer", answer(context, past));
        return "exercise/exercise";
    }

    record Kind(String title, List<Procedure> procedures) {}

    private List<Kind> kinds(JobPages.Context context) {
        List<Procedure> all = links.procedures(context.job());
        return java.util.Arrays.stream(Procedure.Kind.values())
                .map(k -> new Kind(k.title(), all.stream().filter(p -> p.kind() == k).toList()))
                .filter(k -> !k.procedures().isEmpty())
                .toList();
    }

    record Begun(long id, String name, Instant at, String how) {}

    private List<Begun> begun(JobPages.Context context) {
        return kept.of(context.job().id()).stream()
                .flatMap(
                        k ->
                                procedures.view(context, k.id()).stream()
                                        .map(
                                                l ->
                                                        new Begun(
                                                                k.id(),
                                                                l.run().procedure().name(),
                                                                k.began(),
                                                                l.run().running()
                                                                        ? "under way"
                                                                        : l.run().ended())))
                .toList();
    }

    private String answer(JobPages.Context context, List<PastRun> past) {
        if (past.isEmpty()) {
            List<Findings.Finding> judged =
                    findings.of(context.job().id()).stream()
                            .filter(f -> f.stage().equals("exercise") && f.passed().isPresent())
                            .toList();
            return judged.isEmpty()
                    ? "Nothing was exercised yet. Make it do something and see whether it does what it is told."
                    : judged.get(judged.size() - 1).text();
        }
        List<String> seen = new ArrayList<>();
        List<String> sentences = new ArrayList<>();
        for (PastRun run : past) {
            if (!seen.contains(run.name())) {
                seen.add(run.name());
                sentences.add(run.finding().text());
            }
        }
        return String.join(" ", sentences);
    }

    private List<PastRun> past(JobPages.Context context) {
        List<PastRun> past = new ArrayList<>();
        List<Findings.Finding> all = findings.of(context.job().id());
        for (int i = all.size() - 1; i >= 0; i--) {
            Findings.Finding finding = all.get(i);
            if (finding.evidence().orElse(null) instanceof Evidence.Run run
                    && !finding.detail().isEmpty()) {
                Actuator actuator = context.description().actuator(run.actuatorId()).orElseThrow();
                List<ActuatorRun.Sample> samples =
                        List.of(json.read(finding.detail(), ActuatorRun.Sample[].class));
                past.add(new PastRun(finding, actuator.name(), RunChart.of(samples)));
            }
        }
        return past;
    }

    @GetMapping("/now")
    String now(
            @PathVariable("id") long id,
            @RequestParam(name = "running", defaultValue = "false") boolean wasRunning,
            jakarta.servlet.http.HttpServletResponse response,
            Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        runs.ping(id);
        show(context, model);
        if (wasRunning && Boolean.FALSE.equals(model.getAttribute("running"))) {
            // the run has ended: let the page begin anew, with its verdict
            response.setHeader("HX-Refresh", "true");
        }
        return "exercise/exercise :: now";
    }

    private void show(JobPages.Context context, Model model) {
        Optional<ActuatorRuns.View> view = runs.view(context.job().id());
        boolean running = view.map(v -> !v.done()).orElse(false);
        model.addAttribute("run", view.orElse(null));
        model.addAttribute("running", running);
        model.addAttribute("chart", view.map(v -> RunChart.of(v.samples())).orElse(null));
        model.addAttribute(
                "actuators",
                context.description().actuators().stream()
                        .map(
                                a -> {
                                    List<Gate> gates = runs.gates(context, a);
                                    return new ActuatorView(a, gates, Gate.allOpen(gates));
                                })
                        .toList());
    }

    @PostMapping("/run")
    String run(
            @PathVariable("id") long id,
            @RequestParam("actuator") String actuatorId,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        try {
            runs.start(
                    context,
                    context.description().actuator(actuatorId).orElseThrow(),
                    who.getName());
        } catch (IllegalStateException busy) {
            flash.addFlashAttribute("error", busy.getMessage());
        }
        return "redirect:/jobs/" + id + "/exercise";
    }

    @PostMapping("/stop")
    String stop(@PathVariable("id") long id, Principal who) {
        runs.stop(id, "Stopped by " + who.getName() + "; the output was given back.");
        return "redirect:/jobs/" + id + "/exercise";
    }
}
