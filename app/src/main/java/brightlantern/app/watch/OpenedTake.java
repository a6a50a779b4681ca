package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import org.springframework.http.HttpStatus;
import org.springframework.web.server.ResponseStatusException;

/** A take that is looked at. */
final class OpenedTake {

    private OpenedTake() {}

    /** A take with all that is needed to read it. */
    record Opened(Takes.TakeHead head, Take take, VehicleDescription description) {}

    static Opened open(Takes takes, JobPages.Context context, long takeId) {
        Takes.TakeHead head =
                takes.head(context.job().id(), takeId)
                        .orElseThrow(
                                () ->
                                        new ResponseStatusException(
                                                HttpStatus.NOT_FOUND,
                                                "There is no take " + takeId + "."));
        return new Opened(
                head, takes.ended(head), context.description().withValues(takes.own(takeId)));
    }
}
