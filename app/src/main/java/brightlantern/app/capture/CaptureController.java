package brightlantern.app.capture;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CaptureSettings;
import brightlantern.core.capture.ExpectedCapture;
import brightlantern.core.network.Bus;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.net.InetSocketAddress;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The captures of a job, and recording one. */
@Controller
@RequestMapping("/jobs/{id}/probe/captures")
class CaptureController {
    private static final Pattern MISFIRE = Pattern.compile("P030([1-9])-00");
    private static final String STAND_INS_PORT = ":5026";
    private static final String METERS_PORT = ":5025";

    private final JobPages pages;
    private final Captures captures;
    private final CaptureRecorder recorder;
    private final Findings findings;
    private final ProbeOutputs outputs;
    private final UnitChoices units;

    CaptureController(
            JobPages pages,
            Captures captures,
            CaptureRecorder recorder,
            Findings findings,
            ProbeOutputs outputs,
            UnitChoices units) {
        this.units = units;
        this.outputs = outputs;
        this.findings = findings;
        this.pages = pages;
        this.captures = captures;
        this.recorder = recorder;
    }

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @RequestParam(name = "plan", defaultValue = "") String planId,
            @RequestParam(name = "instrument", defaultValue = "") String instrument,
            Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        List<CapturePlan> plans = DescribedPlans.of(context.description());
        String wanted = planId.equals(CapturePlan.LEAVING) ? planId + "-" + cylinder(id) : planId;
        String meter = context.job().meter();
        String at =
                instrument.isEmpty() && meter.endsWith(METERS_PORT)
                        ? meter.replace(METERS_PORT, STAND_INS_PORT)
                        : instrument;
        Optional<CapturePlan> plan =
                plans.stream()
                        .filter(p -> p.id().equals(wanted))
                        .findFirst()
                        .or(() -> plans.stream().findFirst());
        model.addAttribute(
                "view",
                new CaptureOverview(
                        captures.of(id),
                        plans,
                        plan,
                        at,
                        outputs.at(at),
                        plan.flatMap(p -> healthy(p, context.description()))));
        model.addAttribute("status", recorder.status(id).orElse(null));
        return "capture/captures";
    }

    private Optional<LanePaper> healthy(CapturePlan plan, VehicleDescription description) {
        Optional<Bus> bus =
                description.buses().stream()
                        .filter(b -> plan.id().equals(CapturePlan.BUS + b.id()))
                        .findFirst();
        return ExpectedCapture.of(plan, description.cylinders(), bus)
                .map(c -> LanePaper.of(c, units));
    }

    /** The cylinder of which a code tells that it misfires; the first where none does. */
    private int cylinder(long jobId) {
        return findings.of(jobId).stream()
                .flatMap(f -> f.evidence().stream())
                .filter(Evidence.CodeSeen.class::isInstance)
                .map(Evidence.CodeSeen.class::cast)
                .filter(Evidence.CodeSeen::present)
                .map(c -> MISFIRE.matcher(c.code()))
                .filter(Matcher::matches)
                .mapToInt(m -> Integer.parseInt(m.group(1)))
                .findFirst()
                .orElse(1);
    }

    @PostMapping("/record")
    String record(
            @PathVariable("id") long id,
            @RequestParam("plan") String planId,
            @RequestParam("instrument") String instrument,
            @RequestParam Map<String, String> form,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        CapturePlan plan =
                JobPages.found(
                        DescribedPlans.of(context.description()).stream()
                                .filter(p -> p.id().equals(planId))
                                .findFirst(),
                        "capture plan",
                        planId);
        try {
            CapturePlan set = CaptureSettings.applied(plan, form);
            recorder.start(id, set, addresses(instrument), who.getName());
            outputs.keep(instrument, set);
        } catch (IllegalStateException | IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        flash.addAttribute("plan", planId);
        flash.addAttribute("instrument", instrument.strip());
        return "redirect:/jobs/" + id + "/probe/captures";
    }

    /**
     * One instrument, or several with commas between.
     *
     * @throws IllegalStateException names what is no address, or stands there twice
     */
    private static List<InetSocketAddress> addresses(String text) {
        List<InetSocketAddress> all = new ArrayList<>();
        for (String one : text.split(",")) {
            InetSocketAddress its = address(one.trim());
            if (all.contains(its)) {
                throw new IllegalStateException(
                        "Oscilloscope '"
                                + one.trim()
                                + "' is named twice; expected each instrument once.");
            }
            all.add(its);
        }
        return all;
    }

    /**
     * @throws IllegalStateException names the text and what was expected
     */
    private static InetSocketAddress address(String text) {
        int colon = text.lastIndexOf(':');
        if (colon > 0 && text.substring(colon + 1).matches("\\d{1,5}")) {
            int port = Integer.parseInt(text.substring(colon + 1));
            if (port > 0 && port <= 65_535) {
                return new InetSocketAddress(text.substring(0, colon), port);
            }
        }
        throw new IllegalStateException(
                "Oscilloscope '" + text + "': expected host:port, for instance 192.0.2.7:5026.");
    }

    @PostMapping("/stop")
    String stop(@PathVariable("id") long id) {
        pages.context(id);
        recorder.stop(id);
        return "redirect:/jobs/" + id + "/probe/captures";
    }

    /** How the recording stands, asked for again and again while it goes on. */
    @GetMapping("/status")
    String status(@PathVariable("id") long id, Model model) {
        model.addAttribute("job", pages.job(id));
        model.addAttribute("status", recorder.status(id).orElse(null));
        return "capture/captures :: status";
    }
}
