package brightlantern.app.watch;

import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.StudyNeeds;
import jakarta.servlet.http.HttpSession;
import java.security.Principal;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Takes that run: begun, marked, done again and ended. */
@Controller
@RequestMapping("/jobs/{id}/watch")
class RecordingController {
    private final JobPages pages;
    private final TakeRecorder recorder;
    private final Takes takes;
    private final LeadCodes leads;
    private final TakeJudge judge;

    RecordingController(
            JobPages pages, TakeRecorder recorder, Takes takes, LeadCodes leads, TakeJudge judge) {
        this.pages = pages;
        this.recorder = recorder;
        this.takes = takes;
        this.leads = leads;
        this.judge = judge;
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
        return WatchController.BACK + id + "/watch";
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
        Set<String> ids = new LinkedHashSet<>(WatchValues.chosen(context, session));
        // what the studies need is recorded too, whether it is looked at or not
        ids.addAll(StudyNeeds.all(context.description()));
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
        return WatchController.BACK + id + "/watch";
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
            return WatchController.BACK + id + "/watch";
        }
        if (takeId.isEmpty()) {
            return WatchController.BACK + id + "/watch";
        }
        judge.judge(context, takeId.get(), who.getName());
        return WatchController.BACK + id + "/watch/takes/" + takeId.get();
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
}
