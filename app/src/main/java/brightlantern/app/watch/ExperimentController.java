package brightlantern.app.watch;

import brightlantern.app.page.JobPages;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.signal.Value;
import brightlantern.core.study.steps.SteppedExperiment;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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

/** Stepped experiment: set an input by hand, let it settle, read, and set it again. */
@Controller
@RequestMapping("/jobs/{id}/watch/experiment")
class ExperimentController {
    private static final double LONGEST_SETTLING = 30;

    private final JobPages pages;
    private final KeptStudies kept;

    ExperimentController(JobPages pages, KeptStudies kept) {
        this.pages = pages;
        this.kept = kept;
    }

    @GetMapping
    String list(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        VehicleDescription d = context.description();
        model.addAttribute(
                "values",
                d.values().stream().filter(v -> !v.isState()).map(v -> Shown.of(d, v)).toList());
        model.addAttribute("experiments", kept.experiments(id));
        return "watch/experiments";
    }

    @PostMapping
    String begin(
            @PathVariable("id") long id,
            @RequestParam("name") String name,
            @RequestParam(name = "input", defaultValue = "") String input,
            @RequestParam(name = "inputName", defaultValue = "") String inputName,
            @RequestParam("answer") String answer,
            @RequestParam("settle") double settle,
            @RequestParam("drift") double drift,
            @RequestParam(name = "low", required = false) Double low,
            @RequestParam(name = "high", required = false) Double high,
            RedirectAttributes flash) {
        VehicleDescription d = pages.context(id).description();
        Optional<String> wrong =
                d.value(answer).isEmpty()
                        ? Optional.of(
                                "Answer: expected a value of this vehicle, found '" + answer + "'")
                        : !input.isEmpty() && d.value(input).isEmpty()
                                ? Optional.of(
                                        "Input: expected a value of this vehicle, found '"
                                                + input
                                                + "'")
                                : !(settle > 0.5 && settle <= LONGEST_SETTLING)
                                        ? Optional.of(
                                                "Settling time: expected 0.5 to "
                                                        + LONGEST_SETTLING
                                                        + " s, found "
                                                        + settle)
                                        : !(drift > 0)
                                                ? Optional.of(
                                                        "Allowed drift: expected a number above zero, found "
                                                                + drift)
                                                : low != null && high != null && low >= high
                                                        ? Optional.of(
                                                                "Permitted band: the lower end must be below the upper one")
                                                        : Optional.empty();
        if (wrong.isPresent()) {
            flash.addFlashAttribute("error", wrong.get() + ".");
            return "redirect:/jobs/" + id + "/watch/experiment";
        }
        long made =
                kept.begin(
                        id,
                        new Experiment(
                                name.isBlank() ? "experiment" : name.trim(),
                                input,
                                input.isEmpty()
                                        ? (inputName.isBlank() ? "input" : inputName.trim())
                                        : d.value(input).map(Value::name).orElse(input),
                                answer,
                                settle,
                                drift,
                                Optional.ofNullable(low),
                                Optional.ofNullable(high),
                                List.of()));
        return "redirect:/jobs/" + id + "/watch/experiment/" + made;
    }

    private Experiment one(long id, long experiment) {
        return kept.experiment(id, experiment)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "There is no experiment " + experiment + "."));
    }

    @GetMapping("/{experiment}")
    String page(@PathVariable("id") long id, @PathVariable("experiment") long number, Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        Experiment experiment = one(id, number);
        Value answer = context.description().value(experiment.answer()).orElseThrow();
        model.addAttribute("experiment", experiment);
        model.addAttribute("number", number);
        model.addAttribute("answerValue", Shown.of(context.description(), answer));
        model.addAttribute("answer", experiment.sentence(context.description()));
        model.addAttribute(
                "findings",
                context.description().findings().stream()
                        .filter(f -> !Reasoners.isDerived(f))
                        .toList());
        model.addAttribute("chart", ExperimentChart.chart(experiment, answer).orElse(null));
        return "watch/experiment";
    }

    /** Reads while it settles; keeps the reading only when it has. */
    @PostMapping("/{experiment}/read")
    String read(
            @PathVariable("id") long id,
            @PathVariable("experiment") long number,
            @RequestParam(name = "input", required = false) Double typed,
            RedirectAttributes flash)
            throws InterruptedException {
        JobPages.Context context = pages.context(id);
        Experiment e = one(id, number);
        VehicleDescription d = context.description();
        String back = "redirect:/jobs/" + id + "/watch/experiment/" + number;
        if (e.input().isEmpty() && (typed == null || !Double.isFinite(typed))) {
            flash.addFlashAttribute(
                    "error", e.inputName() + ": expected a number; type what was set.");
            return back;
        }
        Set<String> ids = new LinkedHashSet<>(List.of(e.answer()));
        if (!e.input().isEmpty()) {
            ids.add(e.input());
        }
        Map<String, Take.Column> came = LiveSpan.read(context, ids, e.settleSeconds() + 0.3);
        Take.Column answers = came.get(e.answer());
        double until = answers.size() == 0 ? 0 : answers.seconds(answers.size() - 1);
        double input = typed == null ? Double.NaN : typed;
        if (!e.input().isEmpty()) {
            Take.Column inputs = came.get(e.input());
            double sum = 0;
            for (int i = 0; i < inputs.size(); i++) {
                sum += inputs.value(i);
            }
            input = sum / inputs.size();
        }
        SteppedExperiment.Attempt attempt =
                SteppedExperiment.read(answers, until, input, e.settling());
        if (attempt.reading().isEmpty() || !Double.isFinite(input)) {
            flash.addFlashAttribute("error", "Not taken. " + attempt.why());
            flash.addFlashAttribute("typed", typed);
        } else {
            kept.replace(number, e.with(attempt.reading().get()));
        }
        return back;
    }

    @PostMapping("/{experiment}/remove")
    String remove(
            @PathVariable("id") long id,
            @PathVariable("experiment") long number,
            @RequestParam("reading") int reading) {
        Experiment e = one(id, number);
        if (reading >= 0 && reading < e.readings().size()) {
            kept.replace(number, e.without(reading));
        }
        return "redirect:/jobs/" + id + "/watch/experiment/" + number;
    }
}
