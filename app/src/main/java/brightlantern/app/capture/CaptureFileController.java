package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.core.capture.CaptureCsv;
import brightlantern.core.capture.bus.FrameLog;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.Writer;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** A capture as files for other tools. */
@Controller
@RequestMapping("/jobs/{id}/probe/captures/{capture}")
class CaptureFileController {
    private final JobPages pages;
    private final Captures captures;
    private final CaptureJudge judge;

    CaptureFileController(JobPages pages, Captures captures, CaptureJudge judge) {
        this.pages = pages;
        this.captures = captures;
        this.judge = judge;
    }

    private Captures.Opened opened(long jobId, long captureId) {
        Captures.Head head = JobPages.found(captures.head(jobId, captureId), "capture", captureId);
        return JobPages.found(captures.open(head), "sample in capture", captureId);
    }

    @GetMapping("/lanes.csv")
    void csv(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            HttpServletResponse response)
            throws IOException {
        pages.context(id);
        Captures.Opened opened = opened(id, captureId);
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader(
                "Content-Disposition", "attachment; filename=\"capture-" + captureId + ".csv\"");
        try (Writer out = response.getWriter()) {
            CaptureCsv.write(opened.capture(), out);
        }
    }

    /** The frames that were read in it, for tools of the trade. */
    @GetMapping("/frames.log")
    void frames(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            HttpServletResponse response)
            throws IOException {
        JobPages.Context context = pages.context(id);
        Captures.Opened opened = opened(id, captureId);
        CaptureJudge.Wires read =
                JobPages.found(
                        Optional.of(judge.read(opened, context.job(), context.description()))
                                .filter(CaptureJudge.Wires.class::isInstance)
                                .map(CaptureJudge.Wires.class::cast),
                        "frame in capture",
                        captureId);
        response.setContentType("text/plain;charset=UTF-8");
        response.setHeader(
                "Content-Disposition", "attachment; filename=\"capture-" + captureId + ".log\"");
        try (Writer out = response.getWriter()) {
            FrameLog.write(read.judgement().frames(), opened.head().began(), read.bus().id(), out);
        }
    }
}
