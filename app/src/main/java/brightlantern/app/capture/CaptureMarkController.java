package brightlantern.app.capture;

import brightlantern.app.job.Cut;
import brightlantern.app.page.JobPages;
import java.security.Principal;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Marks in a capture: set, and taken away. */
@Controller
@RequestMapping("/jobs/{id}/probe/captures")
class CaptureMarkController {
    private final JobPages pages;
    private final Captures captures;
    private final CaptureMarks marks;
    private final CaptureJudge judge;
    private final CaptureRecorder recorder;

    CaptureMarkController(
            JobPages pages,
            Captures captures,
            CaptureMarks marks,
            CaptureJudge judge,
            CaptureRecorder recorder) {
        this.judge = judge;
        this.recorder = recorder;
        this.pages = pages;
        this.captures = captures;
        this.marks = marks;
    }

    private Captures.Head head(long jobId, long captureId) {
        pages.job(jobId);
        return JobPages.found(captures.head(jobId, captureId), "capture", captureId);
    }

    /**
     * @param at seconds after the capture began
     */
    @PostMapping("/{capture}/marks")
    String set(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @RequestParam("at") String at,
            @RequestParam("words") String words,
            Principal who,
            RedirectAttributes flash) {
        Captures.Head head = head(id, captureId);
        double length =
                JobPages.found(captures.open(head), "sample in capture", captureId)
                        .capture()
                        .seconds();
        double seconds = seconds(at);
        if (!(seconds >= 0 && seconds <= length)) {
            flash.addFlashAttribute(
                    "error",
                    "Mark at '%s': expected seconds from 0 to %.4f; nothing was marked."
                            .formatted(at, length));
        } else if (words.isBlank()) {
            flash.addFlashAttribute(
                    "error", "A mark needs words: what was seen, or done; nothing was marked.");
        } else {
            marks.add(head.id(), seconds, words.strip(), who.getName());
            judge.marked(head, who.getName());
        }
        return back(id, captureId);
    }

    /** A mark at this moment of what is being recorded; answers with what came of it. */
    @PostMapping("/mark-now")
    String now(
            @PathVariable("id") long id,
            @RequestParam("words") String words,
            Principal who,
            Model model) {
        pages.job(id);
        Optional<CaptureRecorder.Status> going =
                recorder.status(id)
                        .filter(CaptureRecorder.Status::goesOn)
                        .filter(s -> s.captureId().isPresent());
        boolean set = going.isPresent() && !words.isBlank();
        double seconds = set ? recorder.seconds(id) : 0;
        if (set) {
            marks.add(going.get().captureId().orElseThrow(), seconds, words.strip(), who.getName());
        }
        model.addAttribute(
                "marked",
                set
                        ? String.format(
                                Locale.ROOT,
                                "Marked '%s' at %.1f s.",
                                Cut.to(CaptureMarks.LONGEST, words.strip()),
                                seconds)
                        : going.isEmpty()
                                ? "Nothing is being recorded just now; nothing was marked."
                                : "A mark needs words: what is being moved, or seen.");
        return "capture/captures :: marked";
    }

    /** Not a number where it is none. */
    private static double seconds(String at) {
        try {
            return Double.parseDouble(at.strip().replace(',', '.'));
        } catch (NumberFormatException none) {
            return Double.NaN;
        }
    }

    @PostMapping("/{capture}/marks/{mark}/remove")
    String remove(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @PathVariable("mark") long mark,
            RedirectAttributes flash) {
        if (!marks.remove(head(id, captureId).id(), mark)) {
            flash.addFlashAttribute("error", "That mark is gone already.");
        }
        return back(id, captureId);
    }

    private static String back(long id, long captureId) {
        return "redirect:/jobs/" + id + "/probe/captures/" + captureId;
    }
}
