package brightlantern.core.reason;

import brightlantern.core.network.Feed;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.network.NetworkReasoner;
import brightlantern.core.network.NetworkSounds;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What suspects are on the network: an element of it, or something in a circuit for want of which
 * modules are silent, which is heard as if they had lost a feed.
 */
final class NetworkFaults {
    private static final double HALF = 0.5;

    private final NetworkReasoner reasoner;

    /** Suspects that are elements of the network. */
    private final Map<String, Element> own = new LinkedHashMap<>();

    /** Suspects in circuits that feed modules → the modules that are silent under each size. */
    private final Map<String, List<Set<String>>> silent = new LinkedHashMap<>();

    /** Those of them that are sound while nobody shakes them. */
    private final Set<String> loose = new LinkedHashSet<>();

    /** Modules → the element without which just these are silent. */
    private final Map<Set<String>, Element> without = new HashMap<>();

    NetworkFaults(VehicleDescription description) {
        FedModules fed = new FedModules(description);
        for (Suspect s : description.suspects()) {
            List<Set<String>> its = fed.silent(s);
            if (its.stream().anyMatch(m -> !m.isEmpty())) {
                silent.put(s.id(), its);
                if (s.effect().filter(Effect.Loose.class::isInstance).isPresent()) {
                    loose.add(s.id());
                }
            }
        }
        reasoner = new NetworkReasoner(fedBy(description.network()));
        Map<String, Element> byId = new HashMap<>();
        for (Element e : reasoner.model().elements()) {
            byId.put(e.id(), e);
            if (isWithout(e)) {
                without.putIfAbsent(e.modules(), e);
            }
        }
        elements(description.suspects()).forEach((suspect, id) -> own.put(suspect, byId.get(id)));
    }

    /** The network with a feed for all modules that something silences together. */
    private Network fedBy(Network network) {
        Set<Set<String>> known = new LinkedHashSet<>();
        new NetworkModel(network)
                .elements().stream()
                        .filter(NetworkFaults::isWithout)
                        .forEach(e -> known.add(e.modules()));
        List<Feed> feeds = new ArrayList<>(network.feeds());
        silent.values().stream()
                .flatMap(List::stream)
                .filter(m -> !m.isEmpty() && known.add(m))
                .forEach(m -> feeds.add(feed(m)));
        return new Network(network.buses(), network.modules(), feeds);
    }

    private static Feed feed(Set<String> modules) {
        String id = "feed-of-" + String.join("-", modules);
        return new Feed(id, id, "supply", "", 0, 0, List.copyOf(modules));
    }

    private static boolean isWithout(Element e) {
        return e.kind() == NetworkModel.Kind.MODULE || e.kind() == NetworkModel.Kind.FEED;
    }

    /** Suspect → the element of the network that it is; others are not in it. */
    static Map<String, String> elements(List<Suspect> suspects) {
        Map<String, String> elements = new HashMap<>();
        for (Suspect s : suspects) {
            if (s.effect().orElse(null) instanceof Effect.OfElement of) {
                elements.put(s.id(), of.element());
            }
        }
        return elements;
    }

    /**
     * What a hypothesis is on the network.
     *
     * @param severity as {@link NetworkSounds} counts them
     */
    record As(Element element, int severity) {}

    /** Empty for a hypothesis that leaves the network as it should be. */
    Optional<As> of(Hypothesis h) {
        Element element = own.get(h.suspectId());
        if (element != null) {
            return Optional.of(new As(element, h.size()));
        }
        List<Set<String>> its = silent.get(h.suspectId());
        if (its == null) {
            return Optional.empty();
        }
        int severity =
                loose.contains(h.suspectId()) ? NetworkSounds.ONLY_ONCE : NetworkSounds.NOTHING;
        return Optional.ofNullable(without.get(its.get(h.size()))).map(e -> new As(e, severity));
    }

    /** Whether a module does not answer, or hardly ever, while a hypothesis is true. */
    boolean isSilent(Hypothesis h, String module) {
        return of(h).filter(
                        as ->
                                model().link(
                                                        as.element(),
                                                        NetworkSounds.quality(as.severity()),
                                                        Network.GATEWAY,
                                                        module)
                                        < HALF)
                .isPresent();
    }

    /** Whether a suspect is an element of the network itself. */
    boolean isElement(String suspectId) {
        return own.containsKey(suspectId);
    }

    /** Whether there is anything of it among the suspects. */
    boolean isEmpty() {
        return own.isEmpty() && silent.isEmpty();
    }

    /** The elements that suspects are, or are heard as. */
    Collection<Element> elements() {
        Set<Element> all = new LinkedHashSet<>(own.values());
        silent.values().stream()
                .flatMap(List::stream)
                .flatMap(m -> Optional.ofNullable(without.get(m)).stream())
                .forEach(all::add);
        return all;
    }

    NetworkReasoner reasoner() {
        return reasoner;
    }

    NetworkModel model() {
        return reasoner.model();
    }
}
