package brightlantern.app.capture;

import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CaptureSettings;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.ProbeOutput;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The page of all captures.
 *
 * @param plans that can be chosen
 * @param instrument where the oscilloscope is looked for
 * @param outputs what its probes were told to give there
 * @param healthy what the plan shows where nothing is wrong; empty where a sheet tells it
 */
record CaptureOverview(
        List<Captures.Head> captures,
        List<CapturePlan> plans,
        Optional<CapturePlan> plan,
        String instrument,
        Map<LaneRole, ProbeOutput> outputs,
        Optional<LanePaper> healthy) {
    /** What a lane may do when it is to begin. */
    public CapturePlan.When[] whens() {
        return CapturePlan.When.values();
    }

    /** Whether something was told of a lane of its plan before. */
    public boolean isTold() {
        return plan.stream()
                .flatMap(p -> p.lanes().stream())
                .anyMatch(l -> outputs.containsKey(l.role()));
    }

    /** What stands in a field of a lane; empty where nothing was told of it. */
    public String told(LaneRole role, String field) {
        ProbeOutput its = outputs.get(role);
        return its == null
                ? ""
                : switch (field) {
                    case "per-volt" -> CaptureSettings.plain(its.perVolt());
                    case "zero" -> CaptureSettings.plain(its.zero());
                    default -> "";
                };
    }
}
