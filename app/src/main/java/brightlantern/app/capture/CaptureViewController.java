package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.core.capture.CaptureAlignment;
import brightlantern.core.cylinder.Cylinders;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** One capture: its lanes, and what is read in them. */
@Controller
@RequestMapping("/jobs/{id}/probe/captures/{capture}")
class CaptureViewController {
    private final JobPages pages;
    private final Captures captures;
    private final CaptureJudge judge;
    private final CaptureMarks marks;
    private final CapturePictures pictures;

    CaptureViewController(
            JobPages pages,
            Captures captures,
            CaptureJudge judge,
            CaptureMarks marks,
            CapturePictures pictures) {
        this.pictures = pictures;
        this.pages = pages;
        this.captures = captures;
        this.judge = judge;
        this.marks = marks;
    }

    private Captures.Head head(long jobId, long captureId) {
        return JobPages.found(captures.head(jobId, captureId), "capture", captureId);
    }

    private Captures.Opened opened(long jobId, long captureId) {
        return JobPages.found(
                captures.open(head(jobId, captureId)), "sample in capture", captureId);
    }

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @RequestParam(name = "beside", defaultValue = "0") long beside,
            @RequestParam(name = "by", defaultValue = "START") CaptureAlignment.By by,
            @RequestParam(name = "moved", defaultValue = "0") double moved,
            Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        model.addAttribute("view", view(context, captureId, beside));
        model.addAttribute("beside", beside);
        model.addAttribute("by", by);
        model.addAttribute("moved", moved);
        model.addAttribute("marks", marks.of(captureId));
        return "capture/capture";
    }

    private CaptureView view(JobPages.Context context, long captureId, long beside) {
        long jobId = context.job().id();
        if (captures.growing(captureId).isPresent()) {
            return CaptureView.growing(head(jobId, captureId));
        }
        Captures.Opened opened = opened(jobId, captureId);
        return CaptureView.of(
                opened,
                judge.read(opened, context.job(), context.description()),
                captures.of(jobId).stream()
                        .filter(h -> h.id() != captureId && !h.setAside())
                        .toList(),
                beside);
    }

    /**
     * What a picture of a part of it shows.
     *
     * @param from and to: seconds; a {@code to} below zero is the end
     */
    @GetMapping("/picture")
    @ResponseBody
    Map<String, Object> picture(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @RequestParam(name = "from", defaultValue = "0") double from,
            @RequestParam(name = "to", defaultValue = "-1") double to,
            @RequestParam(name = "columns", defaultValue = "1000") int columns) {
        JobPages.Context context = pages.context(id);
        Captures.Head head = head(id, captureId);
        CapturePictures.Part part = new CapturePictures.Part(from, to, columns);
        return captures.growing(captureId)
                .map(g -> pictures.growing(head, g, part))
                .orElseGet(() -> pictures.of(opened(id, captureId), context.description(), part));
    }

    /**
     * What another capture shows in the columns of a picture of this one.
     *
     * @param from and to: seconds of this one; a {@code to} below zero is its end
     * @param moved milliseconds by which the other one is moved to the right besides
     */
    @GetMapping("/under/{other}")
    @ResponseBody
    Map<String, Object> under(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @PathVariable("other") long otherId,
            @RequestParam(name = "by", defaultValue = "START") CaptureAlignment.By by,
            @RequestParam(name = "moved", defaultValue = "0") double moved,
            @RequestParam(name = "from", defaultValue = "0") double from,
            @RequestParam(name = "to", defaultValue = "-1") double to,
            @RequestParam(name = "columns", defaultValue = "1000") int columns) {
        Optional<Cylinders> its = pages.context(id).description().cylinders();
        Captures.Opened first = opened(id, captureId);
        Captures.Opened second = opened(id, otherId);
        return pictures.under(
                first,
                second,
                first.laid(by, second, its, moved / 1000),
                new CapturePictures.Part(from, to, columns));
    }
}
