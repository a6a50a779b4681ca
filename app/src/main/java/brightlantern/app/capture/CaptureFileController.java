package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.core.capture.CaptureCsv;
import brightlantern.core.capture.CaptureFiles;
import brightlantern.core.capture.bus.BusReading;
import brightlantern.core.capture.bus.FrameLog;
import brightlantern.core.capture.comtrade.ComtradeWriter;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
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

    /** Writes a capture as a file of some kind. */
    private interface Writes {
        void to(Captures.Opened opened, OutputStream out) throws IOException;
    }

    /** Kinds of files, by their endings. */
    private enum Kind {
        CSV("text/csv;charset=UTF-8", CaptureFileController::csv),
        MF4(
                MediaType.APPLICATION_OCTET_STREAM_VALUE,
                (o, out) -> CaptureFiles.mdf(o.capture(), o.head().began(), out)),
        CFF(
                MediaType.APPLICATION_OCTET_STREAM_VALUE,
                (o, out) ->
                        ComtradeWriter.write(o.capture(), o.head().name(), o.head().began(), out)),
        WAV("audio/wav", (o, out) -> CaptureFiles.wav(o.capture(), out));

        private final String type;
        private final Writes writes;

        Kind(String type, Writes writes) {
            this.type = type;
            this.writes = writes;
        }

        static Kind ending(String text) {
            return Arrays.stream(values())
                    .filter(k -> k.name().equalsIgnoreCase(text))
                    .findFirst()
                    .orElseThrow(
                            () ->
                                    refused(
                                            "File '" + text + "': expected csv, mf4, cff or wav.",
                                            null));
        }
    }

    private static ResponseStatusException refused(String why, Exception cause) {
        return new ResponseStatusException(HttpStatus.BAD_REQUEST, why, cause);
    }

    private static void csv(Captures.Opened opened, OutputStream out) throws IOException {
        Writer text = new OutputStreamWriter(out, StandardCharsets.UTF_8);
        CaptureCsv.write(opened.capture(), text);
        text.flush();
    }

    @GetMapping("/lanes.{ending}")
    void lanes(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @PathVariable("ending") String ending,
            HttpServletResponse response)
            throws IOException {
        Kind kind = Kind.ending(ending);
        Captures.Opened opened = opened(id, captureId);
        named(response, captureId, ending, kind.type);
        OutputStream out = new BufferedOutputStream(response.getOutputStream());
        try {
            kind.writes.to(opened, out);
            out.flush();
        } catch (IllegalArgumentException tooLong) {
            // refused before anything of it was sent
            response.reset();
            throw refused(tooLong.getMessage() + ".", tooLong);
        }
    }

    private static void named(
            HttpServletResponse response, long captureId, String ending, String type) {
        response.setContentType(type);
        response.setHeader(
                "Content-Disposition",
                "attachment; filename=\"capture-" + captureId + "." + ending + "\"");
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
        BusReading read =
                JobPages.found(
                        judge.read(opened, context.job(), context.description())
                                .as(BusReading.class),
                        "frame in capture",
                        captureId);
        named(response, captureId, "log", "text/plain;charset=UTF-8");
        try (Writer out = response.getWriter()) {
            FrameLog.write(read.judgement().frames(), opened.head().began(), read.bus().id(), out);
        }
    }
}
