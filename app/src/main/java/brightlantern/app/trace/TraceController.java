package brightlantern.app.trace;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Reasoning;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.NextCard;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.reason.Contribution;
import brightlantern.core.reason.Explanation;
import brightlantern.core.reason.MeterFinding;
import brightlantern.core.reason.Standing;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** The Trace page: which cause, and how do we know? */
@Controller
@RequestMapping("/jobs/{id}/trace")
class TraceController {
    private static final int SHOWN = 14;

    private final JobPages pages;
    private final Reasoning reasoning;
    private final Findings findings;

    TraceController(JobPages pages, Reasoning reasoning, Findings findings) {
        this.pages = pages;
        this.reasoning = reasoning;
        this.findings = findings;
    }

    /**
     * One finding's push on a suspect.
     *
     * @param length of the wedge, 0..100
     */
    record PushRow(String text, boolean forIt, int length, String strength, String expected) {}

    record SuspectRow(
            String id,
            String name,
            String percent,
            int width,
            String size,
            List<PushRow> pushes,
            List<String> chain,
            boolean described) {}

    record NextRow(Check check, String href, String tells, List<String> expectations) {}

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "trace", model);
        Reasoning.State state =
                reasoning.of(id, context.description(), context.link().status().supply());
        model.addAttribute(
                "answer",
                state.isBare()
                        ? Explanation.nothingFound(!context.job().symptoms().isEmpty())
                        : state.ranking().sentence());
        List<Standing> all = state.ranking().standings();
        // a large network alone has a hundred elements; those that nothing speaks for are only
        // named
        model.addAttribute(
                "suspects",
                all.stream().limit(SHOWN).map(s -> row(s, state, context.description())).toList());
        model.addAttribute("faint", all.stream().skip(SHOWN).map(Standing::name).toList());
        model.addAttribute(
                "next",
                state.next().stream()
                        .limit(8)
                        .map(
                                n ->
                                        new NextRow(
                                                n.check(),
                                                NextCard.href(context.job(), n.check()),
                                                tells(n.bits()),
                                                n.expectations()))
                        .toList());
        model.addAttribute(
                "asked",
                context.description().circuits().stream()
                        .flatMap(c -> c.gauges().stream())
                        .filter(Gauge::isToldByValue)
                        .map(Gauge::findingId)
                        .toList());
        model.addAttribute("compared", compared(context.description()));
        List<Finding> byHand = reasoning.toEnter(context.description(), state);
        model.addAttribute("byHand", byHand);
        model.addAttribute("measured", measured(context.description(), byHand));
        model.addAttribute("budget", state.budget());
        model.addAttribute("story", findings.story(id));
        return "trace/trace";
    }

    /** Findings for which an instrument of one's own is read, with the unit that it is read in. */
    private static Map<String, String> compared(VehicleDescription d) {
        return d.circuits().stream()
                .flatMap(c -> c.gauges().stream())
                .filter(Gauge::isCompared)
                .collect(
                        Collectors.toMap(
                                Gauge::findingId, g -> d.value(g.value()).orElseThrow().show()));
    }

    /** Findings that a meter tells, with the unit in which it reads. */
    private static Map<String, String> measured(VehicleDescription d, List<Finding> findings) {
        return findings.stream()
                .flatMap(f -> MeterFinding.of(d, f.id()).stream())
                .collect(Collectors.toMap(m -> m.finding().id(), MeterFinding::unit));
    }

    private static SuspectRow row(Standing s, Reasoning.State state, VehicleDescription d) {
        List<PushRow> pushes = new ArrayList<>();
        s.contributions().stream()
                .sorted(Comparator.comparingDouble((Contribution p) -> -Math.abs(p.log10Odds())))
                .forEach(
                        p ->
                                pushes.add(
                                        new PushRow(
                                                state.findings().get(p.evidenceIndex()).text(),
                                                p.log10Odds() > 0,
                                                (int)
                                                        Math.round(
                                                                Math.min(
                                                                        100,
                                                                        40
                                                                                * Math.abs(
                                                                                        p
                                                                                                .log10Odds()))),
                                                strength(p.log10Odds()),
                                                p.foretold())));
        Optional<Suspect> described = d.suspect(s.suspectId());
        return new SuspectRow(
                s.suspectId(),
                s.name(),
                Words.percent(s.sureness()),
                (int) Math.round(200 * s.sureness()),
                s.size(),
                pushes,
                described.map(Suspect::chain).orElse(List.of()),
                described.isPresent());
    }

    private static String strength(double log10Odds) {
        double times = Math.pow(10, Math.abs(log10Odds));
        String factor =
                times >= 1000
                        ? "over 1000 times"
                        : String.format(
                                Locale.ROOT, times < 10 ? "%.1f times" : "%.0f times", times);
        return log10Odds > 0
                ? factor + " likelier than under the others"
                : factor + " less likely than under the others";
    }

    /** How much a check is expected to tell, in bits, in a word. */
    private static String tells(double bits) {
        return bits >= 0.5
                ? "much"
                : bits >= 0.1 ? "something" : bits >= 0.02 ? "little" : "hardly anything";
    }
}
