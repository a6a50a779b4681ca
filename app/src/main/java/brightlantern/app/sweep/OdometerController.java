package brightlantern.app.sweep;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.code.StoredCode;
import brightlantern.core.network.ControlModule;
import brightlantern.core.odometer.Mileage;
import brightlantern.core.odometer.MileageRecord;
import brightlantern.core.odometer.OdometerCheck;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The odometer check: is the shown mileage true? */
@Controller
@RequestMapping("/jobs/{id}/sweep/odometer")
class OdometerController {
    private static final int VIN = 0xF190;
    static final String CLOCK = "clock";

    /** Finding with the outcomes honest and set-back. */
    static final String FINDING = "odometer";

    private final JobPages pages;
    private final Sweeps sweeps;
    private final Findings findings;
    private final UnitChoices units;
    private final OdometerChecks checks;

    OdometerController(
            JobPages pages,
            Sweeps sweeps,
            Findings findings,
            UnitChoices units,
            OdometerChecks checks) {
        this.pages = pages;
        this.sweeps = sweeps;
        this.findings = findings;
        this.units = units;
        this.checks = checks;
    }

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        OdometerChecks.Check check = checks.newest(id).orElse(null);
        model.addAttribute("possible", !context.description().mileage().isEmpty());
        model.addAttribute("check", check);
        model.addAttribute(
                "answer",
                check != null
                        ? check.verdict().sentence()
                        : context.description().mileage().isEmpty()
                                ? "The description of this vehicle names no records of distance or hours."
                                : "Is the mileage true? Read all that the modules know of it.");
        model.addAttribute(
                "rows", check == null ? List.of() : OdometerRows.rows(context, check, units));
        model.addAttribute("troubles", check == null ? List.of() : check.troubles());
        model.addAttribute(
                "chart",
                check == null
                        ? null
                        : OdometerChart.of(check.verdict(), check.now(), check.shown(), units));
        return "sweep/odometer";
    }

    @PostMapping
    String check(@PathVariable("id") long id, Principal who, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        String odometer = d.live().odometer();
        Double shown = context.link().read(d, List.of(odometer)).get(odometer);
        if (shown == null || shown.isNaN()) {
            flash.addFlashAttribute(
                    "error",
                    "The cluster does not tell the odometer. Turn the key on, then read again.");
            return "redirect:/jobs/" + id + "/sweep/odometer";
        }
        List<String> troubles = new ArrayList<>();
        List<MileageRecord> records = new ArrayList<>();
        for (Mileage mileage : d.mileage()) {
            ControlModule module = d.module(mileage.module()).orElseThrow();
            try {
                var client = context.link().module(module.address());
                String vin = client.read(VIN).asText();
                records.addAll(
                        MileageRecord.read(
                                mileage, module.name(), vin, client.read(mileage.did()).toArray()));
            } catch (WireException | IllegalArgumentException unread) {
                troubles.add(mileage.name() + ": " + unread.getMessage());
            }
        }
        records.addAll(frames(context));
        double now = OdometerRows.now(context);
        OdometerCheck.Verdict verdict =
                OdometerCheck.check(shown, now, context.job().vin(), records);
        findings.add(
                id,
                "sweep",
                who.getName(),
                "Odometer: " + verdict.sentence(),
                verdict.independent() == 0
                        ? Optional.empty()
                        : verdict.accused()
                                ? Optional.of(false)
                                : verdict.setBack() <= 1 - OdometerCheck.SURE
                                        ? Optional.of(true)
                                        : Optional.empty(),
                OdometerRows.outcome(d, verdict),
                new OdometerChecks.Check(shown, now, verdict, troubles),
                OdometerChecks.ABOUT);
        return "redirect:/jobs/" + id + "/sweep/odometer";
    }

    /** Freeze frames of the newest whole sweep that hold distance and time. */
    private List<MileageRecord> frames(JobPages.Context context) {
        String odometer = context.description().live().odometer();
        Optional<Sweep> sweep = sweeps.newestWhole(context.job().id()).map(Sweeps.Kept::sweep);
        List<MileageRecord> records = new ArrayList<>();
        for (StoredCode code : sweep.map(Sweep::codes).orElse(List.of())) {
            String vin =
                    sweep.flatMap(s -> s.module(code.moduleId()))
                            .map(m -> m.identity().getOrDefault("VIN", ""))
                            .orElse("");
            for (StoredCode.Frame frame : code.frames()) {
                Double km = frame.values().get(odometer);
                Double clock = frame.values().get(CLOCK);
                if (km != null && clock != null) {
                    records.add(
                            new MileageRecord(
                                    "frame-" + code.code(),
                                    "Freeze frame of " + code.code(),
                                    code.moduleId(),
                                    MileageRecord.Kind.DISTANCE,
                                    km,
                                    OptionalDouble.of(clock),
                                    1,
                                    1,
                                    true,
                                    vin));
                }
            }
        }
        return records;
    }
}
