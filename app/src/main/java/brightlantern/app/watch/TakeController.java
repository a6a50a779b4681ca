package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.take.TakeCsv;
import brightlantern.core.vehicle.VehicleDescription;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** One take: played back, judged, named, exported. */
@Controller
@RequestMapping("/jobs/{id}/watch/takes/{take}")
class TakeController {
    private static final int LONGEST_NAME = 180;
    private static final int LONGEST_NOTE = 2000;

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
        OpenedTake.Opened opened = OpenedTake.open(takes, context, takeId);
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
        model.addAttribute(
                "reaction", TakeReactions.reaction(take, d, command, answers).orElse(null));
        return "watch/take";
    }

    static List<Shown> shown(Take take, VehicleDescription d) {
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

    /** Keeps what the reaction check said as a finding. */
    @PostMapping("/reaction")
    String keepReaction(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam("command") String command,
            @RequestParam("answers") String answers,
            Principal who) {
        OpenedTake.Opened opened = OpenedTake.open(takes, pages.context(id), takeId);
        VehicleDescription d = opened.description();
        TakeReactions.reaction(opened.take(), d, command, answers)
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
        Takes.TakeHead head = OpenedTake.open(takes, pages.context(id), takeId).head();
        String given = name.isBlank() ? head.name() : name.trim();
        takes.note(
                takeId,
                given.substring(0, Math.min(LONGEST_NAME, given.length())),
                note.substring(0, Math.min(LONGEST_NOTE, note.length())));
        takes.setAside(takeId, aside);
        return "redirect:/jobs/" + id + "/watch/takes/" + takeId;
    }
}
