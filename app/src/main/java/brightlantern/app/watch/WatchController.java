package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Takes;
import brightlantern.app.link.LiveFeed;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.page.JobPages;
import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.signal.SamplingCost;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.study.agreement.Agreement;
import brightlantern.core.study.reaction.ReactionCheck;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.ProposedLists;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The Watch page: is it as it should be? */
@Controller
@RequestMapping("/jobs/{id}/watch")
class WatchController {
    private static final long SEND_MILLIS = 80;
    private static final String BACK = "redirect:/jobs/";

    private final JobPages pages;
    private final TakeRecorder recorder;
    private final Takes takes;
    private final Findings findings;
    private final LeadCodes leads;
    private final TakeJudge judge;
    private final WatchLists lists;
    private final ScheduledExecutorService clock =
            Executors.newScheduledThreadPool(
                    2,
                    r -> {
                        Thread thread = new Thread(r, "watch-stream");
                        thread.setDaemon(true);
                        return thread;
                    });

    WatchController(
            JobPages pages,
            TakeRecorder recorder,
            Takes takes,
            Findings findings,
            LeadCodes leads,
            TakeJudge judge,
            WatchLists lists) {
        this.pages = pages;
        this.recorder = recorder;
        this.takes = takes;
        this.findings = findings;
        this.leads = leads;
        this.judge = judge;
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
    private static Set<String> watched(VehicleDescription d, Collection<String> ids) {
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
    private static Set<String> chosen(JobPages.Context context, HttpSession session) {
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
    private static Set<String> needed(VehicleDescription d, boolean all) {
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

    /** Takes a kept or a proposed list, in the place of what was chosen. */
    @PostMapping("/lists/use")
    String useList(
            @PathVariable("id") long id,
            @RequestParam("list") String list,
            @RequestParam(name = "view", defaultValue = "lanes") String view,
            HttpSession session,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        Optional<List<String>> values =
                list.matches("\\d+")
                        ? lists.one(d.id(), who.getName(), Long.parseLong(list))
                                .map(WatchLists.WatchList::values)
                        : ProposedLists.of(d, leads.of(context.job(), d), context.job().symptoms())
                                .stream()
                                .filter(p -> p.id().equals(list))
                                .map(ProposedLists.Proposed::values)
                                .findFirst();
        if (values.isEmpty()) {
            flash.addFlashAttribute(
                    "error", "There is no such watch list any more; choose another.");
            return BACK + id + "/watch?view=" + view;
        }
        session.setAttribute("watch-" + id, new ArrayList<>(values.get()));
        return BACK + id + "/watch?view=" + view;
    }

    @PostMapping("/lists/keep")
    String keepList(
            @PathVariable("id") long id,
            @RequestParam("name") String name,
            @RequestParam(name = "shared", defaultValue = "false") boolean shared,
            HttpSession session,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        try {
            lists.keep(
                    context.description().id(),
                    who.getName(),
                    name,
                    shared,
                    List.copyOf(chosen(context, session)));
            flash.addFlashAttribute("notice", "Watch list '" + name.trim() + "' was kept.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return BACK + id + "/watch";
    }

    @PostMapping("/lists/remove")
    String removeList(@PathVariable("id") long id, @RequestParam("list") long list, Principal who) {
        lists.remove(pages.context(id).description().id(), who.getName(), list);
        return BACK + id + "/watch";
    }

    /**
     * One value at one moment, in the unit in which it is shown.
     *
     * @param text ready to be read
     * @param verdict in, out, or empty when no range applies now
     */
    record Point(String id, double t, double v, String text, String verdict) {}

    @GetMapping(path = "/stream", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter stream(@PathVariable("id") long id, @RequestParam("v") List<String> ids) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        SseEmitter emitter = new SseEmitter(0L);
        ConcurrentLinkedQueue<LiveFeed.Samples> queue = new ConcurrentLinkedQueue<>();
        Map<String, Value> shown = new LinkedHashMap<>();
        ids.forEach(v -> d.value(v).ifPresent(value -> shown.put(v, value)));
        Set<String> wanted = watched(d, shown.keySet());
        LiveFeed.Subscription subscription = context.link().feed().subscribe(d, wanted, queue::add);
        Map<String, Double> newest = new HashMap<>();
        Map<String, Dwell> dwells = new HashMap<>();
        ScheduledFuture<?>[] ticking = new ScheduledFuture<?>[1];
        Runnable end =
                () -> {
                    subscription.close();
                    ticking[0].cancel(false);
                };
        ticking[0] =
                clock.scheduleWithFixedDelay(
                        () -> {
                            List<Point> points = new ArrayList<>();
                            for (LiveFeed.Samples s = queue.poll(); s != null; s = queue.poll()) {
                                newest.putAll(s.values());
                                double t = s.epochSeconds();
                                s.values()
                                        .forEach(
                                                (v, raw) -> {
                                                    Value value = shown.get(v);
                                                    if (value != null) {
                                                        points.add(
                                                                point(
                                                                        value, t, raw, newest,
                                                                        dwells));
                                                    }
                                                });
                            }
                            try {
                                emitter.send(
                                        SseEmitter.event()
                                                .name("values")
                                                .data(
                                                        Map.of(
                                                                "points",
                                                                points,
                                                                "now",
                                                                LiveFeed.now(),
                                                                "troubles",
                                                                context
                                                                        .link()
                                                                        .feed()
                                                                        .troubles()
                                                                        .values()
                                                                        .stream()
                                                                        .map(d::named)
                                                                        .toList())));
                            } catch (IOException | IllegalStateException gone) {
                                end.run();
                            }
                        },
                        SEND_MILLIS,
                        SEND_MILLIS,
                        TimeUnit.MILLISECONDS);
        emitter.onCompletion(end);
        emitter.onError(e -> end.run());
        return emitter;
    }

    /** For how long a value has been within or without its range. */
    private static final class Dwell {
        /** A range is told as left only when it stays left for so long, s. */
        private static final double SECONDS = 1;

        private String told = "";
        private String now = "";
        private double since;

        String after(String verdict, double t) {
            if (!verdict.equals(now)) {
                now = verdict;
                since = t;
            }
            if (verdict.isEmpty() || t - since >= SECONDS) {
                told = verdict;
            }
            return told;
        }
    }

    private static Point point(
            Value value, double t, double raw, Map<String, Double> now, Map<String, Dwell> dwells) {
        String verdict = RangeVerdict.of(value, now).map(r -> r.inside() ? "in" : "out").orElse("");
        return new Point(
                value.id(),
                t,
                Scaling.shown(value, raw),
                Scaling.show(value, raw),
                value.ranges().isEmpty()
                        ? ""
                        : dwells.computeIfAbsent(value.id(), v -> new Dwell()).after(verdict, t));
    }

    @PostMapping("/take/start")
    String start(
            @PathVariable("id") long id,
            @RequestParam(name = "name", defaultValue = "") String name,
            @RequestParam(name = "refuelled", defaultValue = "false") boolean refuelled,
            @RequestParam(name = "from", defaultValue = "") String from,
            @RequestParam(name = "until", defaultValue = "") String until,
            @RequestParam(name = "before", defaultValue = "5") double before,
            HttpSession session,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<TakeRecorder.Trigger> trigger =
                trigger(context.description(), from, until, before, flash);
        if (trigger.isPresent()) {
            record(context, session, who, name, refuelled ? Takes.REFUELLED : "", trigger.get());
        }
        return BACK + id + "/watch";
    }

    private static Optional<TakeRecorder.Trigger> trigger(
            VehicleDescription d,
            String from,
            String until,
            double before,
            RedirectAttributes flash) {
        String text = from;
        try {
            Optional<Filter> start =
                    from.isBlank()
                            ? Optional.empty()
                            : Optional.of(FilterParser.parse(from, d.signals()));
            text = until;
            Optional<Filter> stop =
                    until.isBlank()
                            ? Optional.empty()
                            : Optional.of(FilterParser.parse(until, d.signals()));
            if (!(before >= 0 && before <= 60)) {
                flash.addFlashAttribute(
                        "error",
                        "Seconds before the start: expected 0 to 60, found " + before + ".");
                return Optional.empty();
            }
            String told =
                    (start.isPresent() ? "starts when " + from.trim() : "")
                            + (start.isPresent() && stop.isPresent() ? ", " : "")
                            + (stop.isPresent() ? "ends when " + until.trim() : "");
            return Optional.of(
                    new TakeRecorder.Trigger(start, stop, start.isPresent() ? before : 0, told));
        } catch (FilterException wrong) {
            flash.addFlashAttribute("error", wrong.shownIn(text));
            return Optional.empty();
        }
    }

    private void record(
            JobPages.Context context,
            HttpSession session,
            Principal who,
            String name,
            String circumstance,
            TakeRecorder.Trigger trigger) {
        Set<String> ids = new LinkedHashSet<>(chosen(context, session));
        // what the studies need is recorded too, whether it is looked at or not
        ids.addAll(needed(context.description(), true));
        // a proof asks under which conditions it was recorded
        leads.conditions(context.job(), context.description())
                .conditions()
                .forEach(c -> ids.add(c.value()));
        int number = takes.of(context.job().id()).size() + 1;
        recorder.start(
                context,
                ids,
                who.getName(),
                name.isBlank() ? "take " + number : "take " + number + ", " + name.trim(),
                circumstance,
                trigger);
    }

    /** The take went wrong: it is kept apart, and the next one begins at once. */
    @PostMapping("/take/redo")
    String redo(@PathVariable("id") long id, HttpSession session, Principal who) {
        JobPages.Context context = pages.context(id);
        recorder.stop(id)
                .flatMap(t -> takes.head(id, t))
                .ifPresent(
                        bad -> {
                            takes.setAside(bad.id(), true);
                            record(
                                    context,
                                    session,
                                    who,
                                    bad.name().replaceFirst("^take \\d+(, )?", ""),
                                    bad.circumstance(),
                                    TakeRecorder.Trigger.byHand());
                        });
        return BACK + id + "/watch";
    }

    @PostMapping("/take/mark")
    @ResponseBody
    String mark(
            @PathVariable("id") long id,
            @RequestParam(name = "text", defaultValue = "mark") String text) {
        pages.job(id);
        recorder.mark(id, text.isBlank() ? "mark" : text.trim());
        return "marked";
    }

    @PostMapping("/take/stop")
    String stop(@PathVariable("id") long id, Principal who, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<Long> takeId;
        try {
            takeId = recorder.stop(id);
        } catch (IllegalStateException full) {
            flash.addFlashAttribute("error", full.getMessage() + " Then stop the take again.");
            return BACK + id + "/watch";
        }
        if (takeId.isEmpty()) {
            return BACK + id + "/watch";
        }
        judge.judge(context, takeId.get(), who.getName());
        return BACK + id + "/watch/takes/" + takeId.get();
    }

    /** Looks on while somebody commands something, and judges what moved. */
    @PostMapping("/reaction")
    String reaction(
            @PathVariable("id") long id,
            @RequestParam("command") String command,
            @RequestParam("answers") String answers,
            @RequestParam(name = "seconds", defaultValue = "15") double seconds,
            Principal who,
            RedirectAttributes flash)
            throws InterruptedException {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        if (d.value(command).isEmpty() || d.value(answers).isEmpty() || command.equals(answers)) {
            flash.addFlashAttribute("error", "Reaction check: choose two different values.");
            return BACK + id + "/watch";
        }
        double span = Math.max(5, Math.min(60, Double.isFinite(seconds) ? seconds : 15));
        Take seen = new Take(LiveSpan.read(context, Set.of(command, answers), span), List.of());
        ReactionCheck.Verdict verdict =
                ReactionCheck.check(
                        seen,
                        command,
                        answers,
                        d.value(command).map(Value::unit).orElse(""),
                        d.value(answers).map(Value::unit).orElse(""));
        String told =
                d.value(answers).map(Value::name).orElse(answers)
                        + " after "
                        + d.value(command).map(Value::name).orElse(command)
                        + ": "
                        + verdict.sentence();
        if (verdict.outcome().equals("no-step")) {
            flash.addFlashAttribute("error", told);
        } else {
            findings.add(
                    id,
                    "watch",
                    who.getName(),
                    told,
                    Optional.of(verdict.outcome().equals("reacts")),
                    Optional.empty(),
                    verdict,
                    "reaction " + command + " " + answers);
            flash.addFlashAttribute("notice", told);
        }
        return BACK + id + "/watch";
    }

    /** Whether a take runs or waits, for the page to follow. */
    @GetMapping("/recording")
    String recording(@PathVariable("id") long id, Model model) {
        pages.fill(id, "watch", model);
        model.addAttribute("recording", recorder.current(id).orElse(null));
        model.addAttribute("recorder", recorder.status(id));
        return "watch/watch :: recorder";
    }

    /** How far the take that runs has come, and for what it is enough by now. */
    @GetMapping("/enough")
    String enough(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute(
                "enough",
                recorder.current(id)
                        .map(take -> judge.enough(context, take, recorder.secondsSoFar(id)))
                        .orElse(null));
        return "watch/watch :: enough";
    }

    /** Compares two values that must agree now. */
    @PostMapping("/agree")
    String agree(
            @PathVariable("id") long id,
            @RequestParam("agreement") String agreementId,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        Agreement agreement =
                JobPages.found(
                        d.agreements().stream().filter(a -> a.id().equals(agreementId)).findFirst(),
                        "comparison",
                        agreementId);
        Set<String> ids = new LinkedHashSet<>(List.of(agreement.a(), agreement.b()));
        agreement.when().forEach(c -> ids.add(c.value()));
        Map<String, Double> now = context.link().read(d, ids);
        Optional<Condition> shut =
                agreement.when().stream()
                        .filter(c -> !RangeVerdict.holds(c, now.get(c.value())))
                        .findFirst();
        if (shut.isPresent()
                || !now.containsKey(agreement.a())
                || !now.containsKey(agreement.b())) {
            flash.addFlashAttribute(
                    "error",
                    agreement.name()
                            + " was not compared: "
                            + shut.map(s -> "it needs " + s.says() + ". " + s.opens() + ".")
                                    .orElse("a module does not answer."));
            return BACK + id + "/watch";
        }
        Value a = d.value(agreement.a()).orElseThrow();
        Value b = d.value(agreement.b()).orElseThrow();
        double left = Units.convert(now.get(a.id()), a.unit(), a.show());
        double right = Units.convert(now.get(b.id()), b.unit(), a.show());
        boolean agrees = Math.abs(left - right) <= agreement.within();
        findings.add(
                id,
                "watch",
                who.getName(),
                String.format(
                        Locale.ROOT,
                        "%s: %s and %s %s, %s (up to %s apart is right).",
                        agreement.name(),
                        Units.told(left),
                        Units.told(right),
                        a.show(),
                        agrees ? "they agree" : "they differ",
                        Units.told(agreement.within())),
                Optional.of(agrees),
                Optional.of(
                        new Evidence.Outcome(
                                agreement.finding(),
                                agrees ? agreement.agrees() : agreement.differs())),
                null);
        return BACK + id + "/watch";
    }
}
