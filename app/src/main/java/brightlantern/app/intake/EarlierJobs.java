package brightlantern.app.intake;

import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Shelf;
import brightlantern.core.shelf.ShelfCase;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What was done before at a vehicle that comes back, and what was proven then. */
@Component
class EarlierJobs {
    private final Jobs jobs;
    private final Repairs repairs;
    private final Shelf shelf;

    EarlierJobs(Jobs jobs, Repairs repairs, Shelf shelf) {
        this.jobs = jobs;
        this.repairs = repairs;
        this.shelf = shelf;
    }

    /**
     * A job of the same vehicle.
     *
     * @param ended how it ended, in words
     */
    record Earlier(long id, Instant opened, String complaint, boolean open, String ended) {}

    /** Those of a vehicle, the newest first. */
    List<Earlier> of(String vin, long except) {
        Map<Long, ShelfCase> proven =
                shelf.all().stream()
                        .filter(ShelfCase::isOwn)
                        .collect(Collectors.toMap(ShelfCase::jobId, Function.identity()));
        return jobs.all().stream()
                .filter(j -> j.vin().equals(vin) && j.id() != except)
                .sorted((a, b) -> b.opened().compareTo(a.opened()))
                .map(
                        j ->
                                new Earlier(
                                        j.id(),
                                        j.opened(),
                                        j.complaint(),
                                        j.isOpen(),
                                        ended(j, proven)))
                .toList();
    }

    private String ended(Job job, Map<Long, ShelfCase> proven) {
        if (job.isOpen()) {
            return "still open";
        }
        ShelfCase found = proven.get(job.id());
        if (found != null) {
            return "proven: " + found.cause() + "; " + found.repair();
        }
        return repairs.of(job.id()).stream()
                .reduce((older, newer) -> newer)
                .map(r -> "closed, not proven: " + r.name())
                .orElse("closed without a repair");
    }
}
