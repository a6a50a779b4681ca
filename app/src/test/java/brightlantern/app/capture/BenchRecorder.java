package brightlantern.app.capture;

import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.ProbeOutput;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.context.ApplicationContext;

/** Records as the page does, by a plan that no vehicle has: eight lanes. */
public final class BenchRecorder {
    private final CaptureRecorder recorder;
    private final Captures captures;
    private final long job;

    public BenchRecorder(ApplicationContext app, long job) {
        recorder = app.getBean(CaptureRecorder.class);
        captures = app.getBean(Captures.class);
        this.job = job;
    }

    public void start(int lanes, double interval, double seconds, InetSocketAddress at) {
        List<CapturePlan.Probe> probes = new ArrayList<>();
        for (int i = 1; i <= lanes; i++) {
            probes.add(
                    new CapturePlan.Probe(
                            LaneRole.OTHER,
                            "Lane " + i,
                            "place-" + i,
                            "place " + i,
                            10,
                            ProbeOutput.PLAIN));
        }
        CapturePlan plan =
                new CapturePlan(
                        "bench",
                        "All lanes",
                        "",
                        List.of(),
                        probes,
                        interval,
                        seconds,
                        0,
                        Optional.empty(),
                        List.of(),
                        CapturePlan.Input.PLAIN);
        recorder.start(job, plan, List.of(at), "bench");
    }

    /** Seconds that are kept. */
    public double kept() {
        return recorder.status(job).map(CaptureRecorder.Status::seconds).orElse(0.0);
    }

    public Optional<Long> capture() {
        return recorder.status(job).flatMap(CaptureRecorder.Status::captureId);
    }

    public boolean goesOn() {
        return recorder.status(job).filter(CaptureRecorder.Status::goesOn).isPresent();
    }

    /** Steps of the newest one, lane by lane, as they were kept. */
    public List<short[]> lanes() {
        return captures
                .open(captures.head(job, capture().orElseThrow()).orElseThrow())
                .orElseThrow()
                .capture()
                .lanes()
                .stream()
                .map(Lane::steps)
                .toList();
    }
}
