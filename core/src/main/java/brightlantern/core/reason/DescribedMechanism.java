package brightlantern.core.reason;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.code.Code;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/** What a description tells of its suspects: their codes, symptoms, and findings with outcomes. */
final class DescribedMechanism implements Mechanism {
    /** Probability that a code or symptom appears for no reason that the suspect gives. */
    private static final double LEAK = 0.03;

    /** A symptom that a suspect does not name may still be told beside it. */
    private static final double STRAY_SYMPTOM = 0.1;

    /** What a suspect does not show is told beside it so often, as a share of how often it is. */
    private static final double BESIDE = 0.1;

    /** The same of something in a system of which it shows something else. */
    private static final double BESIDE_NEAR = 0.5;

    /** What one thing does when it is switched on is rarely told without a cause. */
    private static final double STRAY_SIGHT = 0.03;

    /** A module that sees a figure at its pin is rarely wrong. */
    private static final double STRAY_PIN = 0.01;

    /**
     * Nobody can say what an unknown cause shows; halfway on a logarithmic scale between stray and
     * typical.
     */
    private static final double UNKNOWN_SYMPTOM = 0.3;

    /**
     * Of some sixty symptoms that are described a complaint names one or two: that it is just this
     * one is so much less likely where nothing speaks for it.
     */
    private static final double JUST_THIS = 0.4;

    /** What tells of one part alone an unknown cause leaves healthy so often. */
    private static final double UNKNOWN_SPARES = 0.93;

    /** A complaint in words alone, tried again with its cause in place, does not show so often. */
    private static final double UNCODED_GONE = 0.3;

    /** A broken element shows so often where somebody looks at it; damp ones come and go. */
    private static final double ELEMENT_SHOWS = 0.85;

    /** Of codes that another one brings along, so many are set with it. */
    private static final double BROUGHT = 0.6;

    /** However sure a study is, it may have been held to the wrong vehicle. */
    private static final double LEAST = 1e-6;

    private final VehicleDescription description;
    private final Map<String, String> elements;

    /** What comes and goes is away for so much of the time that nobody shakes it. */
    private static final double AWAY = 0.5;

    /** Codes that modules set by what they see at the pins of drawn circuits. */
    private final Set<String> circuitCodes;

    /** Code → those that bring it along. */
    private final Map<String, List<String>> bringing = new HashMap<>();

    private final CanRun engine;
    private final ShownBySize bySize;

    /** Symptom → its system. */
    private final Map<String, String> systemOf;

    /** Suspect → the systems of which it shows something. */
    private final Map<String, Set<String>> systems = new HashMap<>();

    /** Findings of which one suspect alone tells. */
    private final Set<String> ofOnePart;

    DescribedMechanism(VehicleDescription description, ShownBySize bySize) {
        this.bySize = bySize;
        Map<String, Long> tellers =
                description.suspects().stream()
                        .flatMap(s -> s.tells().keySet().stream())
                        .collect(Collectors.groupingBy(f -> f, Collectors.counting()));
        this.ofOnePart =
                tellers.entrySet().stream()
                        .filter(t -> t.getValue() == 1)
                        .map(Map.Entry::getKey)
                        .collect(Collectors.toSet());
        this.description = description;
        this.circuitCodes =
                description.wiring().codes().stream().map(Code::code).collect(Collectors.toSet());
        this.engine = CanRun.of(description.wiring());
        for (Code code : description.codes()) {
            code.brings()
                    .forEach(
                            b ->
                                    bringing.computeIfAbsent(b, k -> new ArrayList<>())
                                            .add(code.code()));
        }
        this.elements = NetworkFaults.elements(description.suspects());
        this.systemOf =
                description.symptoms().stream()
                        .collect(Collectors.toMap(Symptom::id, Symptom::system, (a, b) -> a));
        for (Suspect s : description.suspects()) {
            systems.put(
                    s.id(),
                    s.symptoms().keySet().stream()
                            .map(systemOf::get)
                            .filter(Objects::nonNull)
                            .collect(Collectors.toSet()));
        }
    }

