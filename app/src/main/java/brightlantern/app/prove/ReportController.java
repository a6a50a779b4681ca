package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Json;
import brightlantern.app.job.Workshops;
import brightlantern.app.page.Drawings;
import brightlantern.app.page.Format;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Pdf;
import brightlantern.app.picture.ReportPictures;
import java.io.IOException;
import java.security.Principal;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The reports of a job, for the customer and for the file: on screen, on paper and as data. */
@Controller
class ReportController {
    private static final String CUSTOMER = "customer";
    private static final String FILE = "file";
    private static final String FORMAT = "bright-lantern-report-4";

    private final JobPages pages;
    private final ReportMaker maker;
    private final ReportPictures pictures;
    private final Signatures signatures;
    private final Workshops workshops;
    private final Findings findings;
    private final Json json;
    private final Pdf pdf;
    private final List<Drawings> drawings;

    ReportController(
            JobPages pages,
            ReportMaker maker,
            ReportPictures pictures,
            Signatures signatures,
            Workshops workshops,
            Findings findings,
            Json json,
            Pdf pdf,
            List<Drawings> drawings) {
        this.drawings = drawings;
        this.pages = pages;
        this.maker = maker;
        this.pictures = pictures;
        this.signatures = signatures;
        this.workshops = workshops;
        this.findings = findings;
        this.json = json;
        this.pdf = pdf;
    }

    /**
     * @param whom customer or file
     */
    private Map<String, Object> shown(long id, String whom, List<ReportPictures.Shown> shown) {
        Map<String, Object> all = new HashMap<>();
        JobPages.Context context = pages.context(id);
        all.put("report", maker.of(context));
        all.put("strips", maker.measured(context).stream().map(Strip::of).toList());
        all.put("curves", maker.curves(context));
        all.put(
                "drawings",
                // the customer's fits on one sheet
                whom.equals(FILE)
                        ? drawings.stream()
                                .flatMap(d -> d.of(context, maker.repaired(context)).stream())
                                .toList()
                        : List.of());
        all.put("whom", whom);
        all.put("pictures", shown);
        all.put("workshop", workshops.get());
        all.put("logo", pdf.logo());
        all.put("signature", signatures.of(id).orElse(null));
        all.put(
                "signed",
                signatures.of(id).map(s -> ReportPictures.inline("image/png", s.png())).orElse(""));
        return all;
    }

    @GetMapping("/jobs/{id}/prove/report")
    String report(@PathVariable("id") long id, Model model) {
        model.addAllAttributes(shown(id, CUSTOMER, pictures.linked(id)));
        model.addAttribute("format", new Format());
        return "prove/report";
    }

    @GetMapping("/jobs/{id}/prove/report/file")
    String file(@PathVariable("id") long id, Model model) {
        model.addAllAttributes(shown(id, FILE, pictures.linked(id)));
        model.addAttribute("format", new Format());
        return "prove/report";
    }

    @GetMapping("/jobs/{id}/prove/report.json")
    ResponseEntity<String> reportData(@PathVariable("id") long id) {
        Map<String, Object> data = new LinkedHashMap<>();
        data.put("format", FORMAT);
        data.put("report", maker.of(pages.context(id)));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header("Content-Disposition", "attachment; filename=\"job-" + id + ".json\"")
                .body(json.pretty(data));
    }

    @GetMapping("/jobs/{id}/prove/report.pdf")
    ResponseEntity<byte[]> customerPdf(@PathVariable("id") long id) throws IOException {
        return pdf.of("prove/report-pdf", shown(id, CUSTOMER, pictures.held(id)), "job-" + id);
    }

    @GetMapping("/jobs/{id}/prove/report/file.pdf")
    ResponseEntity<byte[]> filePdf(@PathVariable("id") long id) throws IOException {
        return pdf.of(
                "prove/report-pdf", shown(id, FILE, pictures.held(id)), "job-" + id + "-file");
    }

    /** The customer's name below the report, written on the screen. */
    @PostMapping("/jobs/{id}/prove/report/sign")
    String sign(
            @PathVariable("id") long id,
            @RequestParam("by") String by,
            @RequestParam("drawing") String drawing,
            Principal who,
            RedirectAttributes flash) {
        pages.job(id);
        try {
            if (by.isBlank()) {
                throw new IllegalArgumentException("Say whose name it is.");
            }
            signatures.keep(id, by.trim(), who.getName(), Signatures.drawing(drawing));
            findings.note(
                    id, "prove", who.getName(), "The report was signed by " + by.trim() + ".");
            flash.addFlashAttribute("notice", "Signed.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return "redirect:/jobs/" + id + "/prove/report";
    }
}
