package brightlantern.core.reason;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel.Element;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Ohms between both wires of a bus at the diagnostic connector, with all modules asleep: two
 * terminating resistors of 120 Ω side by side are 60 Ω (ISO 11898-2), one alone is 120 Ω.
 */
final class WireOhms extends BusLook {
    private static final String PREFIX = "wires-";

    private static final String BOTH = "both";
    private static final String BETWEEN = "between";
    private static final String ONE = "one";
    private static final String NONE = "none";
    private static final String LOW = "low";

    private static final Map<String, String> WORDS = words();

    /** Below these a meter tells the outcomes from the fewest ohms up. */
    private static final double LOW_OHM = 40;

    private static final double BOTH_OHM = 68;
    private static final double BETWEEN_OHM = 112;
    private static final double ONE_OHM = 200;

    /** What is not foretold is read so often. */
    private static final double MISREAD = 0.01;

    /** A bad contact is good while somebody measures, in so many cases. */
    private static final double GOOD_NOW = 0.28;

    /** Of bad contacts so many let something through. */
    private static final double PARTLY = 0.08;

    private static final double MINUTES = 5;

    /** Resistors of a bus that is closed at both ends. */
    private static final int ENDS = 2;

    private final Network network;

    WireOhms(Network network) {
        this.network = network;
    }

    private static Map<String, String> words() {
        Map<String, String> words = new LinkedHashMap<>();
        words.put(BOTH, "about 60 Ω");
        words.put(BETWEEN, "70 to 110 Ω");
        words.put(ONE, "about 120 Ω");
        words.put(NONE, "far more, or overload");
        words.put(LOW, "less than 40 Ω");
        return words;
    }

    /** Whether a finding is of ohms between the wires of a bus. */
    static boolean isFinding(String findingId) {
        return findingId.startsWith(PREFIX);
    }

    /** What it says that a meter reads so many ohms. */
    static String outcome(double ohm) {
        return ohm < LOW_OHM
                ? LOW
                : ohm < BOTH_OHM ? BOTH : ohm < BETWEEN_OHM ? BETWEEN : ohm < ONE_OHM ? ONE : NONE;
    }

    @Override
    List<Bus> buses() {
        return network.buses().stream().filter(b -> ends(b).size() == ENDS).toList();
    }

    /** Stations that hold a terminating resistor; the gateway is 0. */
    private List<Integer> ends(Bus bus) {
        List<ControlModule> stations = network.onWire(bus.id());
        if (stations.isEmpty()) {
            return List.of();
        }
        if (bus.terminators().isEmpty()) {
            return List.of(0, stations.size());
        }
        List<String> ids = new ArrayList<>(List.of(Network.GATEWAY));
        stations.forEach(m -> ids.add(m.id()));
        return bus.terminators().stream().map(ids::indexOf).filter(i -> i >= 0).toList();
    }

    @Override
    String findingId(Bus bus) {
        return PREFIX + bus.id();
    }

    @Override
    String name(Bus bus) {
        return "Ohms between both wires of the " + DrawnSuspects.lower(bus.name()) + ", key off";
    }

    @Override
    Map<String, String> outcomes(Bus bus) {
        return WORDS;
    }

    @Override
    Map<String, Double> healthy(Bus bus) {
        return mostly(BOTH);
    }

    @Override
    String todo(Bus bus) {
        return "Key off, wait until all modules sleep: meter on ohms between both wires of the "
                + DrawnSuspects.lower(bus.name())
                + " at the diagnostic connector";
    }

    @Override
    String why() {
        return "Two resistors side by side are 60 Ω. 120 Ω: a wire is open, or one resistor is missing. Next to nothing: the wires touch.";
    }

    @Override
    double minutes(Bus bus) {
        return MINUTES;
    }

    @Override
    Map<String, Double> under(Element e, Bus bus) {
        return switch (e.kind()) {
            case SHORT -> mostly(LOW);
            case TERMINATOR -> mostly(ONE);
            case GAP -> {
                long left = ends(bus).stream().filter(end -> end <= e.at()).count();
                yield left == ENDS ? mostly(BOTH) : open(left == 0 ? NONE : ONE);
            }
            case BABBLING, MODULE, FEED -> mostly(BOTH);
        };
    }

    private static Map<String, Double> mostly(String one) {
        Map<String, Double> odds = new LinkedHashMap<>();
        WORDS.keySet()
                .forEach(
                        w ->
                                odds.put(
                                        w,
                                        w.equals(one)
                                                ? 1 - MISREAD * (WORDS.size() - 1)
                                                : MISREAD));
        return odds;
    }

    private static Map<String, Double> open(String seen) {
        Map<String, Double> odds = mostly(seen);
        odds.put(BOTH, GOOD_NOW);
        odds.put(BETWEEN, PARTLY);
        odds.put(seen, 1 - GOOD_NOW - PARTLY - MISREAD * (WORDS.size() - 3));
        return odds;
    }
}
