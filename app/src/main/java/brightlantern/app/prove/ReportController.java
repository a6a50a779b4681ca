package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Json;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.Format;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Pdf;
import brightlantern.core.proof.Proof;
import brightlantern.core.reason.Standing;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** The report of a job, on screen, on paper and as data. */
@Controller
@RequestMapping("/jobs/{id}/prove")
class ReportController {
    private final JobPages pages;
    private final Proofs proofs;
    private final Repairs repairs;
    private final Findings findings;
    private final Sweeps sweeps;
    private final Json json;
    private final Pdf pdf;
    private final String workshop;
    private final Deciders deciders;

    ReportController(
            JobPages pages,
            Proofs proofs,
            Repairs repairs,
            Findings findings,
            Sweeps sweeps,
            Json json,
            Pdf pdf,
            @Value("${lantern.workshop}") String workshop,
            Deciders deciders) {
        this.pages = pages;
        this.proofs = proofs;
        this.repairs = repairs;
        this.findings = findings;
        this.sweeps = sweeps;
        this.json = json;
        this.pdf = pdf;
        this.workshop = workshop;
        this.deciders = deciders;
    }

    /** All that a report tells; for the page, the PDF and the data alike. */
    /**
     * @param workshop whose report it is; empty where none was named
     */
    record Report(
            String workshop,
            Job job,
            String vehicle,
            String engine,
            List<String> symptoms,
            List<String> codesBefore,
            List<String> codesAfter,
            List<String> decisive,
            String conclusion,
            List<String> chain,
            List<Repairs.Repair> repairs,
            Proof.Verdict proof,
            List<Findings.Finding> story) {}

    private Report report(JobPages.Context context) {
        Job job = context.job();
        VehicleDescription d = context.description();
        List<Sweeps.Head> kept = sweeps.heads(job.id());
        Optional<Suspect> cause =
                repairs.current(job.id())
                        .map(Repairs.Repair::suspectId)
                        .or(() -> deciders.ranking(context).accused().map(Standing::suspectId))
                        .flatMap(d::suspect);
        return new Report(
                workshop,
                job,
                d.name(),
                d.engine(),
                d.symptoms().stream()
                        .filter(s -> job.symptoms().contains(s.id()))
                        .map(s -> s.name() + ", " + s.when())
                        .toList(),
                kept.isEmpty()
                        ? List.of()
                        : codes(sweeps.read(kept.get(kept.size() - 1).id()).sweep()),
                kept.isEmpty() ? List.of() : codes(sweeps.read(kept.get(0).id()).sweep()),
                deciders.decisive(context),
                deciders.ranking(context).sentence(),
                cause.map(Suspect::chain).orElse(List.of()),
                repairs.of(job.id()),
                proofs.of(context)
                        .orElse(
                                new Proof.Verdict(
                                        Proof.State.OPEN,
                                        "No repair was done, so nothing is proven.",
                                        List.of())),
                findings.of(job.id()));
    }

    static List<String> codes(Sweep sweep) {
        return sweep.codes().stream()
                .map(
                        c ->
                                c.code()
                                        + " "
                                        + c.name()
                                        + " ("
                                        + c.moduleName()
                                        + "): "
                                        + c.statusByte().standing().words())
                .toList();
    }

    @GetMapping("/report")
    String report(@PathVariable("id") long id, Model model) {
        model.addAttribute("report", report(pages.context(id)));
        model.addAttribute("format", new Format());
        return "prove/report";
    }

    @GetMapping("/report.json")
    ResponseEntity<String> reportData(@PathVariable("id") long id) {
        Report report = report(pages.context(id));
        Map<String, Object> data = new LinkedHashMap<>();
        data.put("format", "bright-lantern-report-1");
        data.put("report", report);
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header("Content-Disposition", "attachment; filename=\"job-" + id + ".json\"")
                .body(json.pretty(data));
    }

    @GetMapping("/report.pdf")
    ResponseEntity<byte[]> reportPdf(@PathVariable("id") long id) throws IOException {
        return pdf.of("prove/report-pdf", Map.of("report", report(pages.context(id))), "job-" + id);
    }
}
