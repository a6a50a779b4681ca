package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Weighs evidence over the suspects of a vehicle. Each way in which faults show is a {@link
 * Mechanism}; the rest is Bayes' rule ({@link Posterior}), planning ({@link CheckPlanner}) and
 * words ({@link Explanation}).
 */
public final class Reasoner {
    /** A finding that moves a suspect by less than this is not told. */
    private static final double TOLD_LOG10 = 0.05;

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
                        new WordMechanism()));
    }

    /**
     * @param mechanisms ways in which its faults show
     */
    public Reasoner(VehicleDescription description, List<Mechanism> mechanisms) {
        this.mechanisms = List.copyOf(mechanisms);
        this.hypotheses = new Hypotheses(description.suspects(), this.mechanisms);
        this.planner = new CheckPlanner(hypotheses, this.mechanisms);
    }

    /** Ranks all suspects by the newest evidence of each kind. */
    public Ranking rank(List<Evidence> evidence) {
        Posterior posterior = new Posterior(hypotheses);
        Map<String, List<Contribution>> contributions = new HashMap<>();
        for (int index : newest(evidence)) {
            Evidence piece = evidence.get(index);
            Mechanism mechanism = of(piece);
            double[] logLikelihoods = mechanism.logLikelihoods(piece, hypotheses);
            double[] before = posterior.weights();
            double[] log10Odds = posterior.log10Odds(logLikelihoods);
            for (int k = 0; k < log10Odds.length; k++) {
                if (Math.abs(log10Odds[k]) >= TOLD_LOG10) {
                    String suspect = hypotheses.suspects().get(k);
                    String foretold = mechanism.foretold(piece, suspect, hypotheses, before);
                    contributions
                            .computeIfAbsent(suspect, x -> new ArrayList<>())
                            .add(new Contribution(index, log10Odds[k], foretold));
                }
            }
            posterior.learn(logLikelihoods);
        }
        return ranking(posterior.weights(), contributions);
    }

    /** Checks not yet done, those that tell most about the suspects for each minute first. */
    public List<NextCheck> nextChecks(List<Evidence> evidence, double supplyVolts) {
        Posterior posterior = new Posterior(hypotheses);
        List<Evidence> known = newest(evidence).stream().map(evidence::get).toList();
        known.forEach(piece -> posterior.learn(of(piece).logLikelihoods(piece, hypotheses)));
        return planner.next(known, posterior.weights(), supplyVolts);
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

    private Ranking ranking(double[] weights, Map<String, List<Contribution>> contributions) {
        List<Standing> standings = new ArrayList<>();
        double[] sure = hypotheses.bySuspect(weights);
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
        return new Ranking(standings, Explanation.sentence(standings));
    }

    private String size(String suspectId, double[] weights) {
        return mechanisms.stream()
                .map(m -> m.size(suspectId, hypotheses, weights))
                .filter(s -> !s.isEmpty())
                .findFirst()
                .orElse("");
    }
}
