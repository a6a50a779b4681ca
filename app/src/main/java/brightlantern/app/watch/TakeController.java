package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.study.reaction.ReactionCheck;
import brightlantern.core.take.Span;
import brightlantern.core.take.Take;
import brightlantern.core.take.TakeCsv;
import brightlantern.core.take.Thinned;
import brightlantern.core.take.mdf.MdfWriter;
import brightlantern.core.vehicle.VehicleDescription;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;

/** One take: played back, judged, named, exported. */
@Controller
@RequestMapping("/jobs/{id}/watch/takes/{take}")
class TakeController {
    private static final int LONGEST_NAME = 180;
    private static final int LONGEST_NOTE = 2000;

    /** So many slices of time make a picture that fills a screen. */
    private static final int SLICES = 700;

    private final JobPages pages;
    private final Takes takes;
    private final TakeRecorder recorder;
    private final TakeJudge judge;
    private final Findings findings;

    TakeController(
            JobPages pages,
            Takes takes,
            TakeRecorder recorder,
            TakeJudge judge,
            Findings findings) {
        this.pages = pages;
        this.takes = takes;
        this.recorder = recorder;
        this.judge = judge;
        this.findings = findings;
    }

    /** A take with all that is needed to read it. */
    record Opened(Takes.TakeHead head, Take take, VehicleDescription description) {}

