package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.network.ControlModule;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** Which modules fall silent while something is broken in the circuits that feed them. */
final class FedModules {
    /**
     * What feeds a module fails less often than what is switched and lit, and beside a complaint
     * that does not speak of the network as rarely as its wires: of silent modules some two in
     * three lack supply or earth, and one is dead.
     */
    private static final double RARE = 0.002;

    /** What comes and goes has no dead module beside it. */
    private static final double RARELY_LOOSE = 0.01;

    /** Drivers who tell of nothing that is dead are rare, but there are some. */
    private static final double LEAST_UNTOLD = 0.002;

    /** A complaint of the network is told of this share of such faults. */
    private static final double TELLS = 0.5;

    private final VehicleDescription description;
    private final List<Circuit> circuits;
    private final Map<String, GaugeState> states = new HashMap<>();

    FedModules(VehicleDescription description) {
        this.description = description;
        this.circuits =
                description.circuits().stream()
                        .filter(c -> c.gauges().stream().anyMatch(Gauge::feedsModule))
                        .toList();
    }

    /** Suspects as often as they are the culprit, and with what a driver tells of silence. */
    List<Suspect> weighted(List<Suspect> suspects) {
        Map<String, Double> told =
                description.symptoms().stream()
                        .filter(s -> s.families().contains("network"))
                        .collect(Collectors.toMap(Symptom::id, s -> TELLS));
        Set<String> its = description.wiring().feedingOnlyModules();
        return suspects.stream()
                .map(
                        s ->
                                s.effect().flatMap(Effect::part).filter(its::contains).isPresent()
                                        ? weighted(s, told)
                                        : s)
                .toList();
    }

    /**
     * A cable that feeds lamps and motors too is no likely cause of silence where nobody tells of
     * those: as if each were told by itself, but never less than some.
     *
     * @param told ids of symptoms
     * @param shared ids of the parts that feed modules and something else
     */
    static Suspect untold(Suspect s, Set<String> told, Set<String> shared) {
        boolean feeds = s.effect().flatMap(Effect::part).filter(shared::contains).isPresent();
        if (!feeds || s.symptoms().keySet().stream().anyMatch(told::contains)) {
            return s;
        }
        double untold =
                s.symptoms().values().stream().mapToDouble(p -> 1 - p).reduce(1, (a, b) -> a * b);
        return s.timesAsCommon(Math.max(LEAST_UNTOLD, untold));
    }

    private static Suspect weighted(Suspect s, Map<String, Double> told) {
        Map<String, Double> symptoms = new LinkedHashMap<>(told);
        symptoms.putAll(s.symptoms());
        boolean loose = s.effect().filter(Effect.Loose.class::isInstance).isPresent();
        return s.showing(s.codes(), symptoms, s.tells()).timesAsCommon(loose ? RARELY_LOOSE : RARE);
    }

    /**
     * The modules that are silent under each size of a suspect, and those below them that are
     * reached through these; empty for a suspect that stands in no circuit of modules.
     */
    List<Set<String>> silent(Suspect suspect) {
        Effect effect = suspect.effect().orElse(null);
        if (effect == null || effect.part().filter(this::feeds).isEmpty()) {
            return List.of();
        }
        List<Fault> sizes =
                effect instanceof Effect.Loose loose
                        ? List.of(new Fault.Series(loose.of(), Fault.Series.OPEN_OHM))
                        : FaultSizes.of(effect);
        List<Set<String>> all = new ArrayList<>();
        for (int i = 0; i < sizes.size(); i++) {
            boolean again = i > 0 && sizes.get(i).equals(sizes.get(i - 1));
            all.add(again ? all.get(i - 1) : silent(sizes.get(i)));
        }
        return all;
    }

    private boolean feeds(String part) {
        return circuits.stream().anyMatch(c -> c.component(part).isPresent());
    }

    private Set<String> silent(Fault fault) {
        Set<String> silent = new TreeSet<>();
        for (Circuit c : circuits) {
            if (c.component(fault.part()).isEmpty()) {
                continue;
            }
            GaugeState state =
                    states.computeIfAbsent(
                            c.id(), id -> new GaugeState(c, GaugeState.TYPICAL_VOLTS));
            for (Gauge g : c.gauges()) {
                if (g.feedsModule() && g.isSilent(state.share(g, Optional.of(fault)))) {
                    silent.add(g.module());
                }
            }
        }
        description.modules().stream()
                .filter(m -> silent.contains(m.under()))
                .map(ControlModule::id)
                .forEach(silent::add);
        return silent;
    }
}
