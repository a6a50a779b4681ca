package brightlantern.app.probe;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.HandMeter;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.NextCard;
import brightlantern.core.circuit.HeldReading;
import brightlantern.core.suspect.Place;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The meter of a job, and readings that are taken once it has come to rest, point after point. */
@Controller
class MeterController {
    private static final int MOST_SECONDS = 60;

    private final JobPages pages;
    private final ProbeReadings readings;
    private final Findings findings;
    private final Jobs jobs;

    MeterController(JobPages pages, ProbeReadings readings, Findings findings, Jobs jobs) {
        this.pages = pages;
        this.readings = readings;
        this.findings = findings;
        this.jobs = jobs;
    }

    @PostMapping("/jobs/{id}/probe/meter")
    String meter(
            @PathVariable("id") long id,
            @RequestParam("meter") String meter,
            RedirectAttributes flash) {
        try {
            HandMeter.address(meter.trim());
            jobs.meter(id, meter.trim());
        } catch (IllegalStateException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return "redirect:/jobs/" + id + "/probe";
    }

    /** Looks at a point for a while, and notes the least, the most and what alternates. */
    @PostMapping("/jobs/{id}/probe/hold")
    String hold(
            @PathVariable("id") long id,
            @RequestParam("circuit") String circuitId,
            @RequestParam("point") String pointId,
            @RequestParam("condition") String conditionId,
            @RequestParam("seconds") int seconds,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        try {
            if (seconds < 1 || seconds > MOST_SECONDS) {
                throw new IllegalArgumentException(
                        "Look for '%d' s: expected 1 to %d.".formatted(seconds, MOST_SECONDS));
            }
            Asked asked = Asked.of(context.description(), circuitId, pointId, conditionId);
            asked.needsKey(context);
            HeldReading held = readings.over(context, asked, seconds);
            String said =
                    (asked.point().name()
                                    + ", "
                                    + asked.condition().name(asked.circuit())
                                    + ": "
                                    + held.sentence()
                                    + ". "
                                    + held.means(pointId, context.link().status().engineRuns()))
                            .trim();
            findings.note(id, "probe", who.getName(), said);
            flash.addFlashAttribute("held", said);
        } catch (WireException | IllegalStateException | IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return "redirect:/jobs/"
                + id
                + "/"
                + NextCard.address(Place.probing(circuitId, pointId, conditionId));
    }

    /** Takes it and shows the next point; what cannot be taken stays at this one. */
    @PostMapping("/jobs/{id}/probe/settled")
    String settled(
            @PathVariable("id") long id,
            @RequestParam("circuit") String circuitId,
            @RequestParam("point") String pointId,
            @RequestParam("condition") String conditionId,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        String there =
                "redirect:/jobs/"
                        + id
                        + "/"
                        + NextCard.address(Place.probing(circuitId, pointId, conditionId))
                                .replaceAll("#.*", "");
        try {
            Asked asked = Asked.of(context.description(), circuitId, pointId, conditionId);
            asked.needsKey(context);
            Reading reading =
                    readings.settled(context, asked, new TakenReadings(findings.of(id)).last());
            Optional<Doubted> doubt = readings.doubt(context, asked, reading);
            if (doubt.isPresent()) {
                flash.addFlashAttribute("doubt", doubt.get());
                return there + "#point";
            }
            readings.keep(context, asked, reading, who.getName());
            return there + "&hands=on#point";
        } catch (WireException | IllegalStateException | IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
            return there + "#point";
        }
    }
}
