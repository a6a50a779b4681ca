package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Takes;
import brightlantern.app.link.LiveFeed;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.page.JobPages;
import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.SamplingCost;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.ProposedLists;
import jakarta.servlet.http.HttpSession;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
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

    /** A value that may be chosen, with what it would cost. */
    record Candidate(Shown value, String words, String cost) {}

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
        Set<String> chosen = chosen(context, session);
        Map<String, Integer> counts = counts(d, chosen);
        LiveFeed feed = context.link().feed();
        model.addAttribute(
                "all",
                d.values().stream()
                        .map(
                                v ->
                                        new Candidate(
                                                Shown.of(d, v),
                                                words(v),
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
        model.addAttribute("cost", cost(d, counts, feed));
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

    private static Map<String, Integer> counts(VehicleDescription d, Set<String> ids) {
        Map<String, Integer> counts = new LinkedHashMap<>();
        watched(d, ids).stream()
                .flatMap(i -> d.value(i).stream())
                .forEach(v -> counts.merge(v.module(), 1, Integer::sum));
        return counts;
    }

    /** Values with those without which their ranges could not be judged. */
    static Set<String> watched(VehicleDescription d, Collection<String> ids) {
        Set<String> all = new LinkedHashSet<>(ids);
        ids.stream()
                .flatMap(v -> d.value(v).stream())
                .flatMap(v -> v.ranges().stream())
                .flatMap(r -> r.when().stream())
                .forEach(c -> all.add(c.value()));
        return all;
    }

    /** What the chosen values cost, in words. */
    private static String cost(VehicleDescription d, Map<String, Integer> counts, LiveFeed feed) {
        if (counts.isEmpty()) {
            return "Nothing is chosen.";
        }
        List<String> parts = new ArrayList<>();
        SamplingCost.rates(counts, VehicleLink.PACK, feed::answerMillis)
                .forEach(
                        (m, hz) ->
                                parts.add(
                                        String.format(
                                                Locale.ROOT,
                                                "%s %d at about %s Hz",
                                                d.module(m).map(ControlModule::name).orElse(m),
                                                counts.get(m),
                                                Units.told(hz))));
        return String.join("; ", parts)
                + ". Up to "
                + VehicleLink.PACK
                + " values of one module are of one moment.";
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

    private static String words(Value v) {
        return (v.name() + " " + v.id() + " " + v.module() + " " + String.join(" ", v.words()))
                .toLowerCase(Locale.ROOT);
    }

    /**
     * The chosen values; to begin with, those that the description says belong to a target and what
     * must follow it.
     */
    static Set<String> chosen(JobPages.Context context, HttpSession session) {
        Object kept = session.getAttribute("watch-" + context.job().id());
        if (kept instanceof List<?> list) {
            Set<String> ids = new LinkedHashSet<>();
            list.forEach(v -> ids.add(v.toString()));
            return ids;
        }
        return needed(context.description(), false);
    }

    /**
     * What the studies need.
     *
     * @param all with those of many values, which nobody needs to look at
     */
    static Set<String> needed(VehicleDescription d, boolean all) {
        Set<String> ids = new LinkedHashSet<>();
        d.follows().forEach(f -> ids.addAll(needed(f)));
        d.trims().forEach(t -> ids.addAll(TrimStudy.needed(t)));
        if (all || ids.isEmpty()) {
            d.cylinders().ifPresent(c -> ids.addAll(CylinderStudy.needed(c)));
        }
        return ids;
    }

    /** What the study of a target needs to be recorded. */
    static Set<String> needed(Follow follow) {
        Set<String> ids =
                new LinkedHashSet<>(
                        List.of(
                                follow.target(),
                                follow.actual(),
                                follow.command(),
                                follow.feedback()));
        follow.when().forEach(c -> ids.add(c.value()));
        ids.addAll(follow.conditions());
        return ids;
    }

    @PostMapping("/choose")
    String choose(
            @PathVariable("id") long id,
            @RequestParam("value") List<String> values,
            @RequestParam("on") boolean on,
            @RequestParam(name = "view", defaultValue = "lanes") String view,
            HttpSession session) {
        JobPages.Context context = pages.context(id);
        Set<String> chosen = new LinkedHashSet<>(chosen(context, session));
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
