package brightlantern.core.reason;

import brightlantern.core.circuit.CircuitModel.Fault;
import brightlantern.core.network.NetworkReasoner;
import brightlantern.core.reason.Predictions.Normal;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.hipparchus.special.Erf;
import org.hipparchus.util.FastMath;

/**
 * Weighs evidence over suspects by Bayes' rule. A suspect with a physical effect is spread over a
 * range of severities, each a hypothesis of its own, so that readings which must agree on the size
 * of a fault are held against each other. Two more stand beside the described ones: "something not
 * on this list" and "nothing broken at present".
 */
public final class Reasoner {
    public static final String SOMETHING_ELSE = "something-else";
    public static final String NOTHING = "nothing-broken";

    /** From here on the program says that it is this one. */
    public static final double ACCUSED = 0.8;

    /** From here on it says that things point to this one. */
    public static final double POINTED_AT = 0.5;

    /** For so many suspects the rail tells what a check should read; more cannot be taken in. */
    private static final int SHOWN_EXPECTATIONS = 3;

    /** A list of causes is never complete: one complaint in ten turns out to be something new. */
    private static final double PRIOR_SOMETHING_ELSE = 0.10;

    /**
     * One complaint in ten is not reproduced: misuse, a passing condition, or mended on the way.
     */
    private static final double PRIOR_NOTHING = 0.10;

    /** One described cause stands for so much of all causes at most. */
    private static final double COVERED_BY_ONE = 0.2;

    private static final int SEVERITIES = 13;

    /** Share of findings that are simply wrong: a slipped probe, a misread figure. */
    private static final double BLUNDER = 0.02;

    /** Probability that a code or symptom appears for no reason that the suspect gives. */
    private static final double LEAK = 0.03;

    /** A symptom that a suspect does not name may still be told beside it. */
    private static final double STRAY_SYMPTOM = 0.1;

    /**
     * Nobody can say what an unknown cause shows; halfway on a logarithmic scale between stray and
     * typical.
     */
    private static final double UNKNOWN_SYMPTOM = 0.3;

    /** Of findings under an unknown cause, this share looks healthy; the rest may be anything. */
    private static final double UNKNOWN_HEALTHY = 0.6;

    /** A repair done well mends its cause; this is left for one done badly. */
    private static final double REPAIR_BOTCHED = 0.05;

    /** Nothing that was heard makes a suspect quite impossible: ears err as well. */
    private static final double FAINTEST = 1e-9;

    /** Kind of the check that listens to the network. */
    private static final String HEARD = "heard";

    private static final double SWEEP_MINUTES = 3;

    /** A broken element shows so often where somebody looks at it; damp ones come and go. */
    private static final double ELEMENT_SHOWS = 0.85;

    /** Of codes that another one brings along, so many are set with it. */
    private static final double BROUGHT = 0.6;

    private static final String ROLL_CALL = "roll-call";
    private static final double ROLL_CALL_MINUTES = 4;

    /** In a sweep a module is called so often at most; a roll call goes on for longer. */
    private static final int CALLS_OF_A_SWEEP = 4;

    /** On random networks a sweep and roll call name the wrong element about so often. */
    private static final double HEARD_WRONG = 0.1;

    private static final brightlantern.core.network.RollCall NO_CALL =
            new brightlantern.core.network.RollCall(Map.of(), Set.of(), Set.of());

    private final VehicleDescription description;
    private final Predictions predictions;
    private final NetworkReasoner network;

    /** Suspect → the element of the network that it is; others are not in it. */
    private final Map<String, String> elements = new HashMap<>();

    private final List<Hypothesis> hypotheses = new ArrayList<>();
    private final List<String> suspects;

    /** Hypothesis → place of its suspect in {@link #suspects}. */
    private final int[] suspectOf;

    /**
     * A suspect at one severity.
     *
     * @param fault in a circuit; empty for suspects without one
     */
    private record Hypothesis(
            String suspectId, Optional<Fault> fault, int severity, double prior) {}

