package brightlantern.app.trace;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Reasoning;
import brightlantern.app.page.JobPages;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.Plan;
import brightlantern.core.reason.Possible;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Standing;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What would be known if, what a check may lead to, and how long all of it may take. */
@Controller
@RequestMapping("/jobs/{id}/trace")
class WhatIfController {
    private static final int SHOWN = 6;

    /** So many of the checks that may come next can be supposed. */
    private static final int MOST_CHECKS = 8;

    private static final double MOST_MINUTES = 10_000;

    private final JobPages pages;
    private final Reasoning reasoning;
    private final Jobs jobs;

    WhatIfController(JobPages pages, Reasoning reasoning, Jobs jobs) {
        this.pages = pages;
        this.reasoning = reasoning;
        this.jobs = jobs;
    }

    private Reasoning.State state(JobPages.Context context) {
        return reasoning.of(
                context.job().id(), context.description(), context.link().status().supply());
    }

    private static double supply(JobPages.Context context) {
        return Reasoning.rounded(context.link().status().supply());
    }

    /** What the first check may show, and what each would lead to. */
    @GetMapping("/plan")
    String plan(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.context(id);
        Reasoning.State state = state(context);
        Plan plan = reasoning.plan(context.description());
        Optional<Check> first = state.next().stream().findFirst().map(NextCheck::check);
        model.addAttribute("check", first.map(Check::name).orElse(""));
        model.addAttribute(
                "branches",
                first.map(c -> plan.of(c, state.evidence(), supply(context))).orElse(List.of()));
        return "trace/what-if :: plan";
    }

    /**
     * A finding that can be set aside.
     *
     * @param isAside whether it is
     */
    record Told(long id, String text, boolean isAside) {}

    /** Something that can be supposed. */
    record Supposed(String id, String text, boolean isSo) {}

    /** A suspect now, and if it were so. */
    record Row(String name, String now, String then) {}

    /**
     * @param now and then: what is known, in a sentence
     */
    record View(
            String now, String then, List<Told> found, List<Supposed> possible, List<Row> rows) {}

    @GetMapping("/what-if")
    String whatIf(
            @PathVariable("id") long id,
            @RequestParam(name = "aside", defaultValue = "") List<Long> aside,
            @RequestParam(name = "suppose", defaultValue = "") List<String> suppose,
            Model model) {
        JobPages.Context context = pages.fill(id, "trace", model);
        Reasoning.State state = state(context);
        Set<Long> without = new HashSet<>(aside);
        Set<String> chosen = new HashSet<>(suppose);
        Plan plan = reasoning.plan(context.description());
        List<Supposed> possible = new ArrayList<>();
        List<Evidence> supposed = new ArrayList<>();
        state.next().stream()
                .limit(MOST_CHECKS)
                .forEach(
                        next -> {
                            List<Possible> all =
                                    plan.possible(next.check(), state.evidence(), supply(context));
                            for (int i = 0; i < all.size(); i++) {
                                String name = next.check().id() + "/" + i;
                                boolean so = chosen.contains(name);
                                possible.add(
                                        new Supposed(
                                                name,
                                                next.check().name() + ": " + all.get(i).seen(),
                                                so));
                                if (so) {
                                    supposed.add(all.get(i).piece());
                                }
                            }
                        });
        Ranking now = state.ranking();
        Ranking then = reasoning.supposing(context.description(), state, without, supposed);
        model.addAttribute(
                "view",
                new View(
                        now.sentence(),
                        then.sentence(),
                        state.findings().stream().map(f -> found(f, without)).toList(),
                        possible,
                        rows(now, then)));
        return "trace/what-if";
    }

    private static Told found(Findings.Finding f, Set<Long> without) {
        return new Told(f.id(), f.text(), without.contains(f.id()));
    }

    private static List<Row> rows(Ranking now, Ranking then) {
        return then.standings().stream()
                .limit(SHOWN)
                .map(
                        s ->
                                new Row(
                                        s.name(),
                                        now.of(s.suspectId())
                                                .map(Standing::sureness)
                                                .map(Words::percent)
                                                .orElse("–"),
                                        Words.percent(s.sureness())))
                .toList();
    }

    /** How long finding the cause may take. */
    @PostMapping("/budget")
    String budget(
            @PathVariable("id") long id,
            @RequestParam("minutes") double minutes,
            RedirectAttributes flash) {
        pages.job(id);
        if (minutes >= 1 && minutes <= MOST_MINUTES) {
            jobs.budget(id, minutes);
        } else {
            flash.addFlashAttribute(
                    "error", "The time should be 1 to 10,000 minutes; nothing was changed.");
        }
        return "redirect:/jobs/" + id + "/trace";
    }
}
