package brightlantern.app.probe;

import brightlantern.app.page.JobPages;
import brightlantern.wire.scpi.InstrumentSearch;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/** Instruments that announce themselves in the networks of this machine. */
@Controller
class InstrumentController {
    private static final Duration WAIT = Duration.ofSeconds(2);

    private final JobPages pages;

    InstrumentController(JobPages pages) {
        this.pages = pages;
    }

    /**
     * @param to meter or scope: for what one is looked for
     * @param plan the capture that it is looked for
     */
    @GetMapping("/jobs/{id}/probe/instruments")
    String found(
            @PathVariable("id") long id,
            @RequestParam("to") String to,
            @RequestParam(name = "plan", defaultValue = "") String plan,
            Model model) {
        model.addAttribute("job", pages.job(id));
        model.addAttribute("to", to);
        model.addAttribute("plan", plan);
        // what kind it is stands in no announcement by itself: names and models speak
        String kind = to.equals("meter") ? "meter|dmm" : "scope|oscill";
        Map<Boolean, List<InstrumentSearch.Found>> found =
                InstrumentSearch.search(WAIT).stream()
                        .collect(
                                Collectors.partitioningBy(
                                        f ->
                                                (f.name() + " " + f.model())
                                                        .toLowerCase(Locale.ROOT)
                                                        .matches(".*(" + kind + ").*")));
        model.addAttribute("likely", found.get(true));
        model.addAttribute("others", found.get(false));
        return "probe/instruments :: found";
    }
}
