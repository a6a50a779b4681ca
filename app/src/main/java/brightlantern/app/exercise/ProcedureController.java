package brightlantern.app.exercise;

import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import jakarta.servlet.http.HttpServletRequest;
import java.security.Principal;
import java.util.List;
import java.util.Set;
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

/** Guided procedures: what is ready to be done, and a run of one. */
@Controller
@RequestMapping("/jobs/{id}/exercise")
class ProcedureController {
    private final JobPages pages;
    private final VehicleLinks links;
    private final ProcedureRuns runs;

    ProcedureController(JobPages pages, VehicleLinks links, ProcedureRuns runs) {
        this.pages = pages;
        this.links = links;
        this.runs = runs;
    }

    Procedure procedure(JobPages.Context context, String id) {
        return links.procedure(context.job(), id)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "This vehicle has no procedure '" + id + "'."));
    }

    @GetMapping("/procedures/{procedure}")
    String ready(
            @PathVariable("id") long id,
            @PathVariable("procedure") String procedureId,
            Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        Procedure procedure = procedure(context, procedureId);
        model.addAttribute("procedure", procedure);
        model.addAttribute(
                "picture", ProcedurePicture.of(procedure, context.description(), "", Set.of()));
        gates(context, procedure, model);
        model.addAttribute("opens", "begin");
        return "exercise/ready";
    }

    @GetMapping("/procedures/{procedure}/now")
    String readyNow(
            @PathVariable("id") long id,
            @PathVariable("procedure") String procedureId,
            @RequestParam(name = "in", defaultValue = "") String in,
            Model model) {
        JobPages.Context context = pages.context(id);
        Procedure procedure = procedure(context, procedureId);
        model.addAttribute("job", context.job());
        model.addAttribute("procedure", procedure);
        gates(context, procedure, model);
        model.addAttribute("opens", in.isEmpty() ? "begin" : "run-" + in);
        // beside others only what is shut is worth its place
        model.addAttribute("brief", !in.isEmpty() && !in.equals("hand"));
        return "exercise/ready :: gates";
    }

    static void gates(JobPages.Context context, Procedure procedure, Model model) {
        var gates = ProcedureRuns.gates(context, procedure);
        model.addAttribute("gates", gates);
        // what commands nothing may begin whatever its gates are
        model.addAttribute(
                "open", !procedure.commands() || gates.stream().allMatch(GateState::open));
    }

    @PostMapping("/procedures/{procedure}")
    String begin(
            @PathVariable("id") long id,
            @PathVariable("procedure") String procedureId,
            @RequestParam(name = "read", defaultValue = "false") boolean read,
            @RequestParam(name = "then", defaultValue = "") List<String> then,
            HttpServletRequest request,
            RedirectAttributes flash) {
        Principal who = request.getUserPrincipal();
        JobPages.Context context = pages.context(id);
        Procedure procedure = procedure(context, procedureId);
        String back = "redirect:/jobs/" + id + "/exercise/procedures/" + procedureId;
        if (!procedure.beware().isEmpty() && !read) {
            flash.addFlashAttribute("error", "Read what to beware of and say so, then begin.");
            return back;
        }
        try {
            mayWrite(procedure, request);
            // what follows begins by itself, so nothing that wants a word or a role may be among it
            then.stream()
                    .map(t -> procedure(context, t))
                    .filter(p -> p.kind() != Procedure.Kind.SELF_CHECK)
                    .findFirst()
                    .ifPresent(
                            p -> {
                                throw new IllegalStateException(
                                        "Only self-checks follow one another; "
                                                + p.name()
                                                + " is begun by itself.");
                            });
            return run(id, runs.begin(context, procedure, who.getName(), then));
        } catch (IllegalStateException shut) {
            flash.addFlashAttribute("error", shut.getMessage());
            return back;
        }
    }

    /** One check after another: those that were chosen, the first of them now. */
    @PostMapping("/in-turn")
    String inTurn(
            @PathVariable("id") long id,
            @RequestParam(name = "check", defaultValue = "") List<String> checks,
            HttpServletRequest request,
            RedirectAttributes flash) {
        if (checks.isEmpty()) {
            flash.addFlashAttribute("error", "Choose at least one check.");
            return "redirect:/jobs/" + id + "/exercise";
        }
        return begin(id, checks.get(0), true, checks.subList(1, checks.size()), request, flash);
    }

    /** Writing into a module needs more than commanding it. */
    static void mayWrite(Procedure procedure, HttpServletRequest request) {
        if (procedure.writes()
                && !request.isUserInRole("LEAD")
                && !request.isUserInRole("ADMINISTRATOR")) {
            throw new IllegalStateException(
                    procedure.name()
                            + " writes into a module; that is for a lead technician. Ask one to begin it.");
        }
    }

    static String run(long id, long run) {
        return "redirect:/jobs/" + id + "/exercise/runs/" + run;
    }
}
