package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.take.Take;
import brightlantern.core.take.TakeCsv;
import brightlantern.core.take.mdf.MdfWriter;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A take written for other programs. */
@Controller
@RequestMapping("/jobs/{id}/watch/takes/{take}")
class TakeExportController {
    /**
     * Bytes that a sample takes in an export, time included: an estimate for the bar of progress.
     */
    private static final int CSV_BYTES = 12;

    private static final int MDF_BYTES = 16;

    private final JobPages pages;
    private final Takes takes;

    TakeExportController(JobPages pages, Takes takes) {
        this.pages = pages;
        this.takes = takes;
    }

    private static String file(long id, Takes.TakeHead head, String ending) {
        return "attachment; filename=\"job-"
                + id
                + "-"
                + head.name().replaceAll("[^A-Za-z0-9]+", "-")
                + ending
                + "\"";
    }

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
        OpenedTake.Opened opened = OpenedTake.open(takes, pages.context(id), takeId);
        response.setContentType("text/csv; charset=utf-8");
        response.setHeader("Content-Disposition", file(id, opened.head(), ".csv"));
        expect(response, opened.take(), CSV_BYTES);
        TakeCsv.write(
                opened.take(),
                opened.description().signals(),
                layout == null ? TakeCsv.Layout.fitting(opened.take()) : layout,
                new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8));
    }

    @GetMapping("/mf4")
    void mdf(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            HttpServletResponse response)
            throws IOException {
        OpenedTake.Opened opened = OpenedTake.open(takes, pages.context(id), takeId);
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
