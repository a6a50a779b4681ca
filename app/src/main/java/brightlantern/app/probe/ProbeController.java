package brightlantern.app.probe;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.NextCard;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.reason.NextStep;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Place;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The Probe page: where on the wire is it lost? */
@Controller
@RequestMapping("/jobs/{id}/probe")
class ProbeController {
    private final JobPages pages;
    private final ProbeViews views;
    private final ProbeReadings readings;
    private final Findings findings;

    ProbeController(JobPages pages, ProbeViews views, ProbeReadings readings, Findings findings) {
        this.pages = pages;
        this.views = views;
        this.readings = readings;
        this.findings = findings;
    }

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @RequestParam(name = "circuit", defaultValue = "") String circuitId,
            @RequestParam(name = "point", defaultValue = "") String pointId,
            @RequestParam(name = "condition", defaultValue = "") String conditionId,
            @RequestParam(name = "find", defaultValue = "") String find,
            @RequestParam(name = "hands", defaultValue = "") String hands,
            Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        model.addAttribute("find", find);
        model.addAttribute("found", SheetFinder.find(context.description(), find));
        List<Circuit> circuits = context.description().circuits();
        if (circuits.isEmpty()) {
            return "probe/none";
        }
        // without a hand it goes on to what comes next, and stays where it was when that is no
        // reading
        boolean handsFree = hands.equals("on");
        Optional<Check.Reading> proposed =
                proposed(model)
                        .filter(
                                p ->
                                        handsFree
                                                || circuitId.isEmpty()
                                                || p.circuit().equals(circuitId));
        Circuit circuit =
                context.description()
                        .circuit(proposed.map(Check.Reading::circuit).orElse(circuitId))
                        .orElse(circuits.get(0));
        ProbePoint point =
                circuit.probe(handsFree && proposed.isPresent() ? "" : pointId)
                        .or(() -> proposed.flatMap(p -> circuit.probe(p.point())))
                        .orElseGet(circuit::firstProbe);
        String wanted =
                conditionId.isEmpty() || handsFree && proposed.isPresent()
                        ? proposed.filter(p -> p.point().equals(point.id()))
                                .map(p -> p.place().with().get("condition"))
                                .orElse("")
                        : conditionId;
        ProbeView view = views.of(context, circuit, point, wanted);
        model.addAttribute("view", view);
        if (handsFree) {
            model.addAttribute("hands", hands(context, view, proposed.isPresent()));
        }
        return "probe/probe";
    }

    /** Whether the next reading can be taken at once: nothing has to be switched for it. */
    private String hands(JobPages.Context context, ProbeView view, boolean proposed) {
        return !proposed
                ? "ended"
                : new TakenReadings(findings.of(context.job().id()))
                                .isAs(view.circuit(), view.condition())
                        ? "go"
                        : "switch";
    }

    private static Optional<Check.Reading> proposed(Model model) {
        return Optional.ofNullable((JobPages.Rail) model.getAttribute("rail"))
                .map(JobPages.Rail::step)
                .filter(NextStep.DoCheck.class::isInstance)
                .map(step -> ((NextStep.DoCheck) step).check().check())
                .filter(Check.Reading.class::isInstance)
                .map(Check.Reading.class::cast);
    }

    @PostMapping("/reading")
    String reading(
            @PathVariable("id") long id,
            @RequestParam("circuit") String circuitId,
            @RequestParam("point") String pointId,
            @RequestParam("condition") String conditionId,
            @RequestParam("how") String how,
            @RequestParam(name = "volts", defaultValue = "") String volts,
            @RequestParam(name = "supply", defaultValue = "") String supply,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        try {
            Asked asked = Asked.of(context.description(), circuitId, pointId, conditionId);
            asked.needsKey(context);
            Reading reading =
                    switch (how) {
                        case "meter" -> readings.take(context, asked, who.getName());
                        case "doubted" -> Reading.doubted(volts, supply);
                        default -> Reading.typed(volts, supply);
                    };
            Optional<Doubted> doubt =
                    how.equals("doubted")
                            ? Optional.empty()
                            : readings.doubt(context, asked, reading);
            doubt.ifPresentOrElse(
                    d -> flash.addFlashAttribute("doubt", d),
                    () -> readings.keep(context, asked, reading, who.getName()));
        } catch (WireException | IllegalStateException | IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
            flash.addFlashAttribute("typed", volts);
        }
        return "redirect:/jobs/"
                + id
                + "/"
                + NextCard.address(Place.probing(circuitId, pointId, conditionId));
    }
}
