package brightlantern.app.exercise;

import brightlantern.app.job.Reasoning;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Proposal;
import brightlantern.core.reason.Standing;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Which procedures a job's symptoms, codes and leading suspects call for. */
@Component
class Proposals {
    /** Suspects less sure than this call for nothing. */
    private static final double LEAST_SURENESS = 0.05;

    /** More than these are no proposal. */
    private static final int MOST = 7;

    private final Sweeps sweeps;
    private final Reasoning reasoning;

    Proposals(Sweeps sweeps, Reasoning reasoning) {
        this.sweeps = sweeps;
        this.reasoning = reasoning;
    }

    /**
     * @param because in words
     */
    record Proposed(Procedure procedure, String because) {}

    List<Proposed> of(JobPages.Context context, List<Procedure> procedures) {
        long job = context.job().id();
        VehicleDescription d = context.description();
        Set<String> codes =
                sweeps.newest(job).map(Sweeps.Kept::sweep).stream()
                        .flatMap((Sweep s) -> s.codes().stream())
                        .map(c -> c.code().toString())
                        .collect(Collectors.toCollection(TreeSet::new));
        List<String> suspects =
                reasoning.of(job, d, Double.NaN).ranking().standings().stream()
                        .filter(s -> s.sureness() >= LEAST_SURENESS)
                        .map(Standing::suspectId)
                        .toList();
        Set<String> symptoms = context.job().symptoms();
        Map<String, Set<String>> families = new HashMap<>();
        d.symptoms().stream()
                .filter(s -> symptoms.contains(s.id()))
                .forEach(s -> s.families().forEach(f -> add(families, f, s.id())));
        d.codes().stream()
                .filter(c -> codes.contains(c.code()))
                .forEach(c -> add(families, c.family(), c.code()));
        return Proposal.of(procedures, new Proposal.Known(symptoms, codes, suspects, families))
                .stream()
                .limit(MOST)
                .map(p -> new Proposed(p.procedure(), words(d, p.because())))
                .toList();
    }

    private static void add(Map<String, Set<String>> families, String family, String what) {
        families.computeIfAbsent(family, f -> new LinkedHashSet<>()).add(what);
    }

    private static String words(VehicleDescription d, List<String> because) {
        return because.stream()
                .map(
                        id ->
                                d.symptoms().stream()
                                        .filter(s -> s.id().equals(id))
                                        .map(s -> s.name() + " " + s.when())
                                        .findFirst()
                                        .or(
                                                () ->
                                                        d.suspects().stream()
                                                                .filter(s -> s.id().equals(id))
                                                                .map(s -> s.name())
                                                                .findFirst())
                                        .orElse(id))
                .collect(Collectors.joining(", "));
    }
}
