package brightlantern.core.network;

import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.network.NetworkModel.Kind;
import brightlantern.core.network.RollCall.Miss;
import brightlantern.core.network.RollCall.Tally;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.hipparchus.special.Gamma;

/**
 * How likely what was heard of a network is under each of its elements. Answers count as
 * beta-binomial (a flickering wire is not the same from minute to minute), complaints as yes or no
 * for each pair that could complain.
 */
public final class NetworkSounds {
    /** Even a sound module misses a call now and then while it is busy. */
    private static final double SOUND = 0.998;

    private static final double NEVER = 0.002;

    /** Beta-binomial concentration at a rate of one half: how steady a flickering wire is. */
    private static final double STEADY = 6;

    /** Probability that a complaint is stored without any fault on the wire. */
    private static final double STRAY = 0.008;

    /** The severity of what lets nothing through, now and before. */
    public static final int NOTHING = 0;

    /** That of what is sound now, and let nothing through when codes were set. */
    public static final int ONLY_ONCE = 7;

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

    private final NetworkModel model;
    private final List<Pair> pairs = new ArrayList<>();
    private final Map<String, Reach> reach = new HashMap<>();

    /** A listener and one that it watches. */
    private record Pair(String listener, String other) {}

    /** What an element can change at all; everything else sounds as on a sound network. */
    private record Reach(Set<String> modules, List<Pair> pairs) {}

    /** Made once for a network; may be asked by several threads. */
    NetworkSounds(Network network) {
        this.model = new NetworkModel(network);
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

    NetworkModel model() {
        return model;
    }

    /** How many severities are told apart for each element. */
    public static int severities() {
        return SEVERITIES.length;
    }

    /** Share that an element lets through now, at one of its severities. */
    public static double quality(int severity) {
        return SEVERITIES[severity][0];
    }

    /**
     * What was heard, ready to be held against one element after another.
     *
     * @param fitted modules that this vehicle really has
     */
    public Hearing hear(RollCall heard, Set<String> fitted) {
        return new Hearing(heard, fitted);
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

        private Hearing(RollCall heard, Set<String> fitted) {
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
}
