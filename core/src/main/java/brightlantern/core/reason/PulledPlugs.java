package brightlantern.core.reason;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel.Element;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The plugs of the modules on a bus pulled one after another, until the others answer again: who
 * holds the bus cannot be seen from outside, and is the one without whose plug it comes back.
 */
final class PulledPlugs extends BusLook {
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

    @Override
    List<Bus> buses() {
        return network.buses().stream().filter(b -> network.onWire(b.id()).size() > 1).toList();
    }

    @Override
    String findingId(Bus bus) {
        return PREFIX + bus.id();
    }

    @Override
    String name(Bus bus) {
        return "Without whose plug the " + DrawnSuspects.lower(bus.name()) + " comes back";
    }

    @Override
    Map<String, String> outcomes(Bus bus) {
        Map<String, String> words = new LinkedHashMap<>();
        words.put(NONE, "nobody's: nothing changes");
        network.onWire(bus.id()).forEach(m -> words.put(m.id(), m.name()));
        return words;
    }

    @Override
    Map<String, Double> healthy(Bus bus) {
        return mostly(bus, NONE);
    }

    @Override
    String todo(Bus bus) {
        return "Pull the plugs of the modules on the "
                + DrawnSuspects.lower(bus.name())
                + " one after another, and call the roll each time";
    }

    @Override
    String why() {
        return "Who holds the bus is silent once it is unplugged, and all others answer again. Push each plug home before the next.";
    }

    /** On the mean it is found half way. */
    @Override
    double minutes(Bus bus) {
        return MINUTES_EACH * network.onWire(bus.id()).size() / 2;
    }

    @Override
    Map<String, Double> under(Element e, Bus bus) {
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
