package brightlantern.app.probe;

import brightlantern.app.job.Reasoning;
import brightlantern.app.page.JobPages;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.server.ResponseStatusException;

/** What hangs on a part of the circuits, and what sits in a connector. */
@Controller
@RequestMapping("/jobs/{id}/probe/parts")
class PartController {
    private final JobPages pages;
    private final Reasoning reasoning;

    PartController(JobPages pages, Reasoning reasoning) {
        this.pages = pages;
        this.reasoning = reasoning;
    }

    @GetMapping("/{part}")
    String page(@PathVariable("id") long id, @PathVariable("part") String part, Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        VehicleDescription d = context.description();
        Map<String, Double> doubt = reasoning.inQuestion(id, d, context.link().status().supply());
        model.addAttribute(
                "view",
                PartView.of(d, part, doubt)
                        .orElseThrow(
                                () ->
                                        new ResponseStatusException(
                                                HttpStatus.NOT_FOUND,
                                                "No sheet of this vehicle has a part or connector '"
                                                        + part
                                                        + "'.")));
        return "probe/part";
    }
}
