package brightlantern.standin.plant;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Need;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** What works of the circuits of a vehicle, as they are at this moment. */
public final class Working {
    private final Circuits circuits;

    Working(Circuits circuits) {
        this.circuits = circuits;
    }

    /**
     * What does not work at all of what is on, on every sheet with something that an engine needs.
     *
     * @return ids of gauges
     */
    public Set<String> out(List<Need> needs) {
        // they may be broken or switched meanwhile
        synchronized (circuits) {
            return circuits.isUntouched() ? Set.of() : dead(needs);
        }
    }

    private Set<String> dead(List<Need> needs) {
        Set<String> needed =
                needs.stream().flatMap(n -> n.gauges().stream()).collect(Collectors.toSet());
        Set<String> out = new HashSet<>();
        for (LiveCircuit its : circuits.live()) {
            List<Gauge> gauges = its.circuit().gauges();
            if (gauges.stream().anyMatch(g -> needed.contains(g.id()))) {
                gauges.stream()
                        .filter(g -> g.isNoticed() && !g.isOff() && circuits.isOn(its, g))
                        .filter(g -> Need.isOut(g, circuits.share(its, g)))
                        .forEach(g -> out.add(g.id()));
            }
        }
        return out;
    }

    /** What is on a sheet, with what it comes to now. */
    record Shown(Gauge gauge, LiveCircuit on, Band band) {}

    /** All gauges of such a kind, as they are now. */
    List<Shown> shown(Predicate<Gauge> which) {
        List<Shown> shown = new ArrayList<>();
        for (LiveCircuit its : circuits.live()) {
            its.circuit().gauges().stream()
                    .filter(which)
                    .forEach(g -> shown.add(new Shown(g, its, g.at(circuits.share(its, g)))));
        }
        return shown;
    }
}
