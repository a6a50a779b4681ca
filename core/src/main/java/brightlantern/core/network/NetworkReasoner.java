package brightlantern.core.network;

import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.network.NetworkModel.Kind;
import brightlantern.core.network.RollCall.Miss;
import brightlantern.core.network.RollCall.Tally;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.hipparchus.special.Gamma;

/**
 * From answers, silence and complaints to the broken element, by Bayes' rule over elements and over
 * how bad each is now and was before. Answers count as beta-binomial (a flickering wire is not the
 * same from minute to minute), complaints as yes or no for each pair that could complain.
 */
public final class NetworkReasoner {
    public static final String NOTHING = "network-whole";
    public static final String SOMETHING_ELSE = "network-else";

    /** Four sweeps in ten find nothing wrong on the wire. */
    private static final double PRIOR_NOTHING = 0.4;

    private static final double PRIOR_SOMETHING_ELSE = 0.03;

    /** Even a sound module misses a call now and then while it is busy. */
    private static final double SOUND = 0.998;

    private static final double NEVER = 0.002;

    /** Beta-binomial concentration at a rate of one half: how steady a flickering wire is. */
    private static final double STEADY = 6;

    /** Probability that a complaint is stored without any fault on the wire. */
    private static final double STRAY = 0.008;

    /** How bad an element is now (share let through), and how bad it was when codes were set. */
    private static final double[][] SEVERITIES = {
        {0, 0},
        {0.12, 0},
        {0.3, 0.3},
        {0.5, 0.3},
        {0.7, 0.3},
        {0.85, 0.5},
        {0.95, 0.5},
        {1, 0},
        {1, 0.5}
    };

    /** Reasons are worth telling for the first of a ranking only. */
    private static final int EXPLAINED = 12;

    private final NetworkModel model;
    private final Map<String, String> names;
    private final List<Pair> pairs = new ArrayList<>();
    private final Map<String, Reach> reach = new HashMap<>();

    /** A listener and one that it watches. */
    private record Pair(String listener, String other) {}

    /** What an element can change at all; everything else sounds as on a sound network. */
    private record Reach(Set<String> modules, List<Pair> pairs) {}

    /** Made once for a network; may be asked by several threads. */
    public NetworkReasoner(Network network) {
        this.model = new NetworkModel(network);
        this.names = model.names();
        for (ControlModule listener : network.modules()) {
            listener.watches().forEach(other -> pairs.add(new Pair(listener.id(), other)));
        }
        for (Element element : model.elements()) {
            Set<String> touched = new HashSet<>(element.modules());
            if (!element.bus().isEmpty() && element.kind() != Kind.MODULE) {
                network.modules().stream()
                        .map(ControlModule::id)
                        .filter(m -> model.bus(m).equals(element.bus()))
                        .forEach(touched::add);
            }
            reach.put(
                    element.id(),
                    new Reach(
                            touched,
                            pairs.stream()
                                    .filter(
                                            p ->
                                                    touched.contains(p.listener())
                                                            || touched.contains(p.other()))
                                    .toList()));
        }
    }

    /**
     * @param element empty for "nothing wrong" and "something else"
     * @param sureness 0..1
     * @param quality best estimate of what it lets through now, 0..1
     */
    public record Standing(
            String id,
            String name,
            Optional<Element> element,
            double sureness,
            double quality,
            List<String> reasons) {}

    /**
     * @param sentence what is known, in a sentence
     */
    public record Ranking(List<Standing> standings, String sentence) {
        /** The surest. */
        public Standing lead() {
            return standings.get(0);
        }
    }

    /** The elements that it ranks. */
    public NetworkModel model() {
        return model;
    }

