package brightlantern.core.reason;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The plugs of the modules on a bus pulled one after another, until the others answer again: who
 * holds the bus cannot be seen from outside, and is the one without whose plug it comes back.
 */
final class PulledPlugs {
    private static final String PREFIX = "pulled-";
    private static final String NONE = "none";

    /** What is not foretold is found so often, over all outcomes. */
    private static final double MISTAKEN = 0.04;

    /** Of shorts so many are inside a module, and leave with it. */
    private static final double SHORT_INSIDE = 0.3;

    /** A plug that is found, pulled and pushed home again, with a call of the roll. */
    private static final double MINUTES_EACH = 3;

    private final Network network;

    PulledPlugs(Network network) {
        this.network = network;
    }

    /** Whether a finding tells without whose plug a bus comes back. */
    static boolean isFinding(String findingId) {
        return findingId.startsWith(PREFIX);
    }

    private List<Bus> buses() {
        return network.buses().stream().filter(b -> network.onWire(b.id()).size() > 1).toList();
    }

    List<Finding> findings() {
        return buses().stream()
                .map(
                        b ->
                                new Finding(
                                        PREFIX + b.id(),
                                        "Without whose plug the "
                                                + DrawnSuspects.lower(b.name())
                                                + " comes back",
                                        outcomes(b),
                                        ""))
                .toList();
    }

    private List<FindingOutcome> outcomes(Bus bus) {
        Map<String, Double> healthy = mostly(bus, NONE);
        List<FindingOutcome> all = new ArrayList<>();
        all.add(new FindingOutcome(NONE, "nobody's: nothing changes", healthy.get(NONE)));
        for (ControlModule m : network.onWire(bus.id())) {
            all.add(new FindingOutcome(m.id(), m.name(), healthy.get(m.id())));
        }
        return all;
    }

    List<Check> checks() {
        return buses().stream()
                .map(
                        b ->
                                (Check)
                                        new Check.Look(
                                                PREFIX + b.id(),
                                                "Pull the plugs of the modules on the "
                                                        + DrawnSuspects.lower(b.name())
                                                        + " one after another, and call the roll each time",
                                                "trace",
                                                List.of(PREFIX + b.id()),
                                                // on the mean it is found half way
                                                MINUTES_EACH * network.onWire(b.id()).size() / 2,
                                                "Who holds the bus is silent once it is unplugged, and all others answer again. Push each plug home before the next.",
                                                ""))
                .toList();
    }

    /** How often each outcome is found while an element is at fault, by finding. */
    Map<String, Map<String, Double>> tells(Element e) {
        Map<String, Map<String, Double>> all = new LinkedHashMap<>();
        for (Bus bus : buses()) {
            if (bus.id().equals(e.bus())) {
                all.put(PREFIX + bus.id(), under(e, bus));
            }
        }
        return all;
    }

    private Map<String, Double> under(Element e, Bus bus) {
        return switch (e.kind()) {
            case BABBLING -> mostly(bus, e.id().substring("babbling-".length()));
            case SHORT -> {
                Map<String, Double> odds = mostly(bus, NONE);
                int modules = network.onWire(bus.id()).size();
                odds.replaceAll(
                        (id, p) -> id.equals(NONE) ? 1 - SHORT_INSIDE : SHORT_INSIDE / modules);
                yield odds;
            }
            default -> mostly(bus, NONE);
        };
    }

    private Map<String, Double> mostly(Bus bus, String one) {
        List<ControlModule> modules = network.onWire(bus.id());
        Map<String, Double> odds = new LinkedHashMap<>();
        odds.put(NONE, MISTAKEN / modules.size());
        modules.forEach(m -> odds.put(m.id(), MISTAKEN / modules.size()));
        odds.put(one, 1 - MISTAKEN);
        return odds;
    }
}
