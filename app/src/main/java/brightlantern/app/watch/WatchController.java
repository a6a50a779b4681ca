package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Takes;
import brightlantern.app.link.LiveFeed;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.SamplingCost;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.ProposedLists;
import brightlantern.core.watch.StudyNeeds;
import jakarta.servlet.http.HttpSession;
import java.security.Principal;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The Watch page: is it as it should be? */
@Controller
@RequestMapping("/jobs/{id}/watch")
class WatchController {
    static final String BACK = "redirect:/jobs/";

    private final JobPages pages;
    private final TakeRecorder recorder;
    private final Takes takes;
    private final Findings findings;
    private final LeadCodes leads;
    private final WatchLists lists;

    WatchController(
            JobPages pages,
            TakeRecorder recorder,
            Takes takes,
            Findings findings,
            LeadCodes leads,
            WatchLists lists) {
        this.pages = pages;
        this.recorder = recorder;
        this.takes = takes;
        this.findings = findings;
        this.leads = leads;
        this.lists = lists;
    }

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @RequestParam(name = "view", defaultValue = "lanes") String view,
            @RequestParam(name = "check", defaultValue = "") String checkId,
            HttpSession session,
            Principal who,
            Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        VehicleDescription d = context.description();
        Optional<WatchCheck> check = WatchCheck.of(d, checkId);
        // a check that is opened brings the values that it needs
        check.filter(c -> !c.values().isEmpty())
                .ifPresent(c -> session.setAttribute("watch-" + id, new ArrayList<>(c.values())));
        model.addAttribute("check", check.orElse(null));
        Set<String> chosen = WatchValues.chosen(context, session);
        Map<String, Integer> counts = StudyNeeds.byModule(d, chosen);
        LiveFeed feed = context.link().feed();
        model.addAttribute(
                "all",
                d.values().stream()
                        .map(
                                v ->
                                        new WatchValues.Candidate(
                                                Shown.of(d, v),
                                                WatchValues.words(v),
                                                SamplingCost.oneMore(
                                                        counts.getOrDefault(v.module(), 0),
                                                        VehicleLink.PACK,
                                                        feed.answerMillis(v.module()))))
                        .toList());
        model.addAttribute(
                "chosen",
                chosen.stream()
                        .flatMap(v -> d.value(v).stream())
                        .map(v -> Shown.of(d, v))
                        .toList());
        model.addAttribute("cost", WatchValues.cost(d, counts, feed));
        model.addAttribute("view", view);
        model.addAttribute("drawings", SystemDrawing.of(d));
        model.addAttribute("lists", lists.of(d.id(), who.getName()));
        model.addAttribute("who", who.getName());
        model.addAttribute(
                "proposed",
                ProposedLists.of(d, leads.of(context.job(), d), context.job().symptoms()));
        model.addAttribute("takes", takes.of(id));
        model.addAttribute("recording", recorder.current(id).orElse(null));
        model.addAttribute("recorder", recorder.status(id));
        model.addAttribute("agreements", d.agreements());
        model.addAttribute(
                "asksRefuelled", d.trims().stream().anyMatch(t -> !t.refuelled().isEmpty()));
        model.addAttribute("answer", answer(id));
        return "watch/watch";
    }

    private String answer(long id) {
        List<Findings.Finding> judged =
                findings.of(id).stream()
                        .filter(f -> f.stage().equals("watch") && f.passed().isPresent())
                        .toList();
        return judged.isEmpty()
                ? "Nothing was judged yet. Record a take under the conditions of the complaint."
                : judged.get(judged.size() - 1).text();
    }

    @PostMapping("/choose")
    String choose(
            @PathVariable("id") long id,
            @RequestParam("value") List<String> values,
            @RequestParam("on") boolean on,
            @RequestParam(name = "view", defaultValue = "lanes") String view,
            HttpSession session) {
        JobPages.Context context = pages.context(id);
        Set<String> chosen = new LinkedHashSet<>(WatchValues.chosen(context, session));
        for (String value : values) {
            if (on && context.description().value(value).isPresent()) {
                chosen.add(value);
            } else {
                chosen.remove(value);
            }
        }
        session.setAttribute("watch-" + id, new ArrayList<>(chosen));
        return BACK + id + "/watch?view=" + view;
    }
}
