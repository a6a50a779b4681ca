package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.page.Recordings;
import java.util.List;
import org.springframework.stereotype.Component;

/** Takes of live values among all that was recorded. */
@Component
class TakeRecordings implements Recordings {
    private final Takes takes;

    TakeRecordings(Takes takes) {
        this.takes = takes;
    }

    @Override
    public List<Recording> of(long jobId) {
        return takes.of(jobId).stream()
                .map(
                        t ->
                                new Recording(
                                        t.started(),
                                        "take of live values",
                                        t.name(),
                                        t.note(),
                                        t.source().isEmpty() ? "" : "from " + t.source(),
                                        "/jobs/%d/watch/takes/%d".formatted(jobId, t.id()),
                                        t.setAside()))
                .toList();
    }
}
