package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureCsv;
import brightlantern.core.capture.CaptureFiles;
import brightlantern.core.capture.bus.FrameLog;
import brightlantern.core.capture.comtrade.ComtradeWriter;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.server.ResponseStatusException;

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
        pages.context(jobId);
        Captures.Head head = JobPages.found(captures.head(jobId, captureId), "capture", captureId);
        return JobPages.found(captures.open(head), "sample in capture", captureId);
    }

    @GetMapping("/lanes.csv")
    void csv(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            HttpServletResponse response)
            throws IOException {
        Captures.Opened opened = opened(id, captureId);
        try (Writer out =
                new OutputStreamWriter(
                        file(response, captureId, "csv", "text/csv;charset=UTF-8"),
                        StandardCharsets.UTF_8)) {
            CaptureCsv.write(opened.capture(), out);
        }
    }

    @GetMapping("/lanes.wav")
    void wav(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            HttpServletResponse response)
            throws IOException {
        Capture capture = opened(id, captureId).capture();
        inMemory(out -> CaptureFiles.wav(capture, out))
                .writeTo(file(response, captureId, "wav", "audio/wav"));
    }

    @GetMapping("/lanes.cff")
    void cff(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            HttpServletResponse response)
            throws IOException {
        Captures.Opened opened = opened(id, captureId);
        try (OutputStream out =
                new BufferedOutputStream(
                        file(
                                response,
                                captureId,
                                "cff",
                                MediaType.APPLICATION_OCTET_STREAM_VALUE))) {
            ComtradeWriter.write(
                    opened.capture(), opened.head().name(), opened.head().began(), out);
        }
    }

    @GetMapping("/lanes.mf4")
    void mdf(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            HttpServletResponse response)
            throws IOException {
        Captures.Opened opened = opened(id, captureId);
        inMemory(out -> CaptureFiles.mdf(opened.capture(), opened.head().began(), out))
                .writeTo(
                        file(response, captureId, "mf4", MediaType.APPLICATION_OCTET_STREAM_VALUE));
    }

    /** Writes a file. */
    private interface Writes {
        void to(OutputStream out) throws IOException;
    }

    /** Whole before anything of it is sent, so that a refusal is a page of its own. */
    private static ByteArrayOutputStream inMemory(Writes file) throws IOException {
        ByteArrayOutputStream whole = new ByteArrayOutputStream();
        try {
            file.to(whole);
        } catch (IllegalArgumentException tooLong) {
            throw new ResponseStatusException(
                    HttpStatus.BAD_REQUEST, tooLong.getMessage() + ".", tooLong);
        }
        return whole;
    }

    private static OutputStream file(
            HttpServletResponse response, long captureId, String ending, String type)
            throws IOException {
        response.setContentType(type);
        response.setHeader(
                "Content-Disposition",
                "attachment; filename=\"capture-" + captureId + "." + ending + "\"");
        return response.getOutputStream();
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
