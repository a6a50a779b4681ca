package brightlantern.app.intake;

import brightlantern.app.job.Job;
import brightlantern.app.job.Visit;
import brightlantern.core.signal.Words;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;

/**
 * The list of jobs as it was asked for.
 *
 * @param find words that a job's number, plate, customer, order, VIN, vehicle, complaint or people
 *     must hold
 * @param state open, closed, or empty for both
 * @param sort vehicle, oldest, or empty for open ones first and then the newest
 * @param told how many of how many are shown
 */
record JobList(String answer, List<Row> rows, String find, String state, String sort, String told) {
    /**
     * @param state open or closed, and that a take runs in it
     */
    record Row(
            long id,
            String vehicle,
            String vin,
            Visit visit,
            String complaint,
            Instant opened,
            String openedBy,
            boolean open,
            boolean recording) {
        private boolean holds(String word) {
            return Stream.of(
                            String.valueOf(id),
                            vehicle,
                            vin,
                            visit.plate(),
                            visit.customer(),
                            visit.order(),
                            complaint,
                            openedBy)
                    .anyMatch(t -> t.toLowerCase(Locale.ROOT).contains(word));
        }
    }

    static JobList of(
            List<Job> jobs,
            VehicleLibrary library,
            Set<Long> recording,
            String find,
            String state,
            String sort) {
        Comparator<Row> order =
                switch (sort) {
                    case "vehicle" -> Comparator.comparing(Row::vehicle).thenComparing(Row::vin);
                    case "oldest" -> Comparator.comparing(Row::opened);
                    default -> (a, b) -> 0;
                };
        List<Row> rows =
                jobs.stream()
                        .map(j -> row(j, library, recording))
                        .filter(r -> state.isEmpty() || r.open() == state.equals("open"))
                        .filter(
                                r ->
                                        Stream.of(
                                                        find.toLowerCase(Locale.ROOT)
                                                                .trim()
                                                                .split("\\s+"))
                                                .allMatch(r::holds))
                        .sorted(order)
                        .toList();
        return new JobList(
                jobs.isEmpty()
                        ? "No jobs yet."
                        : rows.isEmpty() ? "No job fits." : "Which vehicle is next?",
                rows,
                find,
                state,
                sort,
                rows.size() + " of " + Words.count(jobs.size(), "job"));
    }

    private static Row row(Job j, VehicleLibrary library, Set<Long> recording) {
        return new Row(
                j.id(),
                library.byId(j.vehicleId()).map(VehicleDescription::name).orElse("not described"),
                j.vin(),
                j.visit(),
                j.complaint(),
                j.opened(),
                j.openedBy(),
                j.isOpen(),
                recording.contains(j.id()));
    }
}
