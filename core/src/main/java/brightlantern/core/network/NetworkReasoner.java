package brightlantern.core.network;

import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.network.NetworkModel.Kind;
import brightlantern.core.network.RollCall.Tally;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * From answers, silence and complaints to the broken element, by Bayes' rule over elements and over
 * how bad each is now and was before.
 */
public final class NetworkReasoner {
    public static final String NOTHING = "network-whole";
    public static final String SOMETHING_ELSE = "network-else";

    /** Four sweeps in ten find nothing wrong on the wire. */
    private static final double PRIOR_NOTHING = 0.4;

    private static final double PRIOR_SOMETHING_ELSE = 0.03;

    /** Reasons are worth telling for the first of a ranking only. */
    private static final int EXPLAINED = 12;

    private final NetworkSounds sounds;
    private final NetworkModel model;
    private final Map<String, String> names;

    /** Made once for a network; may be asked by several threads. */
    public NetworkReasoner(Network network) {
        this.sounds = new NetworkSounds(network);
        this.model = sounds.model();
        this.names = model.names();
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

    /** What the network lets be heard under each element. */
    public NetworkSounds sounds() {
        return sounds;
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
        NetworkSounds.Hearing hearing = sounds.hear(heard, fitted);
        for (Element element : elements) {
            double prior =
                    Math.log(
                            (1 - PRIOR_NOTHING - PRIOR_SOMETHING_ELSE)
                                    * element.common()
                                    / commons
                                    / NetworkSounds.severities());
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
            for (int s = 0; s < NetworkSounds.severities(); s++) {
                double weight = Math.exp(logs.get(i)[s] - top) / sum;
                sure += weight;
                quality += weight * NetworkSounds.quality(s);
            }
            double q = sure > 0 ? quality / sure : 1;
            Element e = elements.get(i).heardNow(q);
            standings.add(new Standing(e.id(), e.heard(), Optional.of(e), sure, q, List.of()));
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
        String named = lead.element().map(Element::heardAt).orElse(lead.name());
        return lead.sureness() >= 0.8
                ? named + ": " + sure + "."
                : lead.sureness() >= 0.5
                        ? "Things point to: " + named + ", " + sure + "."
                        : "Not known yet. First look at: " + named + ", " + sure + ".";
    }
}