    /**
     * Ranks all elements.
     *
     * @param fitted ids of the modules that this vehicle really has
     */
    public Ranking rank(RollCall heard, Set<String> fitted) {
        List<Element> elements =
                model.elements().stream()
                        .filter(e -> e.modules().stream().anyMatch(fitted::contains))
                        .toList();
        double commons = elements.stream().mapToDouble(Element::common).sum();
        List<double[]> logs = new ArrayList<>();
        Hearing hearing = new Hearing(heard, fitted);
        for (Element element : elements) {
            double prior =
                    Math.log(
                            (1 - PRIOR_NOTHING - PRIOR_SOMETHING_ELSE)
                                    * element.common()
                                    / commons
                                    / SEVERITIES.length);
            double[] each = hearing.under(element);
            for (int i = 0; i < each.length; i++) {
                each[i] += prior;
            }
            logs.add(each);
        }
        double nothing = Math.log(PRIOR_NOTHING) + hearing.sound();
        double other = Math.log(PRIOR_SOMETHING_ELSE) + hearing.anything();
        double top = Math.max(nothing, other);
        for (double[] each : logs) {
            for (double l : each) {
                top = Math.max(top, l);
            }
        }
        double sum = Math.exp(nothing - top) + Math.exp(other - top);
        for (double[] each : logs) {
            for (double l : each) {
                sum += Math.exp(l - top);
            }
        }
        List<Standing> standings = new ArrayList<>();
        for (int i = 0; i < elements.size(); i++) {
            double sure = 0;
            double quality = 0;
            for (int s = 0; s < SEVERITIES.length; s++) {
                double weight = Math.exp(logs.get(i)[s] - top) / sum;
                sure += weight;
                quality += weight * SEVERITIES[s][0];
            }
            Element e = elements.get(i);
            double q = sure > 0 ? quality / sure : 1;
            standings.add(new Standing(e.id(), e.name(), Optional.of(e), sure, q, List.of()));
        }
        standings.add(
                new Standing(
                        NOTHING,
                        "Nothing wrong on the wire",
                        Optional.empty(),
                        Math.exp(nothing - top) / sum,
                        1,
                        List.of()));
        standings.add(
                new Standing(
                        SOMETHING_ELSE,
                        "Something else, or two faults at once",
                        Optional.empty(),
                        Math.exp(other - top) / sum,
                        1,
                        List.of()));
        standings.sort(Comparator.comparingDouble(Standing::sureness).reversed());
        for (int i = 0; i < Math.min(EXPLAINED, standings.size()); i++) {
            Standing bare = standings.get(i);
            if (bare.element().isPresent()) {
                standings.set(
                        i,
                        new Standing(
                                bare.id(),
                                bare.name(),
                                bare.element(),
                                bare.sureness(),
                                bare.quality(),
                                reasons(bare.element().get(), heard, fitted)));
            }
        }
        return new Ranking(List.copyOf(standings), sentence(standings));
    }

    /** How many severities are told apart for each element. */
    public static int severities() {
        return SEVERITIES.length;
    }

    /**
     * What was heard, made ready to be held against one element after another. All results are
     * natural logarithms of probabilities.
     */
    public final class Hearing {
        private final RollCall heard;
        private final Set<String> fitted;
        private final Map<Object, Double> rates = new HashMap<>();
        private final double sound;

        /** What was heard of the modules that this vehicle really has. */
        public Hearing(RollCall heard, Set<String> fitted) {
            this.heard = heard;
            this.fitted = fitted;
            double log = 0;
            for (Map.Entry<String, Tally> call : heard.calls().entrySet()) {
                if (fitted.contains(call.getKey())) {
                    log += rate(call.getValue(), 1);
                }
            }
            for (Pair pair : pairs) {
                if (counts(pair)) {
                    log += complains(pair, STRAY);
                }
            }
            sound = log;
        }

        private boolean counts(Pair pair) {
            return heard.read().contains(pair.listener())
                    && fitted.contains(pair.listener())
                    && fitted.contains(pair.other());
        }

        private double complains(Pair pair, double probability) {
            return Math.log(
                    heard.misses().contains(new Miss(pair.listener(), pair.other()))
                            ? probability
                            : 1 - probability);
        }

        private record RateKey(Tally tally, double link) {}

        private double rate(Tally tally, double link) {
            return rates.computeIfAbsent(new RateKey(tally, link), k -> logRate(tally, link));
        }

        /** Were the network sound. */
        public double sound() {
            return sound;
        }

        /** Under an unknown cause: most modules sound, some at any rate; complaints as may be. */
        public double anything() {
            double log = 0;
            for (Map.Entry<String, Tally> call : heard.calls().entrySet()) {
                if (fitted.contains(call.getKey())) {
                    log +=
                            Math.log(
                                    0.7 * Math.exp(rate(call.getValue(), 1))
                                            + 0.3 / (call.getValue().asked() + 1));
                }
            }
            for (Pair pair : pairs) {
                if (counts(pair)) {
                    log += complains(pair, 0.3);
                }
            }
            return log;
        }

        /**
         * Under each severity of an element; {@link #sound()} for one that is not on this network.
         */
        public double[] under(String elementId) {
            return model.elements().stream()
                    .filter(e -> e.id().equals(elementId))
                    .findFirst()
                    .map(this::under)
                    .orElseThrow(() -> new IllegalArgumentException("No element " + elementId));
        }