    public Reasoner(VehicleDescription description) {
        this.description = description;
        this.predictions = new Predictions(description);
        this.network = new NetworkReasoner(description.network());
        double total = description.suspects().stream().mapToDouble(Suspect::common).sum();
        double covered = covered(description);
        // what a short list leaves open goes to both others alike
        double open = (1 - PRIOR_SOMETHING_ELSE - PRIOR_NOTHING - covered) / 2;
        double share = total > 0 ? covered / total : 0;
        for (Suspect suspect : description.suspects()) {
            double prior = suspect.common() * share;
            if (suspect.effect().isEmpty()) {
                hypotheses.add(new Hypothesis(suspect.id(), Optional.empty(), 0, prior));
                continue;
            }
            Effect effect = suspect.effect().get();
            if (effect.kind().equals(NetworkSuspects.EFFECT)) {
                elements.put(suspect.id(), effect.of());
                for (int i = 0; i < NetworkReasoner.severities(); i++) {
                    hypotheses.add(
                            new Hypothesis(
                                    suspect.id(),
                                    Optional.empty(),
                                    i,
                                    prior / NetworkReasoner.severities()));
                }
                continue;
            }
            for (int i = 0; i < SEVERITIES; i++) {
                // severities are spread evenly on a logarithmic scale: a tenth of an ohm is as
                // likely as one
                double size =
                        effect.from()
                                * Math.pow(effect.to() / effect.from(), i / (SEVERITIES - 1.0));
                hypotheses.add(
                        new Hypothesis(
                                suspect.id(),
                                Optional.of(new Fault(effect.kind(), effect.of(), size)),
                                i,
                                prior / SEVERITIES));
            }
        }
        hypotheses.add(
                new Hypothesis(SOMETHING_ELSE, Optional.empty(), 0, PRIOR_SOMETHING_ELSE + open));
        hypotheses.add(new Hypothesis(NOTHING, Optional.empty(), 0, PRIOR_NOTHING + open));
        suspects = hypotheses.stream().map(Hypothesis::suspectId).distinct().toList();
        Map<String, Integer> index = new HashMap<>();
        suspects.forEach(id -> index.put(id, index.size()));
        suspectOf = hypotheses.stream().mapToInt(h -> index.get(h.suspectId())).toArray();
    }

    /** Share of all causes that the description covers: a list of one cause is not complete. */
    private static double covered(VehicleDescription description) {
        long described =
                description.suspects().stream()
                        .filter(
                                s ->
                                        s.effect()
                                                .map(e -> !e.kind().equals(NetworkSuspects.EFFECT))
                                                .orElse(true))
                        .count();
        double most = 1 - PRIOR_SOMETHING_ELSE - PRIOR_NOTHING;
        if (description.suspects().isEmpty()) {
            return 0;
        }
        return described == 0 ? most : Math.min(most, COVERED_BY_ONE * described);
    }

    /**
     * How one finding moved one suspect.
     *
     * @param bans log10 of how much likelier the finding is under this suspect than under the
     *     others together
     */
    public record Push(int evidenceIndex, double bans, String expected) {}

    /**
     * @param sureness 0..1
     * @param severity best estimate of the size of its effect, with unit; empty when it has none
     */
    public record Standing(
            String suspectId, String name, double sureness, List<Push> pushes, String severity) {}

    /**
     * @param standings all suspects, the surest first
     * @param sentence what is known, in a sentence
     */
    public record Ranking(List<Standing> standings, String sentence) {
        public Standing lead() {
            return standings.get(0);
        }

        public Optional<Standing> of(String suspectId) {
            return standings.stream().filter(s -> s.suspectId().equals(suspectId)).findFirst();
        }

        /** The described suspect that is sure enough to be named, if any. */
        public Optional<Standing> accused() {
            Standing lead = lead();
            boolean described =
                    !lead.suspectId().equals(SOMETHING_ELSE) && !lead.suspectId().equals(NOTHING);
            return described && lead.sureness() >= ACCUSED ? Optional.of(lead) : Optional.empty();
        }
    }

