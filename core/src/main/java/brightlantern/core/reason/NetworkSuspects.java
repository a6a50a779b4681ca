package brightlantern.core.reason;

import brightlantern.core.network.NetworkModel;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The elements of the network as suspects like all others; what they do is computed. */
public final class NetworkSuspects {
    /** Prefix of their ids and of their repairs. */
    public static final String PREFIX = "wire-";

    /**
     * Beside described causes of a complaint that does not speak of the network, the wire is rarely
     * at fault.
     */
    private static final double BESIDE_OTHERS = 0.02;

    /** A symptom of the network is told of this share of such faults. */
    private static final double TELLS = 0.5;

    private static final double PRICE_PER_MINUTE = 1.6;

    private NetworkSuspects() {}

    /** The description with the elements of its network as suspects, and how they are measured. */
    public static VehicleDescription added(VehicleDescription d) {
        List<Suspect> suspects = of(d);
        if (suspects.isEmpty()) {
            return d;
        }
        VehicleDescription with = d.withSuspects(suspects);
        for (BusLook look : looks(d)) {
            with = with.with(List.of(), look.findings()).withChecks(look.checks());
        }
        return with;
    }

    /** All that is found of a bus by hand. */
    private static List<BusLook> looks(VehicleDescription d) {
        return List.of(new WireOhms(d.network()), new PulledPlugs(d.network()));
    }

    /** Suspects for every element; none for a vehicle whose modules watch nobody. */
    private static List<Suspect> of(VehicleDescription d) {
        if (d.modules().stream().allMatch(m -> m.watches().isEmpty())) {
            return List.of();
        }
        double share = d.suspects().isEmpty() ? 1 : BESIDE_OTHERS;
        Map<String, Double> symptoms = new LinkedHashMap<>();
        d.symptoms().stream()
                .filter(s -> s.families().contains("network"))
                .map(Symptom::id)
                .forEach(s -> symptoms.put(s, TELLS));
        NetworkModel model = new NetworkModel(d.network());
        List<BusLook> looks = looks(d);
        // what is drawn is a suspect of its circuit
        Set<String> fed = d.wiring().feedingModules();
        return model.elements().stream()
                .filter(e -> !fed.contains(e.id()))
                .map(
                        e -> {
                            Map<String, Map<String, Double>> tells = new LinkedHashMap<>();
                            looks.forEach(l -> tells.putAll(l.tells(e)));
                            return suspect(e, share, symptoms, tells, model);
                        })
                .toList();
    }

    private static Suspect suspect(
            Element e,
            double share,
            Map<String, Double> symptoms,
            Map<String, Map<String, Double>> tells,
            NetworkModel model) {
        List<String> cut =
                e.modules().stream().sorted().map(m -> model.names().getOrDefault(m, m)).toList();
        String what = e.kind().words() + " (" + e.place() + ")";
        return new Suspect(
                PREFIX + e.id(),
                e.name(),
                e.common() * share,
                0,
                0,
                Optional.of(new Effect.OfElement(e.id())),
                Map.of(),
                symptoms,
                tells,
                List.of(
                        what,
                        "messages of " + String.join(", ", cut) + " are lost",
                        "other modules miss them and say so"),
                new Repair(
                        PREFIX + e.id(),
                        "Mend: " + e.name(),
                        e.minutes(),
                        Math.round(e.minutes() * PRICE_PER_MINUTE),
                        "as found",
                        "none to speak of",
                        false,
                        NetworkRepairs.steps(e.kind()),
                        NetworkRepairs.afterwards(e.kind()),
                        List.of()));
    }
}
