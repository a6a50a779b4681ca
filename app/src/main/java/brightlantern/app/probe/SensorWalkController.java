package brightlantern.app.probe;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Reasoning;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.NextCard;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.SensorWalk;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** The way round one sensor, step by step, and who is to blame for what it tells. */
@Controller
@RequestMapping("/jobs/{id}/probe/sensors")
class SensorWalkController {
    /** Who is less likely than this is not listed. */
    private static final double FAINT = 0.005;

    private final JobPages pages;
    private final Findings findings;
    private final Reasoning reasoning;

    SensorWalkController(JobPages pages, Findings findings, Reasoning reasoning) {
        this.pages = pages;
        this.findings = findings;
        this.reasoning = reasoning;
    }

    /**
     * A step with what was found there.
     *
     * @param found in words; empty for what was not done
     * @param state none, holds or fails
     */
    record Row(SensorWalk.Step step, String href, String found, String state) {}

    /** Somebody who may be to blame. */
    record Blamed(String who, double sure) {}

    /**
     * The page.
     *
     * @param answer who it is, or what is to be done to know
     * @param told what its module tells of it, with unit; empty where it tells nothing
     */
    record View(SensorWalk walk, String answer, String told, List<Row> rows, List<Blamed> blamed) {
        /** The heading. */
        public String title() {
            String name = walk.name();
            return "Round the " + name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
        }
    }

    @GetMapping("/{sensor}")
    String walk(@PathVariable("id") long id, @PathVariable("sensor") String sensor, Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        VehicleDescription d = context.description();
        Map<String, Double> told = Asked.told(context, SensorWalk.valueOf(d, sensor));
        SensorWalk walk = JobPages.found(SensorWalk.of(d, sensor, told), "sensor", sensor);
        Map<String, Findings.Finding> newest = new HashMap<>();
        findings.of(id).stream()
                .filter(f -> f.takenBackBy().isEmpty())
                .sorted(Comparator.comparing(Findings.Finding::at))
                .forEach(f -> newest.put(f.key(), f));
        Ranking ranking =
                reasoning.of(id, context.description(), context.link().status().supply()).ranking();
        List<Row> rows =
                walk.steps().stream()
                        .map(s -> row(s, newest.get(s.check().key()), context))
                        .toList();
        model.addAttribute(
                "view",
                new View(
                        walk,
                        answer(walk, rows, ranking),
                        ToldWords.figure(d, told),
                        rows,
                        blamed(walk, ranking)));
        return "probe/sensor";
    }

    private static Row row(SensorWalk.Step step, Findings.Finding found, JobPages.Context context) {
        String href = NextCard.href(context.job(), step.check());
        if (found == null) {
            return new Row(step, href, "", "none");
        }
        String state = found.passed().map(p -> p ? "holds" : "fails").orElse("none");
        return new Row(step, href, found.text(), state);
    }

    private static String answer(SensorWalk walk, List<Row> rows, Ranking ranking) {
        if (rows.stream().allMatch(r -> r.state().equals("none"))) {
            return "Nothing was done here yet: begin with the first step.";
        }
        return walk.culprit(ranking)
                .map(c -> c.words() + ".")
                .orElse("Not told apart yet: go on with a step that was not done.");
    }

    private static List<Blamed> blamed(SensorWalk walk, Ranking ranking) {
        return walk.blamed(ranking).entrySet().stream()
                .filter(e -> e.getValue() >= FAINT)
                .sorted(Map.Entry.<SensorWalk.Culprit, Double>comparingByValue().reversed())
                .map(e -> new Blamed(e.getKey().words(), e.getValue()))
                .toList();
    }
}