    /**
     * @param bits information about the suspects that it would bring, in bits
     * @param expectations what it should read under the leading suspects
     */
    public record NextCheck(
            Check check, double bits, double bitsPerMinute, List<String> expectations) {}

    /** Ranks all suspects by the newest evidence of each kind. */
    public Ranking rank(List<Evidence> evidence) {
        double[] weights = priors();
        Map<String, List<Push>> pushes = new HashMap<>();
        for (int index : newest(evidence)) {
            Evidence piece = evidence.get(index);
            double[] likelihood = likelihoods(piece);
            double[] joint = new double[weights.length];
            for (int i = 0; i < joint.length; i++) {
                joint[i] = weights[i] * likelihood[i];
            }
            double[] weight = bySuspect(weights);
            double[] explained = bySuspect(joint);
            double all = Arrays.stream(weight).sum();
            double heardOf = Arrays.stream(explained).sum();
            for (int k = 0; k < suspects.size(); k++) {
                double under = weight[k] > 0 ? explained[k] / weight[k] : 0;
                double rest = all - weight[k];
                double others = rest > 0 ? (heardOf - explained[k]) / rest : 0;
                double bans = Math.log10(Math.max(under, 1e-12) / Math.max(others, 1e-12));
                if (Math.abs(bans) >= 0.05) {
                    String suspect = suspects.get(k);
                    pushes.computeIfAbsent(suspect, x -> new ArrayList<>())
                            .add(new Push(index, bans, expected(piece, suspect, weights)));
                }
            }
            weights = normalised(weights, likelihood);
        }
        return ranking(weights, pushes);
    }

    /** Checks not yet done, those that tell most about the suspects for each minute first. */
    public List<NextCheck> nextChecks(List<Evidence> evidence, double supplyVolts) {
        double[] weights = priors();
        List<Integer> kept = newest(evidence);
        for (int index : kept) {
            weights = normalised(weights, likelihoods(evidence.get(index)));
        }
        Set<String> done =
                kept.stream().map(i -> evidence.get(i).key()).collect(Collectors.toSet());
        List<NextCheck> next = new ArrayList<>();
        for (Check check : checks(kept.stream().map(evidence::get).toList())) {
            if (!done.contains(keyOf(check)) || check.id().equals(ROLL_CALL)) {
                double bits = information(check, weights, supplyVolts);
                next.add(
                        new NextCheck(
                                check,
                                bits,
                                bits / check.minutes(),
                                expectations(check, weights, supplyVolts)));
            }
        }
        next.sort(Comparator.comparingDouble(NextCheck::bitsPerMinute).reversed());
        return next;
    }

    /** The described checks, and a sweep or a roll call where the network is among the suspects. */
    private List<Check> checks(List<Evidence> known) {
        List<Check> checks = new ArrayList<>(description.checks());
        if (elements.isEmpty()) {
            return checks;
        }
        Optional<Evidence.Heard> heard =
                known.stream()
                        .filter(Evidence.Heard.class::isInstance)
                        .map(Evidence.Heard.class::cast)
                        .findFirst();
        if (heard.isEmpty()) {
            checks.add(
                    listening(
                            "network",
                            "Sweep all modules",
                            SWEEP_MINUTES,
                            "",
                            "Who answers, and who misses whom, says whether a wire is broken and where."));
        } else if (heard.get().call().calls().values().stream()
                .allMatch(t -> t.asked() <= CALLS_OF_A_SWEEP)) {
            checks.add(
                    listening(
                            ROLL_CALL,
                            "Call the roll",
                            ROLL_CALL_MINUTES,
                            "roll-call",
                            "A sweep asks each module once or twice; asked again and again, the flickering ones show between which two points the wire is bad."));
        }
        return checks;
    }

    private static Check listening(String id, String name, double minutes, String at, String why) {
        return new Check(
                id, name, HEARD, "sweep", List.of(), "", List.of(), "nothing", minutes, why, at);
    }

