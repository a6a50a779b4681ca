package brightlantern.core.reason;

import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** If a check shows this, then that: two steps ahead, for who wants to see why it comes first. */
public final class Plan {
    /** What comes out less often is not told. */
    private static final double FAINT = 0.01;

    private static final int MOST = 6;

    private final Reasoners reasoners;
    private final VehicleDescription description;

    /**
     * @param description of the vehicle that they weigh
     */
    public Plan(Reasoners reasoners, VehicleDescription description) {
        this.reasoners = reasoners;
        this.description = description;
    }

    /** What a check may come to and where that leads, the likeliest first. */
    public List<Branch> of(Check check, List<Evidence> found, double supplyVolts) {
        return possible(check, found, supplyVolts).stream()
                .map(p -> branch(p, found, supplyVolts))
                .toList();
    }

    /** What a check may come to, the likeliest first; empty for one with no outcomes to list. */
    public List<Possible> possible(Check check, List<Evidence> found, double supplyVolts) {
        Reasoner now = reasoners.of(found);
        List<Possible> all = List.of();
        if (check instanceof Check.Look look) {
            all =
                    description
                            .finding(look.finding())
                            .map(f -> outcomes(f, now.chances(check, found, supplyVolts)))
                            .orElse(List.of());
        } else if (check instanceof Check.Reading reading) {
            all =
                    now.figures(check, found, supplyVolts).stream()
                            .map(f -> figure(reading, f, supplyVolts))
                            .toList();
        }
        return all.stream()
                .filter(p -> p.chance() >= FAINT)
                .sorted(Comparator.comparingDouble(Possible::chance).reversed())
                .limit(MOST)
                .toList();
    }

    private static List<Possible> outcomes(Finding finding, List<Double> chances) {
        List<Possible> all = new ArrayList<>();
        for (int i = 0; i < finding.outcomes().size() && i < chances.size(); i++) {
            FindingOutcome o = finding.outcomes().get(i);
            all.add(
                    new Possible(
                            o.name(), chances.get(i), new Evidence.Outcome(finding.id(), o.id())));
        }
        return all;
    }

    private Possible figure(Check.Reading r, Reasoner.Figure figure, double supplyVolts) {
        ProbeCondition condition =
                new ProbeCondition(Load.named(r.load()), r.moving().stream().findFirst());
        boolean right =
                description
                        .circuit(r.circuit())
                        .map(
                                c ->
                                        condition
                                                .healthy(
                                                        new SharedPoints(description.circuits()),
                                                        c,
                                                        r.point(),
                                                        supplyVolts)
                                                .holds(figure.value()))
                        .orElse(true);
        return new Possible(
                String.format(Locale.ROOT, "about %.1f V", figure.value()),
                figure.chance(),
                new Evidence.Reading(
                        r.circuit(),
                        r.point(),
                        r.load(),
                        r.moving(),
                        figure.value(),
                        supplyVolts,
                        right));
    }

    private Branch branch(Possible p, List<Evidence> found, double supplyVolts) {
        List<Evidence> then = new ArrayList<>(found);
        then.add(p.piece());
        Reasoner reasoner = reasoners.of(then);
        Ranking ranking = reasoner.rank(then);
        Optional<NextCheck> next =
                ranking.accused().isPresent()
                        ? Optional.empty()
                        : reasoner.nextChecks(then, supplyVolts).stream()
                                .filter(c -> c.bits() >= NextStep.LEAST_BITS)
                                .findFirst();
        return new Branch(p, ranking.sentence(), next.map(c -> c.check().name()).orElse(""));
    }
}
