package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Need;
import brightlantern.core.circuit.Wear;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.DoubleFunction;
import java.util.stream.Stream;

/** What a fault in drawn circuits shows, in all of those that have the part, and to whom. */
final class Shows {
    /** A fault that shows is told by its driver, or seen by its module, so often. */
    static final double SHOWS = 0.92;

    /** So many sizes are tried to see how often a module finds a figure implausible. */
    private static final int TRIED = 8;

    private final Map<String, GaugeState> states = new LinkedHashMap<>();
    private final Map<String, List<Circuit>> with = new HashMap<>();

    private final List<Need> needs;

    /**
     * @param needs what the engine needs of these circuits
     */
    Shows(List<Circuit> circuits, List<Need> needs) {
        this.needs = needs;
        for (Circuit c : circuits) {
            states.put(c.id(), new GaugeState(c, GaugeState.TYPICAL_VOLTS));
            for (Component part : c.components()) {
                with.computeIfAbsent(part.id(), x -> new ArrayList<>()).add(c);
            }
        }
    }

    GaugeState state(Circuit c) {
        return states.get(c.id());
    }

    /** The circuits that have a part. */
    List<Circuit> with(String part) {
        return with.get(part);
    }

    /**
     * What follows from a fault.
     *
     * @param symptoms ids
     * @param codes and how often each is set
     * @param words what is seen, each in words
     * @param missed what the engine does not do because of it, each in words
     * @param tells finding → outcome → probability, of what the engine does not do
     */
    record Shown(
            List<String> symptoms,
            Map<String, Double> codes,
            List<String> words,
            List<String> missed,
            Map<String, Map<String, Double>> tells) {
        Shown() {
            this(
                    new ArrayList<>(),
                    new LinkedHashMap<>(),
                    new ArrayList<>(),
                    new ArrayList<>(),
                    new LinkedHashMap<>());
        }

        Shown with(Map<String, Double> more) {
            Map<String, Double> all = new LinkedHashMap<>(codes);
            more.forEach(all::putIfAbsent);
            return new Shown(symptoms, all, words, missed, tells);
        }
    }

    /** What it shows at this size. */
    Shown of(Fault fault) {
        Shown shown = new Shown();
        Optional<Fault> its = Optional.of(fault);
        Set<String> out = new HashSet<>();
        for (Circuit c : with(fault.part())) {
            for (Gauge g : state(c).wrong(its)) {
                double share = state(c).share(g, its);
                Band band = g.at(share);
                if (Need.isOut(g, share)) {
                    out.add(g.id());
                }
                if (g.isCompared() && band.code().isEmpty()) {
                    // where nothing arrives there is nothing to compare
                    continue;
                }
                shown.words().add(g.name() + " " + band.name());
                if (g.told()) {
                    shown.symptoms().add(DrawnCircuits.symptomId(g));
                }
                if (!band.code().isEmpty()) {
                    shown.codes().put(band.code(), SHOWS);
                }
            }
        }
        for (Need missed : Need.unmet(needs, out)) {
            if (!missed.symptom().isEmpty() && !shown.symptoms().contains(missed.symptom())) {
                shown.symptoms().add(missed.symptom());
            }
            shown.missed().add(missed.missed());
            missed.codes().forEach(code -> shown.codes().putIfAbsent(code, SHOWS));
            missed.tells().forEach(shown.tells()::putIfAbsent);
        }
        return shown;
    }

    /** Codes for figures that cannot be true, and how often a fault of these sizes sets them. */
    Map<String, Double> doubted(List<Fault> sizes, double share) {
        Map<String, Double> codes = new LinkedHashMap<>();
        for (Circuit c : with(sizes.get(0).part())) {
            for (Gauge g : c.gauges()) {
                for (Fault f : g.isCompared() || g.feedsModule() ? sizes : List.<Fault>of()) {
                    String code = g.at(state(c).share(g, Optional.of(f))).code();
                    if (!code.isEmpty()) {
                        codes.merge(code, SHOWS * share / sizes.size(), Double::sum);
                    }
                }
            }
        }
        return codes;
    }

    /** Evenly on a logarithmic scale. */
    static List<Fault> sizes(double from, double to, DoubleFunction<Fault> as) {
        List<Fault> sizes = new ArrayList<>();
        for (int i = 0; i < TRIED; i++) {
            sizes.add(as.apply(from * Math.pow(to / from, i / (TRIED - 1.0))));
        }
        return sizes;
    }

    /** A suspect of what shows so. */
    static Suspect suspect(
            String id,
            String name,
            Wear wear,
            Effect effect,
            Shown shown,
            Map<String, Map<String, Double>> tells,
            Repair repair) {
        Map<String, Double> symptoms = new LinkedHashMap<>();
        shown.symptoms().forEach(s -> symptoms.put(s, SHOWS));
        Map<String, Map<String, Double>> told = new LinkedHashMap<>(shown.tells());
        told.putAll(tells);
        List<String> words = shown.words();
        String chain =
                words.size() > 2
                        ? words.get(0) + ", and " + (words.size() - 1) + " more like it"
                        : String.join(", ", words);
        return new Suspect(
                CircuitSuspects.PREFIX + id,
                name,
                wear.common(),
                0,
                wear.ages(),
                Optional.of(effect),
                shown.codes(),
                symptoms,
                told,
                Stream.concat(Stream.of(name, chain), shown.missed().stream()).toList(),
                repair);
    }
}
