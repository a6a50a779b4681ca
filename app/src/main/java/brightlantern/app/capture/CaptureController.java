package brightlantern.app.capture;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.network.ControlModule;
import brightlantern.core.suspect.Evidence;
import java.net.InetSocketAddress;
import java.security.Principal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
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

    private final JobPages pages;
    private final Captures captures;
    private final CaptureRecorder recorder;
    private final Findings findings;

    CaptureController(
            JobPages pages, Captures captures, CaptureRecorder recorder, Findings findings) {
        this.findings = findings;
        this.pages = pages;
        this.captures = captures;
        this.recorder = recorder;
    }

    /**
     * The page of all captures.
     *
     * @param plans that can be chosen
     * @param instrument where the oscilloscope is looked for
     */
    record Overview(
            List<Captures.Head> captures,
            List<CapturePlan> plans,
            Optional<CapturePlan> plan,
            String instrument) {}

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @RequestParam(name = "plan", defaultValue = "") String planId,
            Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        List<CapturePlan> plans = plans(context);
        String wanted = planId.equals(CapturePlan.LEAVING) ? planId + "-" + cylinder(id) : planId;
        String meter = context.job().meter();
        model.addAttribute(
                "view",
                new Overview(
                        captures.of(id),
                        plans,
                        plans.stream()
                                .filter(p -> p.id().equals(wanted))
                                .findFirst()
                                .or(() -> plans.stream().findFirst()),
                        meter.isEmpty()
                                ? ""
                                : meter.substring(0, meter.lastIndexOf(':')) + STAND_INS_PORT));
        model.addAttribute("status", recorder.status(id).orElse(null));
        return "capture/captures";
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

    private static List<CapturePlan> plans(JobPages.Context context) {
        List<CapturePlan> plans = new ArrayList<>();
        context.description().cylinders().map(CapturePlan::cranking).ifPresent(plans::add);
        context.description()
                .cylinders()
                .map(c -> CapturePlan.currents(c, hasCoil(context, c.order().get(0))))
                .ifPresent(plans::add);
        context.description().cylinders().ifPresent(c -> plans.addAll(leaving(context, c)));
        context.description()
                .cylinders()
                .flatMap(Cylinders::wheel)
                .ifPresent(w -> plans.add(CapturePlan.teeth()));
        context.description()
                .finding(CapturePlan.RIPPLE)
                .ifPresent(f -> plans.add(CapturePlan.ripple()));
        context.description()
                .buses()
                .forEach(
                        b -> {
                            List<ControlModule> line = context.description().onWire(b.id());
                            if (!line.isEmpty()) {
                                plans.add(
                                        CapturePlan.bus(
                                                b,
                                                "the gateway",
                                                line.get(line.size() - 1).name()));
                            }
                        });
        Set<String> shown = new HashSet<>();
        for (Circuit circuit : context.description().circuits()) {
            circuit.points().stream()
                    .filter(p -> p.canBeProbed() && shown.add(p.id()))
                    .forEach(p -> plans.add(CapturePlan.point(circuit, p)));
        }
        return plans;
    }

    private static List<CapturePlan> leaving(JobPages.Context context, Cylinders cylinders) {
        return cylinders.order().stream()
                .sorted()
                .map(n -> CapturePlan.leaving(cylinders, n, hasCoil(context, n)))
                .toList();
    }

    private static boolean hasCoil(JobPages.Context context, int cylinder) {
        return context.description().circuits().stream()
                .anyMatch(c -> c.component("coil-" + cylinder).isPresent());
    }

    @PostMapping("/record")
    String record(
            @PathVariable("id") long id,
            @RequestParam("plan") String planId,
            @RequestParam("instrument") String instrument,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        CapturePlan plan =
                JobPages.found(
                        plans(context).stream().filter(p -> p.id().equals(planId)).findFirst(),
                        "capture plan",
                        planId);
        try {
            recorder.start(id, plan, address(instrument.trim()), who.getName());
        } catch (IllegalStateException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return "redirect:/jobs/" + id + "/probe/captures?plan=" + planId;
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
