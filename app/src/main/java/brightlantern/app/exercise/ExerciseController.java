package brightlantern.app.exercise;

import brightlantern.app.job.Findings;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.core.actuator.Actuator;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** The Exercise page: does it do what it is told? */
@Controller
@RequestMapping("/jobs/{id}/exercise")
class ExerciseController {
    private final JobPages pages;
    private final ProcedureRuns procedures;
    private final KeptRuns kept;
    private final VehicleLinks links;
    private final Findings findings;
    private final Proposals proposals;

    ExerciseController(
            JobPages pages,
            ProcedureRuns procedures,
            KeptRuns kept,
            VehicleLinks links,
            Findings findings,
            Proposals proposals) {
        this.pages = pages;
        this.procedures = procedures;
        this.kept = kept;
        this.links = links;
        this.findings = findings;
        this.proposals = proposals;
    }

    /**
     * @param drive the test that times it, {@code steps} the one that looks for play and friction
     * @param follows names of the values that follow it
     */
    record ActuatorView(Actuator actuator, String drive, String steps, String follows) {
        static ActuatorView of(VehicleDescription d, Actuator a) {
            return new ActuatorView(
                    a,
                    ActuatorProcedures.drive(a.id()),
                    ActuatorProcedures.steps(a.id()),
                    a.responds().stream()
                            .flatMap(r -> d.value(r.value()).stream())
                            .map(v -> v.name().toLowerCase(Locale.ROOT))
                            .collect(Collectors.joining(", ")));
        }
    }

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        model.addAttribute(
                "actuators",
                context.description().actuators().stream()
                        .map(a -> ActuatorView.of(context.description(), a))
                        .toList());
        List<Procedure> all = links.procedures(context.job());
        model.addAttribute("kinds", kinds(context, all));
        model.addAttribute("proposed", proposals.of(context, all));
        model.addAttribute(
                "configurations",
                links.equipment(context.job())
                        .map(Equipment::configurations)
                        .orElse(List.<Configuration>of()));
        List<Begun> begun = begun(context);
        model.addAttribute("begun", begun);
        model.addAttribute("answer", answer(context, begun));
        return "exercise/exercise";
    }

    record Kind(String title, List<Procedure> procedures, boolean inTurn) {}

    /** All but the tests of single actuators, which have their own place. */
    private static List<Kind> kinds(JobPages.Context context, List<Procedure> all) {
        List<String> own =
                context.description().actuators().stream()
                        .flatMap(
                                a ->
                                        List.of(
                                                ActuatorProcedures.drive(a.id()),
                                                ActuatorProcedures.steps(a.id()))
                                                .stream())
                        .toList();
        return Arrays.stream(Procedure.Kind.values())
                .map(
                        k ->
                                new Kind(
                                        k.title(),
                                        all.stream()
                                                .filter(p -> p.kind() == k)
                                                .filter(p -> !own.contains(p.id()))
                                                .toList(),
                                        k == Procedure.Kind.SELF_CHECK))
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

    /** What was found last of each actuator, or the last verdict of all. */
    private String answer(JobPages.Context context, List<Begun> begun) {
        List<Findings.Finding> judged =
                findings.of(context.job().id()).stream()
                        .filter(f -> f.stage().equals("exercise") && f.passed().isPresent())
                        .toList();
        if (judged.isEmpty()) {
            return begun.isEmpty()
                    ? "Nothing was exercised yet. Make it do something and see whether it does what it is told."
                    : "Nothing was judged yet: see below how far what was begun has come.";
        }
        Map<String, String> driven = new LinkedHashMap<>();
        for (Findings.Finding f : judged) {
            if (f.evidence().orElse(null) instanceof Evidence.Run run) {
                driven.put(run.actuatorId(), f.text());
            }
        }
        return driven.isEmpty()
                ? judged.get(judged.size() - 1).text()
                : String.join(" ", driven.values());
    }
}