    /** The key that evidence from this check will bear. */
    public String keyOf(Check check) {
        return switch (check.kind()) {
            case "run" -> new Evidence.Run(check.of().get(0), check.of(), 0, 0, 0, true).key();
            case "finding" -> new Evidence.Outcome(check.of().get(0), "").key();
            case HEARD -> new Evidence.Heard(NO_CALL, Set.of(), true).key();
            default ->
                    new Evidence.Reading(
                                    check.circuit(),
                                    check.of().get(0),
                                    check.load(),
                                    check.moving(),
                                    0,
                                    0,
                                    true)
                            .key();
        };
    }

    private double[] priors() {
        return hypotheses.stream().mapToDouble(Hypothesis::prior).toArray();
    }

    /** Sums over the hypotheses of each suspect, in the order of {@link #suspects}. */
    private double[] bySuspect(double[] of) {
        double[] sums = new double[suspects.size()];
        for (int i = 0; i < of.length; i++) {
            sums[suspectOf[i]] += of[i];
        }
        return sums;
    }

    private static List<Integer> newest(List<Evidence> evidence) {
        Map<String, Integer> last = new LinkedHashMap<>();
        for (int i = 0; i < evidence.size(); i++) {
            last.put(evidence.get(i).key(), i);
        }
        return last.values().stream().sorted().toList();
    }

    private static double[] normalised(double[] weights, double[] likelihood) {
        double[] product = new double[weights.length];
        double sum = 0;
        for (int i = 0; i < weights.length; i++) {
            product[i] = weights[i] * likelihood[i];
            sum += product[i];
        }
        if (!(sum > 0)) {
            // evidence that nothing explains leaves the ranking as it was rather than undefined
            return weights;
        }
        for (int i = 0; i < product.length; i++) {
            product[i] /= sum;
        }
        return product;
    }

    private double[] likelihoods(Evidence piece) {
        double[] likelihood = new double[hypotheses.size()];
        if (piece instanceof Evidence.Heard heard) {
            return heard(heard, likelihood);
        }
        for (int i = 0; i < likelihood.length; i++) {
            likelihood[i] = likelihood(hypotheses.get(i), piece);
        }
        return likelihood;
    }

    /** Relative to the best, as hundreds of answers together are too unlikely for a number. */
    private double[] heard(Evidence.Heard heard, double[] likelihood) {
        NetworkReasoner.Hearing hearing = network.new Hearing(heard.call(), heard.fitted());
        double other = Math.max(hearing.sound() + Math.log(UNKNOWN_HEALTHY), hearing.anything());
        Map<String, double[]> under = new HashMap<>();
        double top = Math.max(hearing.sound(), other);
        for (int i = 0; i < likelihood.length; i++) {
            Hypothesis h = hypotheses.get(i);
            String element = elements.getOrDefault(h.suspectId(), "");
            likelihood[i] =
                    h.suspectId().equals(SOMETHING_ELSE)
                            ? other
                            : element.isEmpty()
                                    ? hearing.sound()
                                    : under.computeIfAbsent(element, hearing::under)[h.severity()];
            top = Math.max(top, likelihood[i]);
        }
        for (int i = 0; i < likelihood.length; i++) {
            likelihood[i] = Math.max(FAINTEST, Math.exp(likelihood[i] - top));
        }
        return likelihood;
    }

