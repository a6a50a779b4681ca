package brightlantern.standin.plant;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;

/** What arrives at the control modules, and which of them are silent for want of it. */
final class Feeds {
    private final Circuits circuits;
    private volatile Set<String> unfed = Set.of();

    Feeds(Circuits circuits) {
        this.circuits = circuits;
    }

    /**
     * @param whole whether nothing is broken, so that nobody needs to look
     * @param look finds those that are silent
     */
    void step(boolean whole, Supplier<Set<String>> look) {
        unfed = whole ? Set.of() : look.get();
    }

    Set<String> unfed() {
        return unfed;
    }

    Set<String> silent() {
        Set<String> silent = new TreeSet<>();
        for (LiveCircuit its : circuits.live()) {
            for (Gauge g : its.circuit().gauges()) {
                if (g.feedsModule() && g.isSilent(circuits.share(its, g))) {
                    silent.add(g.module());
                }
            }
        }
        return silent;
    }

    double fed(String module, double volts) {
        for (LiveCircuit its : circuits.live()) {
            for (Gauge g : its.circuit().gauges()) {
                if (g.feedsModule() && g.module().equals(module)) {
                    double right =
                            g.share(its.circuit(), its.healthy(), List.of())
                                    / GaugeState.TYPICAL_VOLTS;
                    return circuits.share(its, g) / volts / right;
                }
            }
        }
        return 1;
    }
}