        double[] under(Element element) {
            Reach its = reach.get(element.id());
            double[] logs = new double[SEVERITIES.length];
            Arrays.fill(logs, sound);
            boolean feeds = element.kind() == Kind.MODULE || element.kind() == Kind.FEED;
            for (int s = 0; s < logs.length; s++) {
                for (String module : its.modules()) {
                    Tally tally = heard.calls().get(module);
                    if (tally != null && fitted.contains(module)) {
                        double link =
                                model.link(element, SEVERITIES[s][0], Network.GATEWAY, module);
                        logs[s] += rate(tally, link) - rate(tally, 1);
                    }
                }
                for (Pair pair : its.pairs()) {
                    // who has no supply, or is dead itself, writes nothing down
                    if (counts(pair) && !(feeds && element.modules().contains(pair.listener()))) {
                        double link =
                                model.link(
                                        element, SEVERITIES[s][1], pair.other(), pair.listener());
                        logs[s] += complains(pair, complaint(link)) - complains(pair, STRAY);
                    }
                }
            }
            return logs;
        }
    }

    /** Probability that a listener has stored a complaint after a link of this quality. */
    private static double complaint(double link) {
        if (link >= 0.97) {
            return STRAY;
        }
        // below one half a monitor of a second or so is sure to run out; above, only at times
        return Math.max(STRAY, Math.min(0.9, 1.6 * (1 - link)));
    }

    /** Beta-binomial, its spread largest at one half; a link of 1 is a sound module. */
    private static double logRate(Tally tally, double link) {
        if (tally.asked() == 0) {
            return 0;
        }
        double rate = Math.max(NEVER, Math.min(SOUND, link * SOUND));
        double steady = STEADY / (4 * rate * (1 - rate));
        double alpha = rate * steady;
        double beta = (1 - rate) * steady;
        int n = tally.asked();
        int k = tally.answered();
        return Gamma.logGamma(n + 1)
                - Gamma.logGamma(k + 1)
                - Gamma.logGamma(n - k + 1)
                + logBeta(k + alpha, n - k + beta)
                - logBeta(alpha, beta);
    }

    private static double logBeta(double a, double b) {
        return Gamma.logGamma(a) + Gamma.logGamma(b) - Gamma.logGamma(a + b);
    }

    private List<String> reasons(Element element, RollCall heard, Set<String> fitted) {
        List<String> reasons = new ArrayList<>();
        List<String> hit = element.modules().stream().filter(fitted::contains).sorted().toList();
        List<String> quiet = new ArrayList<>();
        List<String> well = new ArrayList<>();
        for (String module : hit) {
            Tally tally = heard.calls().get(module);
            if (tally != null && tally.asked() > 0) {
                (tally.rate() < 0.97 ? quiet : well).add(names.get(module) + rate(tally));
            }
        }
        if (!quiet.isEmpty()) {
            reasons.add("Would silence " + String.join(", ", quiet) + ", as heard.");
        }
        if (!well.isEmpty() && element.kind() != Kind.TERMINATOR) {
            reasons.add("Would silence " + String.join(", ", well) + ", which answer.");
        }
        List<String> unexplained =
                heard.calls().entrySet().stream()
                        .filter(c -> fitted.contains(c.getKey()) && !hit.contains(c.getKey()))
                        .filter(c -> c.getValue().asked() > 0 && c.getValue().rate() < 0.9)
                        .map(c -> names.get(c.getKey()) + rate(c.getValue()))
                        .sorted()
                        .toList();
        if (!unexplained.isEmpty()) {
            reasons.add("Does not explain " + String.join(", ", unexplained) + ".");
        }
        long across =
                heard.misses().stream()
                        .filter(m -> model.link(element, 0, m.missing(), m.listener()) < 0.5)
                        .count();
        if (!heard.misses().isEmpty()) {
            reasons.add(
                    across
                            + " of "
                            + heard.misses().size()
                            + " complaints about missing messages cross it.");
        }
        return reasons;
    }

    private static String rate(Tally tally) {
        return String.format(Locale.ROOT, " (%.0f %%)", 100 * tally.rate());
    }

    private static String sentence(List<Standing> standings) {
        Standing lead = standings.get(0);
        String sure = Words.percent(lead.sureness());
        if (lead.id().equals(NOTHING)) {
            return "Nothing wrong on the wire (" + sure + ").";
        }
        if (lead.id().equals(SOMETHING_ELSE)) {
            return "No single fault on the wire explains this; two at once, or something else ("
                    + sure
                    + ").";
        }
        String where = lead.element().map(e -> " (" + e.place() + ")").orElse("");
        return lead.sureness() >= 0.8
                ? lead.name() + where + ": " + sure + "."
                : lead.sureness() >= 0.5
                        ? "Things point to: " + lead.name() + where + ", " + sure + "."
                        : "Not known yet. First look at: "
                                + lead.name()
                                + where
                                + ", "
                                + sure
                                + ".";
    }
}
