package brightlantern.app.page;

import java.time.Instant;
import java.util.List;

/** What a stage has recorded in a job. */
public interface Recordings {
    /**
     * @param kind take, capture or sound
     * @param href where it is looked at
     * @param apart whether it went wrong, and is kept apart
     */
    record Recording(
            Instant at,
            String kind,
            String name,
            String note,
            String who,
            String href,
            boolean apart) {}

    /** Of a job, in any order. */
    List<Recording> of(long jobId);
}
