package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.page.JobPages;
import brightlantern.core.study.map.MapCsv;
import brightlantern.core.suspect.Evidence;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/**
 * What becomes of a study: kept, brought to the newest takes, told as a finding, written as CSV.
 */
@Controller
@RequestMapping("/jobs/{id}/watch/studies")
class StudyFindingController {
    private final JobPages pages;
    private final Jobs jobs;
    private final Findings findings;
    private final KeptStudies kept;
    private final StudyMaker studyMaker;

    StudyFindingController(
            JobPages pages, Jobs jobs, Findings findings, KeptStudies kept, StudyMaker studyMaker) {
        this.pages = pages;
        this.jobs = jobs;
        this.findings = findings;
        this.kept = kept;
        this.studyMaker = studyMaker;
    }

    /** The newest map as CSV. */
    @GetMapping("/map.csv")
    void csv(@PathVariable("id") long id, StudyController.Asked asked, HttpServletResponse response)
            throws IOException {
        response.setContentType("text/csv; charset=utf-8");
        response.setHeader(
                "Content-Disposition", "attachment; filename=\"job-" + id + "-map.csv\"");
        MapCsv.write(
                studyMaker.computed(id, asked),
                new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8));
    }

    @PostMapping("/keep")
    String keep(
            @PathVariable("id") long id,
            StudyController.Asked asked,
            @RequestParam("name") String name,
            RedirectAttributes flash) {
        StringWriter out = new StringWriter();
        MapCsv.write(studyMaker.computed(id, asked), out);
        kept.keepMap(id, name.isBlank() ? "map" : name.trim(), out.toString());
        flash.addFlashAttribute(
                "notice", "The map was kept; another one can be subtracted from it.");
        return "redirect:/jobs/" + id + "/watch/studies";
    }

    /** A map from a file, to be compared with. */
    @PostMapping("/bring")
    String bring(
            @PathVariable("id") long id,
            @RequestParam("file") MultipartFile file,
            RedirectAttributes flash)
            throws IOException {
        byte[] bytes = file.getBytes();
        try {
            MapCsv.read(
                    new InputStreamReader(new ByteArrayInputStream(bytes), StandardCharsets.UTF_8));
            kept.keepMap(
                    id,
                    Optional.ofNullable(file.getOriginalFilename()).orElse("map"),
                    new String(bytes, StandardCharsets.UTF_8));
            flash.addFlashAttribute("notice", "The map was brought in.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute(
                    "error", file.getOriginalFilename() + ": " + wrong.getMessage());
        }
        return "redirect:/jobs/" + id + "/watch/studies";
    }

    /** Keeps what a study says, as the technician reads it. */
    @PostMapping("/finding")
    String finding(
            @PathVariable("id") long id,
            @RequestParam("text") String text,
            @RequestParam("verdict") String verdict,
            @RequestParam(name = "speaks", defaultValue = "") String speaks,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        String[] parts = speaks.split("\\|");
        Optional<Evidence> evidence =
                parts.length == 2
                                && context.description().finding(parts[0]).stream()
                                        .flatMap(f -> f.outcomes().stream())
                                        .anyMatch(o -> o.id().equals(parts[1]))
                        ? Optional.of(new Evidence.Outcome(parts[0], parts[1]))
                        : Optional.empty();
        Map<String, Boolean> passed = new LinkedHashMap<>();
        passed.put("holds", true);
        passed.put("fails", false);
        findings.add(
                id,
                "watch",
                who.getName(),
                text.substring(0, Math.min(800, text.length())),
                Optional.ofNullable(passed.get(verdict)),
                evidence,
                null,
                "study");
        flash.addFlashAttribute("notice", "Kept among the findings of this job.");
        return "redirect:/jobs/" + id + "/watch/studies";
    }
}