    static Opened open(Takes takes, JobPages.Context context, long takeId) {
        Takes.TakeHead head =
                takes.head(context.job().id(), takeId)
                        .orElseThrow(
                                () ->
                                        new ResponseStatusException(
                                                HttpStatus.NOT_FOUND,
                                                "There is no take " + takeId + "."));
        return new Opened(
                head, takes.ended(head), context.description().withValues(takes.own(takeId)));
    }

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam(name = "when", defaultValue = "") String when,
            @RequestParam(name = "command", defaultValue = "") String command,
            @RequestParam(name = "answers", defaultValue = "") String answers,
            @RequestParam(name = "view", defaultValue = "lanes") String view,
            Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        Opened opened = open(takes, context, takeId);
        Take take = opened.take();
        VehicleDescription d = opened.description();
        model.addAttribute("layouts", TakeCsv.Layout.values());
        model.addAttribute("layout", TakeCsv.Layout.fitting(opened.take()));
        model.addAttribute("takeHead", opened.head());
        model.addAttribute("take", take);
        model.addAttribute("view", view);
        model.addAttribute(
                "drawings",
                SystemDrawing.of(d).stream()
                        .filter(
                                g ->
                                        g.parts().stream()
                                                .flatMap(p -> p.lines().stream())
                                                .anyMatch(l -> take.columns().containsKey(l.id())))
                        .toList());
        model.addAttribute("length", String.format(Locale.ROOT, "%.0f", take.lengthSeconds()));
        model.addAttribute(
                "interrupted", opened.head().ended().isEmpty() && recorder.current(id).isEmpty());
        model.addAttribute("values", shown(take, d));
        model.addAttribute("rates", rates(take, d));
        model.addAttribute("search", StretchSearch.of(take, d, when));
        TakeJudge.Views views =
                judge.views(
                        new JobPages.Context(context.job(), d, context.link()),
                        opened.head(),
                        take);
        model.addAttribute("views", views);
        model.addAttribute("answer", views.answer());
        model.addAttribute("command", command);
        model.addAttribute("answers", answers);
        model.addAttribute("reaction", reaction(take, d, command, answers).orElse(null));
        return "watch/take";
    }

    private static List<Shown> shown(Take take, VehicleDescription d) {
        return take.columns().keySet().stream()
                .flatMap(v -> d.value(v).stream())
                .map(v -> Shown.of(d, v))
                .toList();
    }

    private static List<Map<String, String>> rates(Take take, VehicleDescription d) {
        List<Map<String, String>> rates = new ArrayList<>();
        take.columns()
                .forEach(
                        (v, column) ->
                                d.value(v)
                                        .ifPresent(
                                                value ->
                                                        rates.add(
                                                                Map.of(
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
        return rates;
    }

    /** The verdict with values in the units in which they are shown. */
    private static Optional<ReactionCheck.Verdict> reaction(
            Take take, VehicleDescription d, String command, String answer) {
        if (!take.columns().containsKey(command) || !take.columns().containsKey(answer)) {
            return Optional.empty();
        }
        Map<String, Take.Column> both = new HashMap<>();
        for (String id : List.of(command, answer)) {
            both.put(id, inShownUnit(take.columns().get(id), d.value(id)));
        }
        return Optional.of(
                ReactionCheck.check(
                        new Take(both, List.of()),
                        command,
                        answer,
                        d.value(command).map(Value::show).orElse(""),
                        d.value(answer).map(Value::show).orElse("")));
    }

    static Take.Column inShownUnit(Take.Column column, Optional<Value> value) {
        double[] t = new double[column.size()];
        double[] y = new double[column.size()];
        for (int i = 0; i < t.length; i++) {
            t[i] = column.seconds(i);
            double raw = column.value(i);
            y[i] = value.map(v -> Scaling.shown(v, raw)).orElse(raw);
        }
        return new Take.Column(t, y);
    }

    /** Keeps what the reaction check said as a finding. */
    @PostMapping("/reaction")
    String keepReaction(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam("command") String command,
            @RequestParam("answers") String answers,
            Principal who) {
        Opened opened = open(takes, pages.context(id), takeId);
        VehicleDescription d = opened.description();
        reaction(opened.take(), d, command, answers)
                .ifPresent(
                        v ->
                                findings.add(
                                        id,
                                        "watch",
                                        who.getName(),
                                        opened.head().name()
                                                + ": "
                                                + d.value(answers).map(Value::name).orElse(answers)
                                                + " after "
                                                + d.value(command).map(Value::name).orElse(command)
                                                + ". "
                                                + v.sentence(),
                                        v.outcome().equals("no-step")
                                                ? Optional.empty()
                                                : Optional.of(v.outcome().equals("reacts")),
                                        Optional.empty(),
                                        v,
                                        "reaction " + command + " " + answers));
        return "redirect:/jobs/"
                + id
                + "/watch/takes/"
                + takeId
                + "?command="
                + command
                + "&answers="
                + answers;
    }

    @PostMapping("/note")
    String note(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam("name") String name,
            @RequestParam("note") String note,
            @RequestParam(name = "aside", defaultValue = "false") boolean aside) {
        Takes.TakeHead head = open(takes, pages.context(id), takeId).head();
        String given = name.isBlank() ? head.name() : name.trim();
        takes.note(
                takeId,
                given.substring(0, Math.min(LONGEST_NAME, given.length())),
                note.substring(0, Math.min(LONGEST_NOTE, note.length())));
        takes.setAside(takeId, aside);
        return "redirect:/jobs/" + id + "/watch/takes/" + takeId;
    }

    /**
     * Samples of a part of the take, thinned to what a picture of it can show, with room to either
     * side for a hand that moves it; and what every value comes to in the part itself.
     */
    @GetMapping("/data")
    @ResponseBody
    Map<String, Object> data(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam(name = "from", defaultValue = "0") double from,
            @RequestParam(name = "to", defaultValue = "-1") double to) {
        Opened opened = open(takes, pages.context(id), takeId);
        Take take = opened.take();
        double length = take.lengthSeconds();
        double until = to < 0 || Double.isNaN(to) ? length : Math.min(to, length);
        double since = Math.max(0, Math.min(from, until));
        double room = (until - since) / 2;
        List<Map<String, Object>> series = new ArrayList<>();
        take.columns()
                .forEach(
                        (v, column) ->
                                opened.description()
                                        .value(v)
                                        .ifPresent(
                                                value ->
                                                        series.add(
                                                                series(
                                                                        opened.description(),
                                                                        value,
                                                                        column,
                                                                        Thinned.of(
                                                                                column,
                                                                                Math.max(
                                                                                        0,
                                                                                        since
                                                                                                - room),
                                                                                Math.min(
                                                                                        length,
                                                                                        until
                                                                                                + room),
                                                                                SLICES),
                                                                        since,
                                                                        until))));
        return Map.of("series", series, "marks", take.marks(), "length", length);
    }

    private static Map<String, Object> series(
            VehicleDescription d,
            Value value,
            Take.Column column,
            Thinned thinned,
            double from,
            double to) {
        double[] t = thinned.seconds();
        Span seen = Span.of(column, from, to);
        return Map.of(
                "value",
                Shown.of(d, value),
                "t",
                t,
                "y",
                Arrays.stream(thinned.values()).mapToObj(v -> finite(value, v)).toArray(),
                "seen",
                Stream.of(seen.least(), seen.mean(), seen.most())
                        .map(v -> finite(value, v))
                        .toArray());
    }

    /** In the unit in which it is shown; null for what is no number, which JSON does not have. */
    private static Double finite(Value value, double raw) {
        double v = Scaling.shown(value, raw);
        return Double.isFinite(v) ? v : null;
    }

    private static String file(long id, Takes.TakeHead head, String ending) {
        return "attachment; filename=\"job-"
                + id
                + "-"
                + head.name().replaceAll("[^A-Za-z0-9]+", "-")
                + ending
                + "\"";
    }

    /**
     * Bytes that a sample takes in an export, time included: an estimate for the bar of progress.
     */
    private static final int CSV_BYTES = 12;

    private static final int MDF_BYTES = 16;

    private static void expect(HttpServletResponse response, Take take, int each) {
        long samples = take.columns().values().stream().mapToLong(Take.Column::size).sum();
        response.setHeader("X-Expected-Bytes", String.valueOf(samples * each));
    }

    @GetMapping("/csv")
    void csv(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam(name = "layout", required = false) TakeCsv.Layout layout,
            HttpServletResponse response)
            throws IOException {
        Opened opened = open(takes, pages.context(id), takeId);
        response.setContentType("text/csv; charset=utf-8");
        response.setHeader("Content-Disposition", file(id, opened.head(), ".csv"));
        expect(response, opened.take(), CSV_BYTES);
        TakeCsv.write(
                opened.take(),
                opened.description().signals(),
                layout == null ? TakeCsv.Layout.fitting(opened.take()) : layout,
                new java.io.OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8));
    }

    @GetMapping("/mf4")
    void mdf(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            HttpServletResponse response)
            throws IOException {
        Opened opened = open(takes, pages.context(id), takeId);
        response.setContentType("application/octet-stream");
        response.setHeader("Content-Disposition", file(id, opened.head(), ".mf4"));
        expect(response, opened.take(), MDF_BYTES);
        MdfWriter.write(
                opened.take(),
                opened.description().signals(),
                opened.head().started(),
                response.getOutputStream());
    }
}
