package brightlantern.app.trace;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Characteristic;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.TypedFigure;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What a module tells of a sensor, by itself or held against another instrument. */
@Controller
@RequestMapping("/jobs/{id}/trace")
class SensorController {
    private static final String BACK = "redirect:/jobs/%d/trace";

    private static final String SILENT =
            "Its module did not answer. Turn the key on and ask again, or choose what you see in Watch.";

    private final JobPages pages;
    private final Findings findings;

    SensorController(JobPages pages, Findings findings) {
        this.pages = pages;
        this.findings = findings;
    }

    /** What a module tells of a sensor at this moment. */
    private record Told(Circuit circuit, Gauge gauge, Value value, double figure) {
        Told at(double now) {
            return new Told(circuit, gauge, value, now);
        }
    }

    /** The module is asked what it makes of a sensor, and its answer is the finding. */
    @PostMapping("/ask")
    String ask(
            @PathVariable("id") long id,
            @RequestParam("finding") String findingId,
            Principal who,
            RedirectAttributes flash) {
        told(id, findingId, Gauge::isToldByValue, flash)
                .ifPresent(
                        told ->
                                keep(
                                        id,
                                        who,
                                        told,
                                        told(told),
                                        told.gauge().told(told.value(), told.figure())));
        return BACK.formatted(id);
    }

    /**
     * What an instrument of one's own reads is held against what the module tells.
     *
     * @param own in the unit in which whoever asks has that value shown
     */
    @PostMapping("/compare")
    String compare(
            @PathVariable("id") long id,
            @RequestParam("finding") String findingId,
            @RequestParam("own") String own,
            Principal who,
            RedirectAttributes flash) {
        try {
            told(id, findingId, Gauge::isCompared, flash)
                    .ifPresent(told -> compared(id, who, told, felt(told.value(), own)));
        } catch (IllegalArgumentException noFigure) {
            flash.addFlashAttribute("error", noFigure.getMessage());
        }
        return BACK.formatted(id);
    }

    /** What an instrument of one's own reads, in the value's own unit. */
    private static double felt(Value v, String own) {
        return Units.convert(TypedFigure.of("Your instrument", own, v.show()), v.show(), v.unit());
    }

    private void compared(long id, Principal who, Told told, double felt) {
        Value v = told.value();
        keep(
                id,
                who,
                told,
                "by hand " + shown(v, felt) + ", its module tells " + shown(v, told.figure()),
                told.gauge()
                        .compared(
                                Characteristic.of(told.circuit(), told.gauge(), v).orElseThrow(),
                                v,
                                felt,
                                told.figure()));
    }

    private void keep(long id, Principal who, Told told, String says, Band band) {
        findings.add(
                id,
                "trace",
                who.getName(),
                told.gauge().name() + ": " + says + ": " + band.name() + ".",
                Optional.of(band.well()),
                new Evidence.Outcome(told.gauge().findingId(), band.id()));
    }

    private static String told(Told told) {
        return told.gauge().feedsModule() && told.figure() == 0
                ? "it does not answer while others do"
                : "its module tells " + shown(told.value(), told.figure());
    }

    private static String shown(Value v, double figure) {
        return Scaling.show(v, figure) + " " + v.show();
    }

    /** Asks a gauge's module; nothing, and the reason told, when it cannot be asked. */
    private Optional<Told> told(
            long id, String findingId, Predicate<Gauge> which, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        Optional<Told> asked =
                d.circuits().stream()
                        .flatMap(
                                c ->
                                        c.gauges().stream()
                                                .filter(g -> g.findingId().equals(findingId))
                                                .filter(which)
                                                .flatMap(g -> asked(d, c, g).stream()))
                        .findFirst();
        if (asked.isEmpty()) {
            flash.addFlashAttribute(
                    "error", "No module tells anything of the finding '" + findingId + "'.");
            return Optional.empty();
        }
        Value v = asked.get().value();
        double figure = context.link().read(d, List.of(v.id())).getOrDefault(v.id(), Double.NaN);
        if (Double.isNaN(figure)
                && asked.get().gauge().feedsModule()
                && context.link().toldSupply(d, v.module()).isPresent()) {
            // with the key off nobody answers
            return asked.map(t -> t.at(0));
        }
        if (Double.isNaN(figure)) {
            flash.addFlashAttribute("error", SILENT);
            return Optional.empty();
        }
        return asked.map(t -> t.at(figure));
    }

    private static Optional<Told> asked(VehicleDescription d, Circuit circuit, Gauge gauge) {
        return d.value(gauge.value()).map(v -> new Told(circuit, gauge, v, Double.NaN));
    }
}
