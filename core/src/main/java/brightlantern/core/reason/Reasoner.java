package brightlantern.core.reason;

import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Weighs evidence over the suspects of a vehicle. Each way in which faults show is a {@link
 * Mechanism}; the rest is Bayes' rule ({@link Posterior}), planning ({@link CheckPlanner}) and
 * words ({@link Explanation}).
 */
public final class Reasoner {
    /** A finding that moves a suspect by less than this is not told. */
    private static final double TOLD_LOG10 = 0.05;

    /** A suspect with less than this is not told beside another. */
    private static final double FAINT = 0.02;

    private final VehicleDescription description;
    private final List<Mechanism> mechanisms;
    private final Hypotheses hypotheses;
    private final CheckPlanner planner;

    /** With all ways in which faults show that the program knows, and all that may be broken. */
    public Reasoner(VehicleDescription description) {
        this(
                description,
                List.of(
                        new DescribedMechanism(description),
                        new CircuitMechanism(description),
                        new NetworkMechanism(description),
                        new BusMechanism(description),
                        new WordMechanism()));
    }

    /**
     * @param mechanisms ways in which its faults show
     */
    public Reasoner(VehicleDescription description, List<Mechanism> mechanisms) {
        this.description = description;
        this.mechanisms = List.copyOf(mechanisms);
        this.hypotheses = new Hypotheses(description.suspects(), this.mechanisms);
        this.planner = new CheckPlanner(hypotheses, this.mechanisms);
    }

    /** Ranks all suspects by the newest evidence of each kind. */
    public Ranking rank(List<Evidence> evidence) {
        List<Integer> newest = newest(evidence);
        List<Learned> learned = learned(newest.stream().map(evidence::get).toList());
        Posterior posterior = new Posterior(hypotheses);
        Map<String, List<Contribution>> contributions = new HashMap<>();
        for (int e = 0; e < learned.size(); e++) {
            Evidence piece = learned.get(e).piece();
            double[] logLikelihoods = learned.get(e).logs();
            double[] before = posterior.weights();
            double[] log10Odds = posterior.log10Odds(logLikelihoods);
            for (int k = 0; k < log10Odds.length; k++) {
                if (Math.abs(log10Odds[k]) >= TOLD_LOG10) {
                    String suspect = hypotheses.suspects().get(k);
                    String foretold = of(piece).foretold(piece, suspect, hypotheses, before);
                    contributions
                            .computeIfAbsent(suspect, x -> new ArrayList<>())
                            .add(new Contribution(newest.get(e), log10Odds[k], foretold));
                }
            }
            posterior.learn(logLikelihoods);
        }
        return ranking(posterior.weights(), Pairs.of(hypotheses, learned), contributions);
    }

    /** Checks not yet done, those that tell most about the suspects for each minute first. */
    public List<NextCheck> nextChecks(List<Evidence> evidence, double supplyVolts) {
        List<Learned> learned = learned(newest(evidence).stream().map(evidence::get).toList());
        Posterior posterior = new Posterior(hypotheses);
        learned.forEach(l -> posterior.learn(l.logs()));
        return planner.next(
                learned, posterior.weights(), Pairs.of(hypotheses, learned), supplyVolts);
    }

    /**
     * What may still be broken after a repair, by what was shown since.
     *
     * @param before what was found before it
     * @param repairedId suspect that was repaired
     * @param after what was shown since
     */
    public Remaining remaining(
            List<Evidence> before, String repairedId, List<Evidence> after, double supplyVolts) {
        List<Learned> shown =
                newest(after).stream()
                        .map(after::get)
                        .map(p -> new Learned(p, of(p).logLikelihoods(p, hypotheses)))
                        .toList();
        List<Learned> found = learned(newest(before).stream().map(before::get).toList());
        AfterRepair since = new AfterRepair(hypotheses, found, repairedId, shown);
        double[] weights = since.weights();
        double[] left = hypotheses.bySuspect(weights);
        String likeliest =
                hypotheses.suspects().stream()
                        .filter(id -> !id.equals(Hypothesis.NOTHING))
                        .max(
                                Comparator.comparingDouble(
                                        id -> left[hypotheses.suspects().indexOf(id)]))
                        .orElseThrow();
        return new Remaining(
                1 - weights[hypotheses.healthy()],
                nameOf(likeliest),
                since.tells(),
                planner.next(shown, weights, Optional.empty(), supplyVolts).stream()
                        .filter(c -> c.bits() > 0)
                        .findFirst());
    }

    private List<Learned> learned(List<Evidence> pieces) {
        return new Unlisted(hypotheses)
                .in(
                        pieces.stream()
                                .map(p -> new Learned(p, of(p).logLikelihoods(p, hypotheses)))
                                .toList(),
                        p -> of(p).isShared(p));
    }

    /** What a suspect is called; its id when nobody described it. */
    public String nameOf(String suspectId) {
        return hypotheses.name(suspectId);
    }

    private Mechanism of(Evidence piece) {
        return mechanisms.stream()
                .filter(m -> m.weighs(piece))
                .findFirst()
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "Nothing weighs evidence such as " + piece.key()));
    }

    /** Places of the newest evidence of each kind, oldest first. */
    private static List<Integer> newest(List<Evidence> evidence) {
        Map<String, Integer> last = new LinkedHashMap<>();
        for (int i = 0; i < evidence.size(); i++) {
            last.put(evidence.get(i).key(), i);
        }
        return last.values().stream().sorted().toList();
    }

    private Ranking ranking(
            double[] weights,
            Optional<Pairs.Two> two,
            Map<String, List<Contribution>> contributions) {
        List<Standing> standings = new ArrayList<>();
        double[] sure = hypotheses.bySuspect(weights);
        two.ifPresent(
                t -> {
                    for (int k = 0; k < sure.length; k++) {
                        sure[k] = (1 - t.share()) * sure[k] + t.share() * t.broken()[k];
                    }
                });
        for (int k = 0; k < sure.length; k++) {
            String id = hypotheses.suspects().get(k);
            standings.add(
                    new Standing(
                            id,
                            nameOf(id),
                            sure[k],
                            contributions.getOrDefault(id, List.of()),
                            size(id, weights)));
        }
        standings.sort(Comparator.comparingDouble(Standing::sureness).reversed());
        double both = two.map(Pairs.Two::both).orElse(0.0);
        List<Standing> alike = alike(standings);
        return new Ranking(standings, alike, both, Explanation.sentence(standings, alike, both));
    }

    /** The leading suspect, and those of its kind at whose places nothing else can be measured. */
    private List<Standing> alike(List<Standing> standings) {
        Standing lead = standings.get(0);
        Optional<Effect> its = effect(lead);
        Set<String> places =
                its.flatMap(Effect::part).map(description.wiring()::alike).orElse(Set.of());
        return standings.stream()
                .filter(
                        s ->
                                s == lead
                                        || s.sureness() >= FAINT
                                                && its.isPresent()
                                                && isAmong(effect(s), places, its.get()))
                .toList();
    }

    private static boolean isAmong(Optional<Effect> effect, Set<String> places, Effect like) {
        return effect.filter(e -> e.getClass() == like.getClass())
                .flatMap(Effect::part)
                .filter(places::contains)
                .isPresent();
    }

    private Optional<Effect> effect(Standing standing) {
        return description.suspect(standing.suspectId()).flatMap(Suspect::effect);
    }

    private String size(String suspectId, double[] weights) {
        return mechanisms.stream()
                .map(m -> m.size(suspectId, hypotheses, weights))
                .filter(s -> !s.isEmpty())
                .findFirst()
                .orElse("");
    }
}
