package brightlantern.app.sweep;

import brightlantern.app.job.Job;
import brightlantern.app.job.Json;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.Format;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Pdf;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.SweepComparison;
import brightlantern.core.sweep.SweepTable;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;

/** A sweep, or a comparison, as a file. */
@Controller
@RequestMapping("/jobs/{id}/sweep/export")
class SweepExportController {
    private static final MediaType CSV = new MediaType("text", "csv", StandardCharsets.UTF_8);
    private static final MediaType TEXT = new MediaType("text", "plain", StandardCharsets.UTF_8);

    private final JobPages pages;
    private final Sweeps sweeps;
    private final CodeParts parts;
    private final Json json;
    private final Format format;
    private final Pdf pdf;

    SweepExportController(
            JobPages pages, Sweeps sweeps, CodeParts parts, Json json, Format format, Pdf pdf) {
        this.pages = pages;
        this.sweeps = sweeps;
        this.parts = parts;
        this.json = json;
        this.format = format;
        this.pdf = pdf;
    }

    private ResponseStatusException missing(String what) {
        return new ResponseStatusException(HttpStatus.NOT_FOUND, what);
    }

    /**
     * @param before id of an earlier sweep of the same vehicle; the comparison is exported then
     */
    @GetMapping("/{kind}")
    ResponseEntity<?> export(
            @PathVariable("id") long id,
            @PathVariable("kind") String kind,
            @RequestParam(name = "before", required = false) Long before)
            throws IOException {
        JobPages.Context context = pages.context(id);
        Job job = context.job();
        Sweep newest =
                sweeps.newest(id)
                        .map(Sweeps.Kept::sweep)
                        .orElseThrow(() -> missing("Job " + id + " has no sweep to export."));
        Optional<Sweep> earlier =
                Optional.ofNullable(before)
                        .map(
                                b ->
                                        sweeps.ofVehicle(job.vin(), b)
                                                .map(Sweeps.Kept::sweep)
                                                .orElseThrow(
                                                        () ->
                                                                missing(
                                                                        "This vehicle has no sweep "
                                                                                + b
                                                                                + ".")));
        String name = "job-" + id + (earlier.isPresent() ? "-compared" : "-sweep");
        SweepTable table = table(context, newest, earlier);
        return switch (kind) {
            case "csv" -> file(CSV, name + ".csv", table.csv());
            case "text" -> ResponseEntity.ok().contentType(TEXT).body(table.text());
            case "json" ->
                    file(
                            MediaType.APPLICATION_JSON,
                            name + ".json",
                            json.pretty(data(job, newest, earlier)));
            case "pdf" -> pdf.of("sweep/table-pdf", Map.of("table", table), name);
            default -> throw missing("Expected csv, text, json or pdf, found '" + kind + "'.");
        };
    }

    private static ResponseEntity<String> file(MediaType type, String name, String content) {
        return ResponseEntity.ok()
                .contentType(type)
                .header("Content-Disposition", "attachment; filename=\"" + name + "\"")
                .body(content);
    }

    private SweepTable table(JobPages.Context context, Sweep newest, Optional<Sweep> earlier) {
        String vehicle = context.description().name() + ", VIN " + context.job().vin();
        String when = "Sweep of " + format.day(newest.started());
        if (earlier.isPresent()) {
            return SweepTable.of(
                    "Two sweeps compared",
                    List.of(
                            vehicle,
                            when + " against that of " + format.day(earlier.get().started())),
                    SweepComparison.compare(earlier.get(), newest));
        }
        return SweepTable.of(
                "Sweep",
                List.of(vehicle, when, "Complaint: " + context.job().complaint()),
                newest,
                parts.weigh(context, newest));
    }

    private static Map<String, Object> data(Job job, Sweep newest, Optional<Sweep> earlier) {
        Map<String, Object> data = new LinkedHashMap<>();
        data.put("format", "bright-lantern-sweep-1");
        data.put("vin", job.vin());
        data.put("sweep", newest);
        earlier.ifPresent(e -> data.put("comparison", SweepComparison.compare(e, newest)));
        return data;
    }
}
