package brightlantern.core.reason;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
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

    /** Of a suspect less likely than this nobody asks how large its fault would be. */
    private static final double EXCLUDED = 1e-4;

    /** So many pieces are remembered. */
    private static final int MOST_WEIGHED = 512;

    /** What is known of two faults is remembered of so many lists of pieces. */
    private static final int MOST_PAIRED = 16;

    private final VehicleDescription description;
    private final List<Mechanism> mechanisms;
    private final Hypotheses hypotheses;
    private final CheckPlanner planner;

    /** What is known of two faults by the pieces that were asked for last. */
    private final Map<List<Evidence>, Optional<Pairs.Two>> paired = new Remembered<>(MOST_PAIRED);

    /** What was learned of the pieces that were asked for last: each finding adds one to many. */
    private final Map<Evidence, Learned> weighed = new Remembered<>(MOST_WEIGHED);

    /** With all ways in which faults show that the program knows, and all that may be broken. */
    public Reasoner(VehicleDescription description) {
        this(description, new Predictions(description));
    }

    /**
     * @param predictions what the circuits foretell, which costs most and is the same for all that
     *     have them
     */
    Reasoner(VehicleDescription description, Predictions predictions) {
        this(description, mechanisms(description, predictions));
    }

    private static List<Mechanism> mechanisms(
            VehicleDescription description, Predictions predictions) {
        NetworkFaults network = new NetworkFaults(description);
        CircuitFigures figures = new CircuitFigures(description, predictions, network);
        return List.of(
                new DescribedMechanism(description, new ShownBySize(figures)),
                new CircuitMechanism(description, figures),
                new NetworkMechanism(network),
                new BusMechanism(description, network),
                new HistoryMechanism(description),
                new WordMechanism());
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
        List<Integer> newest = Newest.of(evidence);
        List<Learned> learned = learned(newest.stream().map(evidence::get).toList());
        Posterior posterior = new Posterior(hypotheses);
        Map<String, List<Contribution>> contributions = new HashMap<>();
        for (int e = 0; e < learned.size(); e++) {
            Evidence piece = learned.get(e).piece();
            double[] likelihoods = learned.get(e).likelihoods();
            double[] before = posterior.weights();
            double[] log10Odds = posterior.log10Odds(likelihoods);
            for (int k = 0; k < log10Odds.length; k++) {
                if (Math.abs(log10Odds[k]) >= TOLD_LOG10) {
                    String suspect = hypotheses.suspects().get(k);
                    String foretold = of(piece).foretold(piece, suspect, hypotheses, before);
                    contributions
                            .computeIfAbsent(suspect, x -> new ArrayList<>())
                            .add(new Contribution(newest.get(e), log10Odds[k], foretold));
                }
            }
            posterior.learn(likelihoods);
        }
        return ranking(
                Sought.among(posterior.weights(), learned, hypotheses),
                learned,
                pairs(learned, evidence),
                contributions);
    }

    /** Checks not yet done, those that tell most about the suspects for each minute first. */
    public List<NextCheck> nextChecks(List<Evidence> evidence, double supplyVolts) {
        Unlisted.Told told = told(Newest.of(evidence).stream().map(evidence::get).toList());
        List<Learned> learned = told.pieces();
        return planner.next(told, weights(learned), pairs(learned, evidence), supplyVolts);
    }

    /** How the time of a job stands. */
    public Budget budget(
            double minutes, List<Evidence> evidence, Ranking ranking, List<NextCheck> next) {
        List<Evidence> done = Newest.of(evidence).stream().map(evidence::get).toList();
        List<Check> checks = new ArrayList<>();
        for (Mechanism m : mechanisms) {
            checks.addAll(m.checks(List.of()));
            checks.addAll(m.checks(done));
        }
        Map<String, Check> byKey = new HashMap<>();
        checks.forEach(c -> byKey.putIfAbsent(c.key(), c));
        Map<String, Double> spent = new HashMap<>();
        for (Evidence piece : done) {
            Check check = byKey.get(piece.key());
            if (check != null) {
                spent.merge(
                        takenAs(check), check.minutes() + CheckPlanner.MINUTES_ASIDE, Math::max);
            }
        }
        double all = spent.values().stream().mapToDouble(m -> m).sum();
        return Budget.of(minutes, all, ranking, next);
    }

    /** One capture or procedure may tell of several things; its time is taken once. */
    private static String takenAs(Check check) {
        return check instanceof Check.Look look && !look.at().isEmpty()
                ? look.place().path()
                : check.key();
    }

    /** Probability of each outcome of a check, in their order; empty when it foretells none. */
    List<Double> chances(Check check, List<Evidence> evidence, double supplyVolts) {
        double[] weights = weighted(evidence);
        return forecast(check, weights, supplyVolts).stream()
                .map(Mechanism.Forecast::outcomes)
                .flatMap(o -> o.each().stream())
                .map(chance -> dot(weights, chance))
                .toList();
    }

    /**
     * A figure that may be read.
     *
     * @param chance that it is this one, or near to it
     */
    record Figure(double value, double chance) {}

    /** Figures that a reading may come to, rising. */
    List<Figure> figures(Check check, List<Evidence> evidence, double supplyVolts) {
        double[] weights = weighted(evidence);
        return forecast(check, weights, supplyVolts)
                .filter(FigureForecast.class::isInstance)
                .map(f -> ((FigureForecast) f).figures())
                .orElse(List.of());
    }

    private double[] weighted(List<Evidence> evidence) {
        return weights(learned(Newest.of(evidence).stream().map(evidence::get).toList()));
    }

    private double[] weights(List<Learned> learned) {
        Posterior posterior = new Posterior(hypotheses);
        learned.forEach(l -> posterior.learn(l.likelihoods()));
        return Sought.among(posterior.weights(), learned, hypotheses);
    }

    private Optional<Mechanism.Forecast> forecast(
            Check check, double[] weights, double supplyVolts) {
        return mechanisms.stream()
                .flatMap(m -> m.forecast(check, hypotheses, weights, supplyVolts).stream())
                .findFirst();
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
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
        List<Learned> shown = Newest.of(after).stream().map(after::get).map(this::weighed).toList();
        List<Learned> found = learned(Newest.of(before).stream().map(before::get).toList());
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
                planner
                        .next(
                                new Unlisted.Told(shown, Unlisted.UNLIKE),
                                weights,
                                Optional.empty(),
                                supplyVolts)
                        .stream()
                        .filter(c -> c.bits() > 0)
                        .findFirst());
    }

    private List<Learned> learned(List<Evidence> pieces) {
        return told(pieces).pieces();
    }

    private Unlisted.Told told(List<Evidence> pieces) {
        return new Unlisted(hypotheses)
                .in(
                        pieces.stream().map(this::weighed).toList(),
                        p -> of(p).unlisted(p),
                        p -> of(p).near(p, hypotheses));
    }

    /** A ranking and the next checks ask for the same, one after the other. */
    private Optional<Pairs.Two> pairs(List<Learned> learned, List<Evidence> evidence) {
        List<Evidence> pieces = Newest.withChanged(evidence).stream().map(evidence::get).toList();
        synchronized (paired) {
            Optional<Pairs.Two> known = paired.get(pieces);
            if (known != null) {
                return known;
            }
        }
        Map<Evidence, Learned> newest = new HashMap<>();
        learned.forEach(l -> newest.put(l.piece(), l));
        List<Learned> all =
                pieces.stream()
                        .map(p -> newest.containsKey(p) ? newest.get(p) : weighed(p))
                        .toList();
        Optional<Pairs.Two> pairs = Pairs.of(hypotheses, all, this::together);
        synchronized (paired) {
            paired.put(pieces, pairs);
        }
        return pairs;
    }

    private Optional<Mechanism.Together> together(Evidence piece) {
        return of(piece).together(piece, hypotheses);
    }

    private Learned weighed(Evidence piece) {
        synchronized (weighed) {
            return weighed.computeIfAbsent(
                    piece, p -> new Learned(p, of(p).logLikelihoods(p, hypotheses)));
        }
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

    private Ranking ranking(
            double[] weights,
            List<Learned> learned,
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
                            sure[k] < EXCLUDED ? "" : size(id, weights)));
        }
        standings.sort(Comparator.comparingDouble(Standing::sureness).reversed());
        double both = two.map(Pairs.Two::both).orElse(0.0);
        List<Standing> alike = alike(standings);
        // beside a second fault something else is wrong to be seen
        Optional<Evidence> against =
                both < Ranking.POINTED_AT
                        ? Contradiction.of(
                                alike.stream().map(Standing::suspectId).toList(),
                                weights,
                                learned,
                                hypotheses,
                                (piece, i) -> of(piece).isSlip(piece, hypotheses, i))
                        : Contradiction.ofTwo(learned, piece -> isSlip(piece, two.get()));
        return new Ranking(
                standings,
                alike,
                both,
                against,
                Explanation.sentence(
                        standings,
                        alike,
                        both,
                        against.isPresent(),
                        learned.stream().anyMatch(l -> l.piece() instanceof Evidence.SymptomTold),
                        learned.stream().anyMatch(l -> !l.piece().passed().orElse(true))));
    }

    private boolean isSlip(Evidence piece, Pairs.Two two) {
        return of(piece).isSlip(piece, hypotheses, two.first(), two.likeliestSecond());
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
