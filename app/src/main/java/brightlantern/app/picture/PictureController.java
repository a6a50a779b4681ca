package brightlantern.app.picture;

import brightlantern.app.capture.Captures;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Json;
import brightlantern.app.page.JobPages;
import brightlantern.core.attachment.Mark;
import java.io.IOException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import tools.jackson.core.JacksonException;

/** Pictures and papers of a job: brought in, marked, told what they show. */
@Controller
@RequestMapping("/jobs/{id}/pictures")
class PictureController {
    private static final int MOST_FILES = 200;
    private static final int MOST_MARKS = 40;

    /** So many of the newest findings and of the leading parts can be named as what it shows. */
    private static final int MOST_FINDINGS = 20;

    private static final int MOST_PARTS = 6;

    private final JobPages pages;
    private final Attachments attachments;
    private final FileDesk desk;
    private final Findings findings;
    private final Json json;
    private final Captures captures;

    PictureController(
            JobPages pages,
            Attachments attachments,
            FileDesk desk,
            Findings findings,
            Json json,
            Captures captures) {
        this.captures = captures;
        this.pages = pages;
        this.attachments = attachments;
        this.desk = desk;
        this.findings = findings;
        this.json = json;
    }

    /**
     * @param shows what a file may be said to show
     */
    record View(String answer, List<Attachments.Head> files, List<String> shows, long most) {}

    @GetMapping
    String list(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "trace", model);
        List<Attachments.Head> files = attachments.of(id);
        model.addAttribute(
                "view",
                new View(
                        files.isEmpty()
                                ? "Nothing was kept yet that shows what was seen."
                                : "What was seen, to be shown to others.",
                        files,
                        shows(context),
                        FileDesk.MOST_BYTES));
        return "picture/pictures";
    }

    private List<String> shows(JobPages.Context context) {
        List<Findings.Finding> all = findings.of(context.job().id());
        Stream<String> parts =
                pages.rail(context).suspects().stream()
                        .limit(MOST_PARTS)
                        .map(JobPages.RailSuspect::name);
        Stream<String> found =
                all.subList(Math.max(0, all.size() - MOST_FINDINGS), all.size()).stream()
                        .map(Findings.Finding::text);
        Stream<String> captured =
                captures.names(context.job().id()).stream().map(n -> "Capture: " + n);
        return Stream.of(parts, captured, found).flatMap(s -> s).distinct().toList();
    }

    @PostMapping
    String bring(
            @PathVariable("id") long id,
            @RequestParam(name = "file", defaultValue = "") List<MultipartFile> files,
            @RequestParam(name = "about", defaultValue = "") String about,
            @RequestParam(name = "camera", defaultValue = "false") boolean camera,
            Principal who,
            RedirectAttributes flash)
            throws IOException {
        pages.job(id);
        List<String> wrong = new ArrayList<>();
        int kept = 0;
        // a form without a file sends an empty one without a name
        List<MultipartFile> chosen =
                files.stream()
                        .filter(f -> f.getSize() > 0 || !"".equals(f.getOriginalFilename()))
                        .toList();
        for (MultipartFile file : chosen) {
            String name = FileDesk.name(file);
            try {
                if (attachments.of(id).size() >= MOST_FILES) {
                    throw new IllegalArgumentException(
                            "this job has " + MOST_FILES + " files already");
                }
                attachments.add(id, who.getName(), about, desk.read(file, camera));
                kept++;
            } catch (IllegalArgumentException refused) {
                wrong.add(name + ": " + refused.getMessage() + ".");
            }
        }
        if (chosen.isEmpty()) {
            wrong.add("Choose a file first; nothing was kept.");
        }
        if (kept > 0) {
            flash.addFlashAttribute("notice", kept == 1 ? "Kept." : kept + " files kept.");
        }
        if (!wrong.isEmpty()) {
            flash.addFlashAttribute("error", String.join(" ", wrong));
        }
        return "redirect:/jobs/" + id + "/pictures";
    }

    private Attachments.Head head(long jobId, long file) {
        return JobPages.found(attachments.head(jobId, file), "picture", file);
    }

    @GetMapping("/{file}")
    String one(@PathVariable("id") long id, @PathVariable("file") long file, Model model) {
        JobPages.Context context = pages.fill(id, "trace", model);
        Attachments.Head head = head(id, file);
        model.addAttribute("file", head);
        model.addAttribute("marks", json.write(head.marks()));
        model.addAttribute("shows", shows(context));
        return "picture/picture";
    }

    @PostMapping("/{file}")
    String tell(
            @PathVariable("id") long id,
            @PathVariable("file") long file,
            @RequestParam("about") String about,
            @RequestParam("note") String note,
            @RequestParam(name = "reported", defaultValue = "false") boolean reported,
            @RequestParam(name = "marks", defaultValue = "[]") String marks,
            RedirectAttributes flash) {
        Attachments.Head head = head(id, file);
        attachments.tell(head.id(), about.trim(), note.trim(), reported);
        try {
            List<Mark> all = List.of(json.read(marks, Mark[].class));
            attachments.mark(head.id(), all.subList(0, Math.min(MOST_MARKS, all.size())));
            flash.addFlashAttribute("notice", "Kept.");
        } catch (JacksonException | IllegalArgumentException wrong) {
            flash.addFlashAttribute(
                    "error", "The marks could not be read, and are as they were before.");
        }
        return "redirect:/jobs/" + id + "/pictures/" + file;
    }

    @PostMapping("/{file}/remove")
    String remove(
            @PathVariable("id") long id,
            @PathVariable("file") long file,
            Principal who,
            RedirectAttributes flash) {
        Attachments.Head head = head(id, file);
        attachments.remove(head.id());
        findings.note(id, "trace", who.getName(), "The file '" + head.name() + "' was removed.");
        flash.addFlashAttribute("notice", head.name() + " was removed.");
        return "redirect:/jobs/" + id + "/pictures";
    }
}