    private double likelihood(Hypothesis h, Evidence piece) {
        if (piece instanceof Evidence.SymptomTold told) {
            // people also complain of vehicles that turn out to be well
            return h.suspectId().equals(NOTHING)
                    ? UNKNOWN_SYMPTOM
                    : chance(
                            h,
                            s -> s.symptoms().get(told.symptomId()),
                            UNKNOWN_SYMPTOM,
                            STRAY_SYMPTOM);
        }
        if (piece instanceof Evidence.CodeSeen code) {
            double p = chance(h, s -> codeUnder(s, code.code()), UNKNOWN_SYMPTOM, LEAK);
            return code.present() ? p : 1 - p;
        }
        if (piece instanceof Evidence.Outcome outcome) {
            return odds(h, outcome.findingId(), outcome.outcomeId());
        }
        if (piece instanceof Evidence.Judged judged) {
            return judged(h, judged);
        }
        if (piece instanceof Evidence.Run run) {
            if (!predictions.knows(run.actuatorId())) {
                // no circuit sheet says how fast any fault would let it move
                return 1;
            }
            double seconds = run.moveSeconds() < 0 ? Predictions.NEVER_SECONDS : run.moveSeconds();
            Normal normal =
                    predictions.run(run.actuatorId(), run.together(), run.supplyVolts(), h.fault());
            return density(
                    h,
                    normal.blurred(run.deviation()),
                    Math.min(seconds, Predictions.NEVER_SECONDS));
        }
        if (piece instanceof Evidence.Reading reading) {
            return density(h, prediction(h, reading), reading.volts());
        }
        if (piece instanceof Evidence.RepairFailed failed) {
            return failed.suspectId().equals(h.suspectId()) ? REPAIR_BOTCHED : 1;
        }
        Evidence.RuledOut out = (Evidence.RuledOut) piece;
        return out.suspectId().equals(h.suspectId()) ? 1e-3 : 1;
    }

    private Normal prediction(Hypothesis h, Evidence.Reading r) {
        return predictions.reading(
                r.circuitId(), r.pointId(), r.load(), r.moving(), r.supplyVolts(), h.fault());
    }

    private double chance(
            Hypothesis h,
            java.util.function.Function<Suspect, Double> of,
            double unknownCause,
            double otherwise) {
        if (h.suspectId().equals(SOMETHING_ELSE)) {
            return unknownCause;
        }
        Double told = description.suspect(h.suspectId()).map(of).orElse(null);
        return Math.min(1 - LEAK, Math.max(LEAK, told == null ? otherwise : told));
    }

    /**
     * As sure as the study is, where a hypothesis foretells its outcome, and as unsure elsewhere.
     */
    private double judged(Hypothesis h, Evidence.Judged judged) {
        Finding finding = description.finding(judged.findingId()).orElseThrow();
        Map<String, Double> told =
                description
                        .suspect(h.suspectId())
                        .map(s -> s.tells().get(judged.findingId()))
                        .orElse(null);
        double p =
                told == null
                        ? finding.outcome(judged.outcomeId()).healthy()
                        : told.getOrDefault(judged.outcomeId(), 0.0);
        return p >= 0.5 ? judged.sure() : Math.max(1e-6, 1 - judged.sure());
    }

    /**
     * Probability of a code under a suspect: as described, or because a code that the suspect sets
     * brings it along; nothing when neither.
     */
    private Double codeUnder(Suspect suspect, String code) {
        Double told = suspect.codes().get(code);
        if (told != null) {
            return told;
        }
        return description.codes().stream()
                .filter(c -> c.brings().contains(code) && suspect.codes().containsKey(c.code()))
                .map(c -> BROUGHT * suspect.codes().get(c.code()))
                .max(Comparator.naturalOrder())
                .orElse(null);
    }

    private double odds(Hypothesis h, String findingId, String outcomeId) {
        Finding finding = description.finding(findingId).orElseThrow();
        double healthy = finding.outcome(outcomeId).healthy();
        double even = 1.0 / finding.outcomes().size();
        if (h.suspectId().equals(SOMETHING_ELSE)) {
            return UNKNOWN_HEALTHY * healthy + (1 - UNKNOWN_HEALTHY) * even;
        }
        Map<String, Double> told =
                description.suspect(h.suspectId()).map(s -> s.tells().get(findingId)).orElse(null);
        double p =
                told != null
                        ? told.getOrDefault(outcomeId, 0.0)
                        : finding.element().isEmpty()
                                        || !finding.element()
                                                .equals(elements.getOrDefault(h.suspectId(), ""))
                                ? healthy
                                : ofElement(finding, healthy);
        return (1 - BLUNDER) * p + BLUNDER * even;
    }

