package brightlantern.app.intake;

import brightlantern.app.job.Json;
import brightlantern.app.job.Shelf;
import brightlantern.app.job.Workshops;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.picture.CasePictures;
import brightlantern.core.shelf.CaseFile;
import brightlantern.core.shelf.LearnedRates;
import brightlantern.core.shelf.ShelfCase;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import tools.jackson.core.JacksonException;

/** What was solved before: looked for, learned from, given away and taken in. */
@Controller
class ShelfController {
    private static final int MOST_BYTES = 20 << 20;

    private final Shelf shelf;
    private final CasePictures pictures;
    private final VehicleLinks links;
    private final Workshops workshops;
    private final Json json;

    ShelfController(
            Shelf shelf,
            CasePictures pictures,
            VehicleLinks links,
            Workshops workshops,
            Json json) {
        this.shelf = shelf;
        this.pictures = pictures;
        this.links = links;
        this.workshops = workshops;
        this.json = json;
    }

    /**
     * @param learned by kind of vehicle, what its cases have taught
     * @param strength so many cases the descriptions' own figures are worth
     * @param origins who gave cases
     */
    record View(
            String answer,
            String find,
            List<Shown> cases,
            Map<String, List<LearnedRates.Learned>> learned,
            double strength,
            List<String> origins) {}

    /** A case and what was seen in it. */
    record Shown(ShelfCase told, List<CasePictures.Shown> pictures) {}

    @GetMapping("/shelf")
    String shelf(@RequestParam(name = "find", defaultValue = "") String find, Model model) {
        List<ShelfCase> all = shelf.all();
        List<ShelfCase> found = all.stream().filter(c -> c.hasWords(find.strip())).toList();
        Map<ShelfCase, List<CasePictures.Shown>> seen = pictures.all();
        model.addAttribute(
                "view",
                new View(
                        answer(all, found),
                        find,
                        found.stream()
                                .map(c -> new Shown(c, seen.getOrDefault(c, List.of())))
                                .toList(),
                        learned(all),
                        LearnedRates.STRENGTH,
                        all.stream()
                                .filter(c -> !c.isOwn())
                                .map(ShelfCase::origin)
                                .distinct()
                                .toList()));
        return "intake/shelf";
    }

    private static String answer(List<ShelfCase> all, List<ShelfCase> found) {
        if (all.isEmpty()) {
            return "The shelf is empty. A proven and closed job becomes a case here.";
        }
        return found.isEmpty()
                ? "None of the " + all.size() + " cases has all these words."
                : "What was solved before";
    }

    private Map<String, List<LearnedRates.Learned>> learned(List<ShelfCase> cases) {
        Map<String, List<LearnedRates.Learned>> learned = new TreeMap<>();
        links.library()
                .descriptions()
                .forEach(
                        d -> {
                            List<LearnedRates.Learned> its =
                                    LearnedRates.of(d, cases).stream()
                                            .sorted(
                                                    Comparator.comparingDouble(
                                                                    LearnedRates.Learned::cases)
                                                            .reversed())
                                            .toList();
                            if (!its.isEmpty()) {
                                learned.put(d.name(), its);
                            }
                        });
        return learned;
    }

    /** This workshop's own cases, for others. */
    @GetMapping("/shelf/cases.json")
    ResponseEntity<String> give(
            @RequestParam(name = "words", defaultValue = "false") boolean words,
            @RequestParam(name = "pictures", defaultValue = "false") boolean seen)
            throws IOException {
        List<ShelfCase> own =
                shelf.all().stream()
                        .filter(ShelfCase::isOwn)
                        .map(c -> words ? c : c.withoutWords())
                        .toList();
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header("Content-Disposition", "attachment; filename=\"cases.json\"")
                .body(
                        json.pretty(
                                CaseFile.of(
                                        workshops.get().name(),
                                        own,
                                        seen ? pictures.given(own) : List.of())));
    }

    @PostMapping("/shelf/take")
    String take(@RequestParam("file") MultipartFile file, RedirectAttributes flash)
            throws IOException {
        String name = file.getOriginalFilename();
        try {
            if (file.getSize() > MOST_BYTES) {
                throw new IllegalArgumentException("it is larger than 20 MB");
            }
            CaseFile read =
                    json.read(new String(file.getBytes(), StandardCharsets.UTF_8), CaseFile.class);
            int taken = pictures.take(read);
            flash.addFlashAttribute("notice", taken + " new cases were taken from " + name + ".");
        } catch (JacksonException unreadable) {
            flash.addFlashAttribute(
                    "error",
                    name
                            + ": it is no file of cases as this program writes them (JSON). Nothing was taken.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute(
                    "error", name + ": " + wrong.getMessage() + ". Nothing was taken.");
        }
        return "redirect:/shelf";
    }

    @PostMapping("/shelf/forget")
    String forget(@RequestParam("origin") String origin, RedirectAttributes flash) {
        flash.addFlashAttribute(
                "notice", shelf.forget(origin) + " cases from " + origin + " were forgotten.");
        return "redirect:/shelf";
    }
}
