package brightlantern.app.probe;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.page.JobPages;
import brightlantern.core.actuator.Actuator;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.CircuitModel.Load;
import brightlantern.core.circuit.CircuitModel.Use;
import brightlantern.core.circuit.ExpectedReading;
import brightlantern.core.circuit.HiddenResistance;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.reason.NextStep;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
    private static final double TYPICAL_VOLTS = 12.4;

    private final JobPages pages;
    private final ProbeReadings readings;
    private final Findings findings;
    private final Jobs jobs;

    ProbeController(JobPages pages, ProbeReadings readings, Findings findings, Jobs jobs) {
        this.pages = pages;
        this.readings = readings;
        this.findings = findings;
        this.jobs = jobs;
    }

    /**
     * A way to use the circuit while it is measured, and what a healthy one then reads at the
     * chosen point.
     */
    record Condition(String id, String name, String load, String moving, String expected) {}

    record Taken(
            String at,
            String point,
            String condition,
            String volts,
            String expected,
            boolean passed,
            String who) {}

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @RequestParam(name = "point", defaultValue = "") String pointId,
            @RequestParam(name = "condition", defaultValue = "") String conditionId,
            Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        if (context.description().circuits().isEmpty()) {
            return "probe/none";
        }
        Circuit circuit = context.description().circuits().get(0);
        ProbePoint chosen =
                circuit.points().stream()
                        .filter(p -> p.id().equals(pointId) && p.canBeProbed())
                        .findFirst()
                        .orElseGet(() -> proposed(context, circuit, model));
        double supply = supply(context);
        List<Evidence.Reading> taken = taken(id);
        model.addAttribute("circuit", circuit);
        model.addAttribute("point", chosen);
        model.addAttribute("supply", String.format(Locale.ROOT, "%.2f", supply));
        List<Condition> conditions = conditions(context, circuit, chosen, supply);
        String wanted = conditionId.isEmpty() ? proposedCondition(chosen, model) : conditionId;
        model.addAttribute("conditions", conditions);
        // nothing that moves the vehicle is preselected unless somebody asked for it
        model.addAttribute(
                "condition",
                conditions.stream()
                        .filter(c -> c.id().equals(wanted))
                        .findFirst()
                        .orElse(conditions.get(0))
                        .id());
        model.addAttribute("sheet", CircuitSheet.of(circuit, common(circuit), chosen.id(), taken));
        model.addAttribute("taken", rows(id, context.description()));
        model.addAttribute("hidden", hidden(circuit, taken));
        model.addAttribute("common", commonWords(circuit));
        model.addAttribute("answer", answer(id));
        return "probe/probe";
    }

    private static ProbePoint proposed(JobPages.Context context, Circuit circuit, Model model) {
        return proposedReading(model)
                .map(check -> circuit.point(check.point()))
                .orElseGet(
                        () ->
                                circuit.points().stream()
                                        .filter(ProbePoint::canBeProbed)
                                        .findFirst()
                                        .orElseThrow());
    }

    private static String proposedCondition(ProbePoint chosen, Model model) {
        return proposedReading(model)
                .filter(check -> check.point().equals(chosen.id()))
                .map(check -> Evidence.Reading.condition(check.load(), check.moving()))
                .orElse("");
    }

    private static Optional<Check.Reading> proposedReading(Model model) {
        return Optional.ofNullable((JobPages.Rail) model.getAttribute("rail"))
                .map(JobPages.Rail::step)
                .filter(NextStep.DoCheck.class::isInstance)
                .map(step -> ((NextStep.DoCheck) step).check().check())
                .filter(Check.Reading.class::isInstance)
                .map(Check.Reading.class::cast);
    }

    private static String conditionId(String load, String moving) {
        return load.toLowerCase(Locale.ROOT) + (moving.isEmpty() ? "" : "-" + moving);
    }

    private static double supply(JobPages.Context context) {
        double supply = context.link().status().supply();
        return Double.isNaN(supply) ? TYPICAL_VOLTS : supply;
    }

    private static List<Condition> conditions(
            JobPages.Context context, Circuit circuit, ProbePoint point, double supply) {
        List<Condition> conditions = new ArrayList<>();
        for (String moving : movings(circuit)) {
            for (Load load : Load.values()) {
                if (!moving.isEmpty() && load != Load.NOTHING) {
                    continue;
                }
                Set<String> motors = moving.isEmpty() ? Set.of() : Set.of(moving);
                Use use = Use.idle(supply).moving(motors).loaded(point.id(), load);
                conditions.add(
                        new Condition(
                                conditionId(load.name(), moving),
                                conditionName(circuit, load, moving),
                                load.name().toLowerCase(Locale.ROOT),
                                moving,
                                ExpectedReading.at(circuit, point.id(), use, Optional.empty())
                                        .words()));
            }
        }
        return conditions;
    }

    private static List<String> movings(Circuit circuit) {
        List<String> movings = new ArrayList<>(List.of(""));
        circuit.motors().forEach(m -> movings.add(m.id()));
        return movings;
    }

    private static String conditionName(Circuit circuit, Load load, String moving) {
        if (!moving.isEmpty()) {
            return circuit.motors().stream()
                            .filter(m -> m.id().equals(moving))
                            .map(MotorPart::name)
                            .findFirst()
                            .orElse(moving)
                    + " moving";
        }
        return load == Load.NOTHING ? "at rest, nothing hung on it" : load.words() + " hung on it";
    }

    private List<Evidence.Reading> taken(long id) {
        return findings.of(id).stream()
                .flatMap(f -> f.evidence().stream())
                .filter(Evidence.Reading.class::isInstance)
                .map(Evidence.Reading.class::cast)
                .toList();
    }

    private List<Taken> rows(long id, VehicleDescription description) {
        List<Taken> rows = new ArrayList<>();
        for (Findings.Finding f : findings.of(id)) {
            if (f.evidence().orElse(null) instanceof Evidence.Reading r) {
                Circuit circuit = description.circuit(r.circuitId()).orElseThrow();
                Use use =
                        Use.idle(r.supplyVolts())
                                .moving(Set.copyOf(r.moving()))
                                .loaded(r.pointId(), Load.named(r.load()));
                rows.add(
                        0,
                        new Taken(
                                brightlantern.app.page.Format.time(f.at()),
                                circuit.point(r.pointId()).name(),
                                conditionName(
                                        circuit, Load.named(r.load()), String.join("", r.moving())),
                                String.format(Locale.ROOT, "%.3f", r.volts()),
                                ExpectedReading.at(circuit, r.pointId(), use, Optional.empty())
                                        .words(),
                                r.right(),
                                f.who()));
            }
        }
        return rows;
    }

    private static List<String> hidden(Circuit circuit, List<Evidence.Reading> taken) {
        Map<String, Evidence.Reading> rest = new LinkedHashMap<>();
        Map<String, Evidence.Reading> loaded = new LinkedHashMap<>();
        for (Evidence.Reading r : taken) {
            if (r.moving().isEmpty()) {
                if (Load.named(r.load()) == Load.NOTHING) {
                    rest.put(r.pointId(), r);
                } else {
                    loaded.put(r.pointId(), r);
                }
            }
        }
        List<String> sentences = new ArrayList<>();
        loaded.forEach(
                (pointId, under) -> {
                    Evidence.Reading without = rest.get(pointId);
                    if (without != null) {
                        ProbePoint point = circuit.point(pointId);
                        boolean earth = point.side().equals("earth");
                        HiddenResistance found =
                                HiddenResistance.of(
                                        earth ? 0 : under.supplyVolts(),
                                        earth ? under.supplyVolts() : 0,
                                        without.volts(),
                                        under.volts(),
                                        Load.named(under.load()));
                        sentences.add(point.name() + ": " + found.sentence());
                    }
                });
        return sentences;
    }

    private static List<String> common(Circuit circuit) {
        return circuit.motors().size() < 2
                ? List.of()
                : new CircuitModel(circuit)
                        .commonPath(circuit.motors().get(0).id(), circuit.motors().get(1).id());
    }

    private static String commonWords(Circuit circuit) {
        return String.join(
                ", ", common(circuit).stream().map(s -> circuit.segment(s).name()).toList());
    }

    /** The newest reading of each kind counts: a point that was mended is believed again. */
    private String answer(long id) {
        Map<String, Findings.Finding> newest = new LinkedHashMap<>();
        findings.of(id).stream()
                .filter(f -> f.evidence().orElse(null) instanceof Evidence.Reading)
                .forEach(
                        f -> {
                            newest.remove(f.key());
                            newest.put(f.key(), f);
                        });
        if (newest.isEmpty()) {
            return "Nothing was measured yet. Choose a point on the sheet; the program says what it should read.";
        }
        List<String> wrong =
                newest.values().stream()
                        .filter(f -> !f.passed().orElse(true))
                        .map(Findings.Finding::text)
                        .toList();
        return wrong.isEmpty()
                ? newest.size() == 1
                        ? "The one reading is as it should be."
                        : "All " + newest.size() + " readings are as they should be."
                : "Lost here: " + wrong.get(wrong.size() - 1);
    }

    @PostMapping("/meter")
    String meter(
            @PathVariable("id") long id,
            @RequestParam("meter") String meter,
            RedirectAttributes flash) {
        try {
            ProbeReadings.address(meter.trim());
            jobs.meter(id, meter.trim());
        } catch (IllegalStateException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return "redirect:/jobs/" + id + "/probe";
    }

    @PostMapping("/reading")
    String reading(
            @PathVariable("id") long id,
            @RequestParam("point") String pointId,
            @RequestParam("condition") String conditionId,
            @RequestParam("how") String how,
            @RequestParam(name = "volts", defaultValue = "") String volts,
            @RequestParam(name = "supply", defaultValue = "") String supply,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Circuit circuit = context.description().circuits().get(0);
        try {
            ProbePoint point =
                    circuit.points().stream()
                            .filter(p -> p.id().equals(pointId) && p.canBeProbed())
                            .findFirst()
                            .orElseThrow(
                                    () ->
                                            new IllegalArgumentException(
                                                    "There is no probe point '" + pointId + "'."));
            Condition condition =
                    conditions(context, circuit, point, supply(context)).stream()
                            .filter(c -> c.id().equals(conditionId))
                            .findFirst()
                            .orElseThrow(
                                    () ->
                                            new IllegalArgumentException(
                                                    "There is no condition '"
                                                            + conditionId
                                                            + "'."));
            ProbeReadings.Reading reading =
                    how.equals("meter")
                            ? readings.take(
                                    context,
                                    circuit,
                                    point,
                                    condition.load(),
                                    moving(context, condition),
                                    who.getName())
                            : new ProbeReadings.Reading(
                                    volts("Reading", volts, -20, 60),
                                    volts("Supply voltage", supply, 6, 18));
            keep(context, circuit, point, condition, reading, how, who.getName());
        } catch (WireException | IllegalStateException | IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
            flash.addFlashAttribute("typed", volts);
        }
        return "redirect:/jobs/"
                + id
                + "/probe?point="
                + encoded(pointId)
                + "&condition="
                + encoded(conditionId)
                + "#point";
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private static List<Actuator> moving(JobPages.Context context, Condition condition) {
        return context.description().actuators().stream()
                .filter(a -> a.motor().equals(condition.moving()))
                .toList();
    }

    private static double volts(String field, String text, double low, double high) {
        double value;
        try {
            value = Double.parseDouble(text.trim().replace(',', '.'));
        } catch (NumberFormatException letters) {
            throw new IllegalArgumentException(
                    field + ": expected volts as a number, found '" + text + "'.");
        }
        if (!(value >= low && value <= high)) {
            throw new IllegalArgumentException(
                    String.format(
                            Locale.ROOT,
                            "%s: expected %.0f to %.0f V, found '%s'.",
                            field,
                            low,
                            high,
                            text));
        }
        return value;
    }

    private void keep(
            JobPages.Context context,
            Circuit circuit,
            ProbePoint point,
            Condition condition,
            ProbeReadings.Reading reading,
            String how,
            String who) {
        List<String> moving =
                condition.moving().isEmpty() ? List.of() : List.of(condition.moving());
        Use use =
                Use.idle(reading.supplyVolts())
                        .moving(Set.copyOf(moving))
                        .loaded(point.id(), Load.named(condition.load()));
        ExpectedReading healthy = ExpectedReading.at(circuit, point.id(), use, Optional.empty());
        boolean passed = healthy.holds(reading.volts());
        findings.add(
                context.job().id(),
                "probe",
                who,
                String.format(
                        Locale.ROOT,
                        "%s, %s: %.2f V, right is %s%s.",
                        point.name(),
                        condition.name().toLowerCase(Locale.ROOT),
                        reading.volts(),
                        healthy.words(),
                        how.equals("meter") ? "" : " (typed in)"),
                Optional.of(passed),
                Optional.of(
                        new Evidence.Reading(
                                circuit.id(),
                                point.id(),
                                condition.load(),
                                moving,
                                reading.volts(),
                                reading.supplyVolts(),
                                passed)),
                null);
    }
}