    /** What a finding shows while the element of which it tells is at fault. */
    private static double ofElement(Finding finding, double healthy) {
        boolean fails = healthy < 0.5;
        long alike = finding.outcomes().stream().filter(o -> o.healthy() < 0.5 == fails).count();
        return (fails ? ELEMENT_SHOWS : 1 - ELEMENT_SHOWS) / alike;
    }

    /**
     * Density of a figure: mostly the computed normal, a little of anything; an unknown cause
     * allows much more of anything.
     */
    private static double density(Hypothesis h, Normal normal, double x) {
        double z = (x - normal.mean()) / normal.deviation();
        double bell =
                FastMath.exp(-0.5 * z * z) / (normal.deviation() * FastMath.sqrt(2 * Math.PI));
        double anything = blunder(h);
        return (1 - anything) * bell + anything / normal.top();
    }

    private static double blunder(Hypothesis h) {
        return h.suspectId().equals(SOMETHING_ELSE) ? 1 - UNKNOWN_HEALTHY : BLUNDER;
    }

    private Ranking ranking(double[] weights, Map<String, List<Push>> pushes) {
        List<Standing> standings = new ArrayList<>();
        double[] sure = bySuspect(weights);
        for (int k = 0; k < suspects.size(); k++) {
            String id = suspects.get(k);
            standings.add(
                    new Standing(
                            id,
                            nameOf(id),
                            sure[k],
                            pushes.getOrDefault(id, List.of()),
                            elements.containsKey(id) ? "" : severity(id, weights)));
        }
        standings.sort(Comparator.comparingDouble(Standing::sureness).reversed());
        return new Ranking(List.copyOf(standings), sentence(standings));
    }

    public String nameOf(String suspectId) {
        return switch (suspectId) {
            case SOMETHING_ELSE -> "Something not on this list";
            case NOTHING -> "Nothing broken at present";
            default -> description.suspect(suspectId).map(Suspect::name).orElse(suspectId);
        };
    }

    /**
     * What is known, in a sentence, while nothing was found that speaks for or against any cause.
     *
     * @param told whether the complaint is coded
     */
    public static String nothingFound(boolean told) {
        return told
                ? "Nothing was checked yet."
                : "Nothing is known of this complaint yet: it is not coded, and nothing was checked.";
    }

    private static String sentence(List<Standing> standings) {
        Standing lead = standings.get(0);
        String sure = Words.percent(lead.sureness());
        if (lead.suspectId().equals(NOTHING)) {
            return lead.sureness() >= POINTED_AT
                    ? "Nothing is accused: what was checked is as it should be (" + sure + ")."
                    : "Not known yet; nothing checked so far is wrong.";
        }
        if (lead.suspectId().equals(SOMETHING_ELSE)) {
            if (lead.sureness() <= POINTED_AT) {
                return "Not known yet; it may well be something not on this list.";
            }
            return "No described cause explains what was found; something else is likely ("
                    + sure
                    + ").";
        }
        if (lead.sureness() >= ACCUSED) {
            return lead.name() + " is the cause (" + sure + " sure).";
        }
        if (lead.sureness() >= POINTED_AT) {
            return "Things point to: " + lead.name() + " (" + sure + "), not yet proven.";
        }
        return "Not known yet. " + lead.name() + " leads with " + sure + ".";
    }

    private String severity(String id, double[] weights) {
        double log = 0;
        double weight = 0;
        String unit = "";
        for (int i = 0; i < weights.length; i++) {
            Hypothesis h = hypotheses.get(i);
            if (h.suspectId().equals(id) && h.fault().isPresent()) {
                log += weights[i] * Math.log(h.fault().get().size());
                weight += weights[i];
                unit = h.fault().get().kind().equals("series") ? "Ω" : "times the load";
            }
        }
        return weight <= 0
                ? ""
                : String.format(Locale.ROOT, "about %.2g %s", Math.exp(log / weight), unit);
    }

