package brightlantern.app.page;

import java.util.Comparator;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

/** All that was recorded in a job, whatever recorded it. */
@Controller
class RecordingsController {
    private final JobPages pages;
    private final List<Recordings> kinds;

    RecordingsController(JobPages pages, List<Recordings> kinds) {
        this.pages = pages;
        this.kinds = kinds;
    }

    @GetMapping("/jobs/{id}/recordings")
    String page(@PathVariable("id") long id, Model model) {
        pages.fill(id, "watch", model);
        model.addAttribute(
                "recordings",
                kinds.stream()
                        .flatMap(k -> k.of(id).stream())
                        .sorted(Comparator.comparing(Recordings.Recording::at).reversed())
                        .toList());
        return "recordings";
    }
}
