package brightlantern.app.exercise;

import brightlantern.app.page.JobPages;
import brightlantern.core.actuator.Actuator;
import brightlantern.core.procedure.Act.Leg;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
import brightlantern.core.procedure.actuator.ByHand;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** An actuator led by hand: on or off, to a position, in pulses, or through a sequence. */
@Controller
@RequestMapping("/jobs/{id}/exercise/hand/{actuator}")
class HandController {
    /** What the fields hold before anything was typed. */
    private static final Map<String, String> FIRST =
            Map.of(
                    "to", "50",
                    "seconds", "5",
                    "on", "90",
                    "onSeconds", "1",
                    "rest", "10",
                    "restSeconds", "1",
                    "times", "5",
                    "sequence", "10 % for 2 s, 50 % for 2 s, 90 % for 2 s");

    private final JobPages pages;
    private final ProcedureController procedures;

    HandController(JobPages pages, ProcedureController procedures) {
        this.pages = pages;
        this.procedures = procedures;
    }

    private static Actuator actuator(JobPages.Context context, String id) {
        return context.description()
                .actuator(id)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "This vehicle has no actuator '" + id + "'."));
    }

    @GetMapping
    String page(@PathVariable("id") long id, @PathVariable("actuator") String a, Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        model.addAttribute("actuator", actuator(context, a));
        model.addAttribute("drive", ActuatorProcedures.drive(a));
        if (!model.containsAttribute("typed")) {
            model.addAttribute("typed", FIRST);
        }
        return "exercise/hand";
    }

    @PostMapping
    String lead(
            @PathVariable("id") long id,
            @PathVariable("actuator") String a,
            @RequestParam Map<String, String> form,
            HttpServletRequest request,
            RedirectAttributes flash) {
        actuator(pages.context(id), a);
        try {
            String procedure = ByHand.id(a, legs(form));
            return procedures.begin(id, procedure, false, List.of(), request, flash);
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", "Nothing was commanded: " + wrong.getMessage() + ".");
            FIRST.forEach(form::putIfAbsent);
            flash.addFlashAttribute("typed", form);
            return "redirect:/jobs/" + id + "/exercise/hand/" + a;
        }
    }

    private static List<Leg> legs(Map<String, String> form) {
        return switch (form.getOrDefault("how", "")) {
            case "hold" ->
                    ByHand.legs(field(form, "to") + " % for " + field(form, "seconds") + " s");
            case "on" -> ByHand.legs("on for " + field(form, "seconds") + " s");
            case "off" -> ByHand.legs("off for " + field(form, "seconds") + " s");
            case "pulses" ->
                    ByHand.pulses(
                            ByHand.legs(
                                    "%s %% for %s s, %s %% for %s s"
                                            .formatted(
                                                    field(form, "on"),
                                                    field(form, "onSeconds"),
                                                    field(form, "rest"),
                                                    field(form, "restSeconds"))),
                            times(field(form, "times")));
            case "sequence" -> ByHand.legs(form.getOrDefault("sequence", ""));
            default ->
                    throw new IllegalArgumentException(
                            "expected hold, on, off, pulses or sequence, found '"
                                    + form.getOrDefault("how", "")
                                    + "'");
        };
    }

    private static String field(Map<String, String> form, String name) {
        return form.getOrDefault(name, "").trim();
    }

    private static int times(String typed) {
        try {
            return Integer.parseInt(typed);
        } catch (NumberFormatException nonsense) {
            throw new IllegalArgumentException(
                    "expected a whole number of pulses, found '" + typed + "'", nonsense);
        }
    }
}