    @Override
    public boolean weighs(Evidence piece) {
        return piece instanceof Evidence.SymptomTold
                || piece instanceof Evidence.SymptomGone
                || piece instanceof Evidence.CodeSeen
                || piece instanceof Evidence.Outcome o && !Gauge.isFinding(o.findingId())
                || piece instanceof Evidence.Judged;
    }

    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        if (piece instanceof Evidence.SymptomTold told) {
            double usual = usual(told.symptomId(), under);
            return under.each(h -> Math.log(told(h, told.symptomId(), usual)));
        }
        return under.each(h -> Math.log(likelihood(h, piece)));
    }

    /**
     * How often a symptom is told of a vehicle in which a listed cause is broken: the mean over
     * them by how common they are, so that what is rare is rarely told. 0 where none names it.
     */
    private static double usual(String symptomId, Hypotheses under) {
        double sum = 0;
        double all = 0;
        for (Hypothesis h : under.all()) {
            if (h.described().isPresent()) {
                all += h.prior();
                sum += h.prior() * h.described().get().symptoms().getOrDefault(symptomId, 0.0);
            }
        }
        return all > 0 ? sum / all : 0;
    }

    /** What is told and stored of drawn circuits, as far as it is there. */
    @Override
    public Unlisted.Shows unlisted(Evidence piece) {
        boolean shared =
                piece instanceof Evidence.SymptomTold told
                        ? told.symptomId().startsWith(CircuitSuspects.PREFIX)
                        : piece instanceof Evidence.CodeSeen code
                                && code.present()
                                && circuitCodes.contains(code.code());
        return shared ? Unlisted.Shows.THE_LIKE : Unlisted.Shows.ANYTHING;
    }

    private double likelihood(Hypothesis h, Evidence piece) {
        if (piece instanceof Evidence.SymptomGone gone) {
            return gone(h, gone.symptomId());
        }
        if (piece instanceof Evidence.CodeSeen code) {
            // of hundreds of codes an unknown cause sets one or two: that any other is missing
            // tells nothing of it
            double p =
                    h.isUnknown() && !code.present()
                            ? LEAK
                            : chance(h, s -> codeUnder(h, s, code.code()), stray(code));
            return code.present() ? p : Math.max(1 - p, away(h));
        }
        if (piece instanceof Evidence.Outcome outcome) {
            Finding finding = description.finding(outcome.findingId()).orElseThrow();
            return odds(h, finding, finding.outcome(outcome.outcomeId()));
        }
        return judged(h, (Evidence.Judged) piece);
    }

    /**
     * People complain of a vehicle that is well, or in which something unlisted is broken, of the
     * same things and as often as of any other: so the shares of both among all complaints are
     * those that are taken before anything is known.
     */
    private double told(Hypothesis h, String symptomId, double usual) {
        boolean named = h.described().map(s -> s.symptoms().containsKey(symptomId)).orElse(false);
        if (named || usual == 0) {
            return symptom(h, symptomId) * (named ? 1 : JUST_THIS);
        }
        if (h.described().isEmpty()) {
            return usual;
        }
        return usual * (isNear(h, symptomId) ? BESIDE_NEAR : BESIDE);
    }

    /** Whether a suspect shows something of the system of which a symptom is. */
    private boolean isNear(Hypothesis h, String symptomId) {
        return !symptomId.startsWith(CircuitSuspects.PREFIX)
                && systems.getOrDefault(h.suspectId(), Set.of()).contains(systemOf.get(symptomId));
    }

    /** People also complain of vehicles that turn out to be well. */
    private double symptom(Hypothesis h, String symptomId) {
        return h.isNothing()
                ? UNKNOWN_SYMPTOM
                : chance(
                        h,
                        s -> atItsSize(h, symptomId, s.symptoms().get(symptomId)),
                        symptomId.startsWith(CircuitSuspects.PREFIX) ? STRAY_SIGHT : STRAY_SYMPTOM);
    }

    private double stray(Evidence.CodeSeen code) {
        return circuitCodes.contains(code.code()) ? STRAY_PIN : LEAK;
    }

    /**
     * That it does not show when it is tried; a complaint that is not coded may be of any cause.
     */
    private double gone(Hypothesis h, String symptomId) {
        if (h.isNothing()) {
            return 1 - LEAK;
        }
        return symptomId.isEmpty() ? UNCODED_GONE : Math.max(1 - symptom(h, symptomId), away(h));
    }

    /** How often what comes and goes is away, whatever it shows when it is there. */
    private static double away(Hypothesis h) {
        return h.described()
                        .flatMap(Suspect::effect)
                        .filter(Effect.Loose.class::isInstance)
                        .isPresent()
                ? AWAY
                : 0;
    }

    private double chance(Hypothesis h, Function<Suspect, Double> of, double otherwise) {
        if (h.isUnknown()) {
            return UNKNOWN_SYMPTOM;
        }
        Double told = h.described().map(of).orElse(null);
        double least = Math.min(LEAK, otherwise);
        return Math.min(1 - LEAK, Math.max(least, told == null ? otherwise : told));
    }

    /**
     * Probability of a code under a suspect: as described, or because a code that the suspect sets
     * brings it along; nothing when neither.
     */
    private Double codeUnder(Hypothesis h, Suspect suspect, String code) {
        Double told = suspect.codes().get(code);
        if (told != null) {
            return atItsSize(h, code, told);
        }
        return bringing.getOrDefault(code, List.of()).stream()
                .filter(suspect.codes()::containsKey)
                .map(c -> BROUGHT * suspect.codes().get(c))
                .max(Comparator.naturalOrder())
                .orElse(null);
    }

    /** What is told of a suspect as a whole, at the one size of a hypothesis. */
    private Double atItsSize(Hypothesis h, String shown, Double told) {
        return told == null ? null : Double.valueOf(bySize.of(shown, h).orElse(told));
    }

    /** What a suspect tells of the outcomes of a finding; empty when it tells nothing of it. */
    private Optional<Map<String, Double>> tells(Hypothesis h, String findingId) {
        return h.described().map(s -> s.tells().get(findingId));
    }

    /**
     * As sure as the study is, where a hypothesis foretells its outcome, and as unsure elsewhere.
     */
    private double judged(Hypothesis h, Evidence.Judged judged) {
        Finding finding = description.finding(judged.findingId()).orElseThrow();
        double p =
                tells(h, judged.findingId())
                        .map(t -> t.getOrDefault(judged.outcomeId(), 0.0))
                        .orElseGet(() -> finding.outcome(judged.outcomeId()).healthy());
        return p >= 0.5 ? judged.sure() : Math.max(LEAST, 1 - judged.sure());
    }

    private double odds(Hypothesis h, Finding finding, FindingOutcome outcome) {
        double even = 1.0 / finding.outcomes().size();
        if (h.isUnknown()) {
            double spares =
                    ofOnePart.contains(finding.id()) ? UNKNOWN_SPARES : Odds.UNKNOWN_HEALTHY;
            return spares * outcome.healthy() + (1 - spares) * even;
        }
        boolean itself =
                !finding.element().isEmpty()
                        && finding.element().equals(elements.get(h.suspectId()));
        double p =
                tells(h, finding.id())
                        .map(t -> t.getOrDefault(outcome.id(), 0.0))
                        .orElseGet(
                                () ->
                                        itself
                                                ? ofElement(finding, outcome.healthy())
                                                : outcome.healthy());
        return (1 - Odds.BLUNDER) * p + Odds.BLUNDER * even;
    }

    /** What a finding shows while the element of which it tells is at fault. */
    private static double ofElement(Finding finding, double healthy) {
        boolean fails = healthy < 0.5;
        long alike = finding.outcomes().stream().filter(o -> o.healthy() < 0.5 == fails).count();
        return (fails ? ELEMENT_SHOWS : 1 - ELEMENT_SHOWS) / alike;
    }

    @Override
    public List<Check> checks(List<Evidence> known) {
        List<Check> its =
                description.checks().stream()
                        .filter(
                                c ->
                                        c instanceof Check.Look look
                                                && !Gauge.isFinding(look.finding()))
                        .toList();
        return engine.allowed(its, known);
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        return check instanceof Check.Look look && !Gauge.isFinding(look.finding())
                ? Optional.of(
                        new Looking(
                                description.finding(look.finding()).orElseThrow(), under, weights))
                : Optional.empty();
    }

    private final class Looking implements Forecast {
        private final Finding finding;
        private final Hypotheses under;
        private final double[] weights;

        Looking(Finding finding, Hypotheses under, double[] weights) {
            this.finding = finding;
            this.under = under;
            this.weights = weights;
        }

        @Override
        public Outcomes outcomes() {
            return under.bySuspect(finding.outcomes(), (h, o) -> odds(h, finding, o));
        }

        @Override
        public Unlisted.Shows unlisted() {
            return Unlisted.Shows.ANYTHING;
        }

        @Override
        public List<String> expectations() {
            List<String> texts = new ArrayList<>();
            for (String id : under.leading(weights).stream().limit(SHOWN).toList()) {
                Hypothesis h = under.get(under.of(id).findFirst().orElseThrow());
                finding.outcomes().stream()
                        .max(Comparator.comparingDouble(o -> odds(h, finding, o)))
                        .ifPresent(o -> texts.add(under.name(id) + ": " + o.name()));
            }
            return texts;
        }
    }
}
