package brightlantern.core.reason;

import brightlantern.core.network.Bus;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Something that is found of a bus by hand: a finding and a check of its own for each bus. */
abstract class BusLook {
    /** Buses of which it can be found. */
    abstract List<Bus> buses();

    /** Id of the finding of a bus. */
    abstract String findingId(Bus bus);

    /** What is found. */
    abstract String name(Bus bus);

    /** Outcome → its words, in the order in which they are offered. */
    abstract Map<String, String> outcomes(Bus bus);

    /** Outcome → probability while nothing is at fault. */
    abstract Map<String, Double> healthy(Bus bus);

    /** Outcome → probability while an element of that bus is at fault. */
    abstract Map<String, Double> under(Element e, Bus bus);

    /** What is to be done. */
    abstract String todo(Bus bus);

    abstract String why();

    abstract double minutes(Bus bus);

    final List<Finding> findings() {
        return buses().stream()
                .map(b -> new Finding(findingId(b), name(b), offered(b), ""))
                .toList();
    }

    private List<FindingOutcome> offered(Bus bus) {
        Map<String, Double> odds = healthy(bus);
        return outcomes(bus).entrySet().stream()
                .map(o -> new FindingOutcome(o.getKey(), o.getValue(), odds.get(o.getKey())))
                .toList();
    }

    final List<Check> checks() {
        return buses().stream()
                .map(
                        b ->
                                (Check)
                                        new Check.Look(
                                                findingId(b),
                                                todo(b),
                                                "trace",
                                                List.of(findingId(b)),
                                                minutes(b),
                                                why(),
                                                ""))
                .toList();
    }

    /** How often each outcome is found while an element is at fault, by finding. */
    final Map<String, Map<String, Double>> tells(Element e) {
        Map<String, Map<String, Double>> all = new LinkedHashMap<>();
        for (Bus bus : buses()) {
            if (bus.id().equals(e.bus())) {
                all.put(findingId(bus), under(e, bus));
            }
        }
        return all;
    }
}
