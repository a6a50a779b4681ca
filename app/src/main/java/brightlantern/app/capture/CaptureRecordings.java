package brightlantern.app.capture;

import brightlantern.app.page.Recordings;
import java.util.List;
import org.springframework.stereotype.Component;

/** Captures among all that was recorded. */
@Component
class CaptureRecordings implements Recordings {
    private final Captures captures;

    CaptureRecordings(Captures captures) {
        this.captures = captures;
    }

    @Override
    public List<Recording> of(long jobId) {
        return captures.of(jobId).stream()
                .map(
                        c ->
                                new Recording(
                                        c.began(),
                                        "capture",
                                        c.name(),
                                        c.note(),
                                        c.who(),
                                        "/jobs/%d/probe/captures/%d".formatted(jobId, c.id()),
                                        c.setAside()))
                .toList();
    }
}
