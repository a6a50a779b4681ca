package brightlantern.app.sweep;

import brightlantern.app.job.Job;
import brightlantern.app.job.Json;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Pdf;
import brightlantern.app.page.UnitChoices;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.server.ResponseStatusException;

/** An odometer check to hand over: on paper and as data. */
@Controller
@RequestMapping("/jobs/{id}/sweep/odometer")
class OdometerReportController {
    private static final String FORMAT = "bright-lantern-odometer-1";

    private final JobPages pages;
    private final OdometerChecks checks;
    private final UnitChoices units;
    private final Json json;
    private final Pdf pdf;

    OdometerReportController(
            JobPages pages, OdometerChecks checks, UnitChoices units, Json json, Pdf pdf) {
        this.pages = pages;
        this.checks = checks;
        this.units = units;
        this.json = json;
        this.pdf = pdf;
    }

    /** What was found, on paper. */
    @GetMapping("/report.pdf")
    ResponseEntity<byte[]> paper(@PathVariable("id") long id) throws IOException {
        JobPages.Context context = pages.context(id);
        OdometerChecks.Check check = kept(id);
        return pdf.of(
                "sweep/odometer-pdf",
                Map.of(
                        "job",
                        context.job(),
                        "vehicle",
                        context.description().name(),
                        "answer",
                        units.read(check.verdict().sentence()),
                        "rows",
                        OdometerRows.rows(context, check, units),
                        "troubles",
                        check.troubles(),
                        "chart",
                        OdometerChart.of(check.verdict(), check.now(), check.shown(), units)),
                "job-" + id + "-odometer");
    }

    /** The same as data; in km, hours and Unix time. */
    @GetMapping("/report.json")
    ResponseEntity<String> data(@PathVariable("id") long id) {
        Job job = pages.context(id).job();
        Map<String, Object> data = new LinkedHashMap<>();
        data.put("format", FORMAT);
        data.put("vin", job.vin());
        data.put("check", kept(id));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header(
                        "Content-Disposition",
                        "attachment; filename=\"job-" + id + "-odometer.json\"")
                .body(json.pretty(data));
    }

    private OdometerChecks.Check kept(long id) {
        return checks.newest(id)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "Job " + id + " has no odometer check to report."));
    }
}
