package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Takes;
import brightlantern.app.link.LiveFeed;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Units;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.take.TakeCsv;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Agreement;
import brightlantern.core.vehicle.VehicleDescription.Follow;
import brightlantern.core.vehicle.VehicleDescription.Value;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.ArrayList;
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
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The Watch page: is it as it should be? */
@Controller
@RequestMapping("/jobs/{id}/watch")
class WatchController {
    private static final long SEND_MILLIS = 100;

    private final JobPages pages;
    private final TakeRecorder recorder;
    private final Takes takes;
    private final Findings findings;
    private final LeadCodes leads;
    private final TrimFindings trims;
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
            TrimFindings trims) {
        this.trims = trims;
        this.pages = pages;
        this.recorder = recorder;
        this.takes = takes;
        this.findings = findings;
        this.leads = leads;
    }

    /** A value as the page's script needs it. */
    record Shown(String id, String name, String unit, int digits, boolean state, String module) {
        static Shown of(VehicleDescription description, Value v) {
            return new Shown(
                    v.id(),
                    v.name(),
                    v.isState() ? "" : v.show(),
                    v.digits(),
                    v.isState(),
                    description
                            .module(v.module())
                            .map(VehicleDescription.Module::name)
                            .orElse(v.module()));
        }
    }

    @GetMapping
    String page(@PathVariable("id") long id, HttpSession session, Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        Set<String> chosen = chosen(context, session);
        model.addAttribute(
                "all",
                context.description().values().stream()
                        .map(v -> Shown.of(context.description(), v))
                        .toList());
        model.addAttribute("words", words(context.description()));
        model.addAttribute(
                "chosen",
                chosen.stream()
                        .flatMap(v -> context.description().value(v).stream())
                        .map(v -> Shown.of(context.description(), v))
                        .toList());
        model.addAttribute("takes", takes.of(id));
        model.addAttribute("recording", recorder.current(id).orElse(null));
        model.addAttribute("agreements", context.description().agreements());
        model.addAttribute(
                "asksRefuelled",
                context.description().trims().stream().anyMatch(t -> !t.refuelled().isEmpty()));
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

    private static Map<String, String> words(VehicleDescription description) {
        Map<String, String> words = new LinkedHashMap<>();
        description
                .values()
                .forEach(
                        v ->
                                words.put(
                                        v.id(),
                                        (v.name()
                                                        + " "
                                                        + v.id()
                                                        + " "
                                                        + v.module()
                                                        + " "
                                                        + String.join(" ", v.words()))
                                                .toLowerCase(Locale.ROOT)));
        return words;
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
        Set<String> proposed = new LinkedHashSet<>();
        context.description().follows().forEach(f -> proposed.addAll(needed(f)));
        context.description().trims().forEach(t -> proposed.addAll(TrimStudy.needed(t)));
        return proposed;
    }

    private static Set<String> needed(Follow follow) {
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
            @RequestParam("value") String value,
            @RequestParam("on") boolean on,
            HttpSession session) {
        JobPages.Context context = pages.context(id);
        Set<String> chosen = new LinkedHashSet<>(chosen(context, session));
        if (on && context.description().value(value).isPresent()) {
            chosen.add(value);
        } else {
            chosen.remove(value);
        }
        session.setAttribute("watch-" + id, new ArrayList<>(chosen));
        return "redirect:/jobs/" + id + "/watch";
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
        SseEmitter emitter = new SseEmitter(0L);
        ConcurrentLinkedQueue<LiveFeed.Samples> queue = new ConcurrentLinkedQueue<>();
        Set<String> wanted = new LinkedHashSet<>(ids);
        ids.stream()
                .flatMap(v -> context.description().value(v).stream())
                .flatMap(v -> v.ranges().stream())
                .flatMap(r -> r.when().stream())
                .forEach(c -> wanted.add(c.value()));
        LiveFeed.Subscription subscription =
                context.link().feed().subscribe(context.description(), wanted, queue::add);
        Map<String, Double> newest = new LinkedHashMap<>();
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
                                                    if (ids.contains(v)) {
                                                        points.add(
                                                                point(
                                                                        context.description(),
                                                                        v,
                                                                        t,
                                                                        raw,
                                                                        newest));
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
                                                                "troubles",
                                                                context.link()
                                                                        .feed()
                                                                        .troubles()
                                                                        .values())));
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

    private static Point point(
            VehicleDescription d, String id, double t, double raw, Map<String, Double> now) {
        Value value = d.value(id).orElseThrow();
        String verdict = RangeVerdict.of(value, now).map(r -> r.inside() ? "in" : "out").orElse("");
        return new Point(id, t, Scaling.shown(value, raw), Scaling.show(value, raw), verdict);
    }

    @PostMapping("/take/start")
    String start(
            @PathVariable("id") long id,
            @RequestParam(name = "name", defaultValue = "") String name,
            @RequestParam(name = "refuelled", defaultValue = "false") boolean refuelled,
            HttpSession session) {
        JobPages.Context context = pages.context(id);
        Set<String> ids = new LinkedHashSet<>(chosen(context, session));
        // what the studies need is recorded too, whether it is looked at or not
        context.description().follows().forEach(f -> ids.addAll(needed(f)));
        context.description().trims().forEach(t -> ids.addAll(TrimStudy.needed(t)));
        int number = takes.of(id).size() + 1;
        recorder.start(
                context,
                ids,
                name.isBlank() ? "take " + number : "take " + number + ", " + name.trim(),
                refuelled ? Takes.REFUELLED : "");
        return "redirect:/jobs/" + id + "/watch";
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
    String stop(@PathVariable("id") long id, Principal who) {
        JobPages.Context context = pages.context(id);
        Optional<Long> takeId = recorder.stop(id);
        if (takeId.isEmpty()) {
            return "redirect:/jobs/" + id + "/watch";
        }
        Take take = takes.read(takeId.get());
        String name = takes.head(id, takeId.get()).map(Takes.TakeHead::name).orElse("take");
        boolean judged = false;
        for (Follow follow : context.description().follows()) {
            Optional<TargetStudy.Verdict> verdict = study(context, follow, take);
            if (verdict.isPresent()) {
                judged = true;
                keep(context, follow, verdict.get(), name, who.getName());
            }
        }
        judged |= trims.judge(context, takeId.get(), take, who.getName());
        if (!judged) {
            findings.note(
                    id,
                    "watch",
                    who.getName(),
                    String.format(
                            Locale.ROOT,
                            "%s recorded, %.0f s; no stretch in it to judge.",
                            name,
                            take.lengthSeconds()));
        }
        return "redirect:/jobs/" + id + "/watch/takes/" + takeId.get();
    }

    private Optional<TargetStudy.Verdict> study(
            JobPages.Context context, Follow follow, Take take) {
        return TargetStudy.study(
                take,
                follow,
                context.description(),
                leads.frame(context.job(), context.description()));
    }

    private void keep(
            JobPages.Context context,
            Follow follow,
            TargetStudy.Verdict verdict,
            String name,
            String who) {
        findings.add(
                context.job().id(),
                "watch",
                who,
                name
                        + ": "
                        + verdict.sentence()
                        + String.format(
                                Locale.ROOT,
                                " Worst %.0f %s behind.",
                                Math.max(0, verdict.worst()),
                                verdict.unit()),
                Optional.of(verdict.outcome().equals("follows")),
                Optional.of(new Evidence.Outcome(follow.finding(), verdict.outcome())),
                verdict);
    }

    @GetMapping("/takes/{take}")
    String take(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam(name = "when", defaultValue = "") String when,
            Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        Takes.TakeHead head = head(id, takeId);
        Take take = takes.read(takeId);
        model.addAttribute("head2", head);
        model.addAttribute("take", take);
        model.addAttribute("length", String.format(Locale.ROOT, "%.0f", take.lengthSeconds()));
        model.addAttribute("interrupted", head.ended().isEmpty() && recorder.current(id).isEmpty());
        List<Map<String, String>> rates = new ArrayList<>();
        take.columns()
                .forEach(
                        (v, column) ->
                                context.description()
                                        .value(v)
                                        .ifPresent(
                                                value ->
                                                        rates.add(
                                                                Map.of(
                                                                        "id",
                                                                        v,
                                                                        "name",
                                                                        value.name(),
                                                                        "unit",
                                                                        value.isState()
                                                                                ? ""
                                                                                : value.show(),
                                                                        "rate",
                                                                        String.format(
                                                                                Locale.ROOT,
                                                                                "%.1f",
                                                                                column.rate())))));
        model.addAttribute("rates", rates);
        model.addAttribute("search", StretchSearch.of(take, context.description(), when));
        model.addAttribute(
                "studies",
                context.description().follows().stream()
                        .flatMap(f -> study(context, f, take).stream())
                        .toList());
        List<String> whyNot =
                new ArrayList<>(
                        context.description().follows().stream()
                                .filter(f -> study(context, f, take).isEmpty())
                                .map(f -> TargetStudy.whyNot(take, f, context.description()))
                                .toList());
        whyNot.addAll(trims.whyNot(context, take));
        model.addAttribute("whyNot", whyNot);
        model.addAttribute("trims", trims.views(context, head, take));
        return "watch/take";
    }

    private Takes.TakeHead head(long id, long takeId) {
        return takes.head(id, takeId)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND, "There is no take " + takeId + "."));
    }

    /** The take's samples for the chart, in shown units. */
    @GetMapping("/takes/{take}/data")
    @ResponseBody
    Map<String, Object> data(@PathVariable("id") long id, @PathVariable("take") long takeId) {
        JobPages.Context context = pages.context(id);
        head(id, takeId);
        Take take = takes.read(takeId);
        List<Map<String, Object>> series = new ArrayList<>();
        take.columns()
                .forEach(
                        (v, column) ->
                                context.description()
                                        .value(v)
                                        .ifPresent(
                                                value -> {
                                                    double[] t = new double[column.size()];
                                                    double[] y = new double[column.size()];
                                                    for (int i = 0; i < t.length; i++) {
                                                        t[i] = column.seconds(i);
                                                        y[i] =
                                                                Scaling.shown(
                                                                        value, column.value(i));
                                                    }
                                                    series.add(
                                                            Map.of(
                                                                    "value",
                                                                    Shown.of(
                                                                            context.description(),
                                                                            value),
                                                                    "t",
                                                                    t,
                                                                    "y",
                                                                    y));
                                                }));
        return Map.of("series", series, "marks", take.marks());
    }

    @GetMapping("/takes/{take}/csv")
    void csv(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            HttpServletResponse response)
            throws IOException {
        JobPages.Context context = pages.context(id);
        Takes.TakeHead head = head(id, takeId);
        response.setContentType("text/csv; charset=utf-8");
        response.setHeader(
                "Content-Disposition",
                "attachment; filename=\"job-"
                        + id
                        + "-"
                        + head.name().replaceAll("[^A-Za-z0-9]+", "-")
                        + ".csv\"");
        TakeCsv.write(
                takes.read(takeId),
                context.description(),
                new java.io.OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8));
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
                d.agreements().stream()
                        .filter(a -> a.id().equals(agreementId))
                        .findFirst()
                        .orElseThrow();
        Set<String> ids = new LinkedHashSet<>(List.of(agreement.a(), agreement.b()));
        agreement.when().forEach(c -> ids.add(c.value()));
        Map<String, Double> now = context.link().read(d, ids);
        Optional<VehicleDescription.Condition> shut =
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
            return "redirect:/jobs/" + id + "/watch";
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
                        "%s: %.1f and %.1f %s, %s (up to %.0f apart is right).",
                        agreement.name(),
                        left,
                        right,
                        a.show(),
                        agrees ? "they agree" : "they differ",
                        agreement.within()),
                Optional.of(agrees),
                Optional.of(
                        new Evidence.Outcome(
                                agreement.finding(),
                                agrees ? agreement.agrees() : agreement.differs())),
                null);
        return "redirect:/jobs/" + id + "/watch";
    }
}
