package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.core.capture.LaneRole;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What is said of a capture afterwards: its name, what its lanes show, and when they began. */
@Controller
@RequestMapping("/jobs/{id}/probe/captures/{capture}")
class CaptureNoteController {
    private final Captures captures;
    private final CaptureJudge judge;

    CaptureNoteController(Captures captures, CaptureJudge judge) {
        this.captures = captures;
        this.judge = judge;
    }

    private Captures.Head head(long jobId, long captureId) {
        return JobPages.found(captures.head(jobId, captureId), "capture", captureId);
    }

    /** Seconds. */
    private double length(Captures.Head head) {
        return JobPages.found(captures.open(head), "sample in capture", head.id())
                .capture()
                .seconds();
    }

    @PostMapping("/note")
    String note(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @RequestParam("name") String name,
            @RequestParam("note") String note,
            RedirectAttributes flash) {
        Captures.Head head = head(id, captureId);
        if (name.isBlank()) {
            flash.addFlashAttribute("error", "A capture needs a name; nothing was changed.");
        } else {
            captures.note(head.id(), name.trim(), note.trim());
        }
        return back(id, captureId);
    }

    /** What each lane shows, for a capture that came from elsewhere; it is read anew then. */
    @PostMapping("/lanes")
    String lanes(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @RequestParam Map<String, String> form,
            Principal who,
            RedirectAttributes flash) {
        Captures.Head head = head(id, captureId);
        List<LaneRole> roles = new ArrayList<>();
        for (int i = 0; i < head.lanes().size(); i++) {
            String said = form.getOrDefault("role-" + i, "");
            Optional<LaneRole> role =
                    Arrays.stream(LaneRole.values()).filter(r -> r.name().equals(said)).findFirst();
            roles.add(role.orElse(head.lanes().get(i).role()));
        }
        captures.roles(head, roles);
        Optional<List<Double>> late = late(head, form);
        if (late.isEmpty()) {
            flash.addFlashAttribute(
                    "error",
                    "Later by: expected milliseconds, less than half of the capture's %.0f ms apart; no lane was moved."
                            .formatted(1000 * length(head)));
            return back(id, captureId);
        }
        captures.late(head(id, captureId), late.get());
        flash.addFlashAttribute("notice", judge.file(head(id, captureId), who.getName()));
        return back(id, captureId);
    }

    /**
     * Seconds by which each lane began later; empty where one is none, or they leave too little.
     */
    private Optional<List<Double>> late(Captures.Head head, Map<String, String> form) {
        List<Double> late = new ArrayList<>();
        for (int i = 0; i < head.lanes().size(); i++) {
            String said = form.getOrDefault("late-" + i, "").strip().replace(',', '.');
            try {
                late.add(
                        said.isEmpty() || said.equals("?")
                                ? head.lanes().get(i).apart()
                                        ? Double.NaN
                                        : head.lanes().get(i).late()
                                : Double.parseDouble(said) / 1000);
            } catch (NumberFormatException none) {
                return Optional.empty();
            }
        }
        List<Double> known = late.stream().filter(d -> !d.isNaN()).toList();
        double apart = known.isEmpty() ? 0 : Collections.max(known) - Collections.min(known);
        return apart < length(head) / 2 ? Optional.of(late) : Optional.empty();
    }

    /** One that went wrong is kept apart, or comes back among the others. */
    @PostMapping("/aside")
    String aside(@PathVariable("id") long id, @PathVariable("capture") long captureId) {
        Captures.Head head = head(id, captureId);
        captures.setAside(captureId, !head.setAside());
        return back(id, captureId);
    }

    private static String back(long id, long captureId) {
        return "redirect:/jobs/" + id + "/probe/captures/" + captureId;
    }
}