    private String expected(Evidence piece, String suspect, double[] weights) {
        if (piece instanceof Evidence.Run run && predictions.knows(run.actuatorId())) {
            return band(
                    weights,
                    suspect,
                    "s",
                    h ->
                            predictions.run(
                                    run.actuatorId(),
                                    run.together(),
                                    run.supplyVolts(),
                                    h.fault()));
        }
        if (piece instanceof Evidence.Reading reading) {
            return band(weights, suspect, "V", h -> prediction(h, reading));
        }
        return "";
    }

    private String band(
            double[] weights,
            String suspect,
            String unit,
            java.util.function.Function<Hypothesis, Normal> predict) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double most = 0;
        for (int i = 0; i < weights.length; i++) {
            if (hypotheses.get(i).suspectId().equals(suspect)) {
                most = Math.max(most, weights[i]);
            }
        }
        for (int i = 0; i < weights.length; i++) {
            // severities that the evidence has all but excluded would only widen the band
            if (hypotheses.get(i).suspectId().equals(suspect) && weights[i] >= 0.1 * most) {
                double mean = predict.apply(hypotheses.get(i)).mean();
                low = Math.min(low, mean);
                high = Math.max(high, mean);
            }
        }
        return high - low < 0.02
                ? String.format(Locale.ROOT, "%.2f %s", high, unit)
                : String.format(Locale.ROOT, "%.2f to %.2f %s", low, high, unit);
    }

    /** Mutual information between suspect and outcome of a check, in bits (Shannon 1948). */
    private double information(Check check, double[] weights, double supplyVolts) {
        List<double[]> outcomes =
                switch (check.kind()) {
                    case "finding" -> findingOutcomes(check);
                    case HEARD -> heardOutcomes();
                    default -> figureOutcomes(check, weights, supplyVolts);
                };
        double[] prior = bySuspect(weights);
        double[] joint = new double[weights.length];
        double bits = 0;
        for (double[] chance : outcomes) {
            for (int i = 0; i < joint.length; i++) {
                joint[i] = weights[i] * chance[i];
            }
            double[] each = bySuspect(joint);
            double p = Arrays.stream(each).sum();
            if (p < 1e-12) {
                continue;
            }
            for (int k = 0; k < each.length; k++) {
                double given = each[k] / p;
                if (given > 1e-12) {
                    bits += each[k] * Math.log(given / prior[k]) / Math.log(2);
                }
            }
        }
        return Math.max(0, bits);
    }

    /** A sweep names the element at fault, or clears the network; where it errs, any of them. */
    private List<double[]> heardOutcomes() {
        List<String> named = List.copyOf(elements.keySet());
        List<double[]> outcomes = new ArrayList<>();
        double stray = HEARD_WRONG / (named.size() + 1);
        for (int o = 0; o <= named.size(); o++) {
            double[] chance = new double[hypotheses.size()];
            for (int i = 0; i < chance.length; i++) {
                String suspect = hypotheses.get(i).suspectId();
                boolean right =
                        o < named.size()
                                ? named.get(o).equals(suspect)
                                : !elements.containsKey(suspect);
                chance[i] = stray + (right ? 1 - HEARD_WRONG : 0);
            }
            outcomes.add(chance);
        }
        return outcomes;
    }

    private List<double[]> findingOutcomes(Check check) {
        String findingId = check.of().get(0);
        return description.finding(findingId).orElseThrow().outcomes().stream()
                .map(
                        o ->
                                hypotheses.stream()
                                        .mapToDouble(h -> odds(h, findingId, o.id()))
                                        .toArray())
                .toList();
    }

    private Normal figure(Check check, Hypothesis h, double supplyVolts) {
        return check.kind().equals("run")
                ? predictions.run(check.of().get(0), check.of(), supplyVolts, h.fault())
                : predictions.reading(
                        check.circuit(),
                        check.of().get(0),
                        check.load(),
                        check.moving(),
                        supplyVolts,
                        h.fault());
    }

    /**
     * Cuts the scale where the hypotheses differ, and gives each hypothesis its chance to land
     * between two cuts.
     */
    private List<double[]> figureOutcomes(Check check, double[] weights, double supplyVolts) {
        List<Normal> normals = hypotheses.stream().map(h -> figure(check, h, supplyVolts)).toList();
        java.util.TreeSet<Double> cuts = new java.util.TreeSet<>();
        for (int i = 0; i < normals.size(); i++) {
            Normal n = normals.get(i);
            if (weights[i] > 1e-4) {
                for (double step = -2; step <= 2; step++) {
                    cuts.add(Math.round((n.mean() + step * n.deviation()) * 1000) / 1000.0);
                }
            }
        }
        List<double[]> outcomes = new ArrayList<>();
        double[] below = new double[normals.size()];
        List<Double> edges = new ArrayList<>(cuts);
        edges.add(Double.POSITIVE_INFINITY);
        // many hypotheses expect the same, and the error function is what costs
        Map<Normal, Double> seen = new HashMap<>();
        for (double edge : edges) {
            double[] chance = new double[normals.size()];
            seen.clear();
            for (int i = 0; i < chance.length; i++) {
                Hypothesis h = hypotheses.get(i);
                Normal n = normals.get(i);
                double cumulated =
                        h.suspectId().equals(SOMETHING_ELSE)
                                ? cumulated(h, n, edge)
                                : seen.computeIfAbsent(n, x -> cumulated(h, x, edge));
                chance[i] = Math.max(0, cumulated - below[i]);
                below[i] = cumulated;
            }
            outcomes.add(chance);
        }
        return outcomes;
    }

    private static double cumulated(Hypothesis h, Normal n, double x) {
        if (Double.isInfinite(x)) {
            return 1;
        }
        double bell = 0.5 * (1 + Erf.erf((x - n.mean()) / (n.deviation() * FastMath.sqrt(2))));
        double flat = Math.max(0, Math.min(1, x / n.top()));
        return (1 - blunder(h)) * bell + blunder(h) * flat;
    }

    private List<String> expectations(Check check, double[] weights, double supplyVolts) {
        List<String> texts = new ArrayList<>();
        double[] sure = bySuspect(weights);
        List<String> bySureness =
                IntStream.range(0, sure.length)
                        .boxed()
                        .sorted(Comparator.comparingDouble((Integer k) -> -sure[k]))
                        .map(suspects::get)
                        .filter(id -> !id.equals(NOTHING) && !id.equals(SOMETHING_ELSE))
                        .toList();
        if (check.kind().equals("finding")) {
            for (String id :
                    bySureness.subList(0, Math.min(SHOWN_EXPECTATIONS, bySureness.size()))) {
                Hypothesis h =
                        hypotheses.stream()
                                .filter(x -> x.suspectId().equals(id))
                                .findFirst()
                                .orElseThrow();
                Finding finding = description.finding(check.of().get(0)).orElseThrow();
                finding.outcomes().stream()
                        .max(Comparator.comparingDouble(o -> odds(h, finding.id(), o.id())))
                        .ifPresent(o -> texts.add(nameOf(id) + ": " + o.name()));
            }
            return texts;
        }
        if (check.kind().equals(HEARD)) {
            return List.of("A sound network: every fitted module answers, none misses another");
        }
        String unit = check.kind().equals("run") ? "s" : "V";
        String healthy = band(weights, NOTHING, unit, h -> figure(check, h, supplyVolts));
        texts.add("Healthy: " + healthy);
        // those it would show come first: a list of likes tells nobody why to do the check
        Map<String, String> bands = new LinkedHashMap<>();
        bySureness.forEach(
                id -> bands.put(id, band(weights, id, unit, h -> figure(check, h, supplyVolts))));
        bands.entrySet().stream()
                .filter(e -> !e.getValue().equals(healthy))
                .limit(SHOWN_EXPECTATIONS)
                .forEach(e -> texts.add(nameOf(e.getKey()) + ": " + e.getValue()));
        if (bySureness.stream()
                .limit(SHOWN_EXPECTATIONS)
                .anyMatch(id -> bands.get(id).equals(healthy))) {
            texts.add("The others: as when healthy");
        }
        return texts;
    }
}
