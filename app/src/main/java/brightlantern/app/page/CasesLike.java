package brightlantern.app.page;

import brightlantern.app.job.Job;
import brightlantern.app.job.Shelf;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Standing;
import brightlantern.core.shelf.ShelfCase;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Cases on the shelf that are like a job. */
@Component
public class CasesLike {
    /** Less alike than this is not worth a look. */
    private static final double ALIKE = 0.2;

    private final Shelf shelf;

    CasesLike(Shelf shelf) {
        this.shelf = shelf;
    }

    /** A case, how much it is like the job, and why. */
    public record Alike(ShelfCase found, int percent, List<String> reasons) {}

    /**
     * The most alike first.
     *
     * @param evidence what was found in the job
     */
    public List<Alike> of(
            Job job, VehicleDescription d, Ranking ranking, List<Evidence> evidence, int most) {
        List<ShelfCase> cases = shelf.all();
        if (cases.isEmpty()) {
            return List.of();
        }
        Set<String> codes =
                evidence.stream()
                        .filter(e -> e instanceof Evidence.CodeSeen c && c.present())
                        .map(e -> ((Evidence.CodeSeen) e).code())
                        .collect(Collectors.toSet());
        Map<String, String> names =
                d.symptoms().stream()
                        .collect(Collectors.toMap(Symptom::id, s -> s.name() + " " + s.when()));
        return cases.stream()
                .filter(c -> c.jobId() != job.id())
                .map(
                        c ->
                                c.match(
                                                job.vehicleId(),
                                                job.symptoms(),
                                                codes,
                                                here(c, job, ranking))
                                        .named(names))
                .filter(m -> m.likeness() >= ALIKE)
                .sorted(Comparator.comparingDouble(ShelfCase.Match::likeness).reversed())
                .limit(most)
                .map(m -> new Alike(m.found(), (int) Math.round(100 * m.likeness()), m.reasons()))
                .toList();
    }

    private static double here(ShelfCase c, Job job, Ranking ranking) {
        return c.vehicle().equals(job.vehicleId())
                ? ranking.of(c.causeId()).map(Standing::sureness).orElse(0.0)
                : Double.NaN;
    }
}
