package brightlantern.standin.plant;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;

/** What arrives at the control modules, and which of them are silent for want of it. */
final class Feeds {
    private final Circuits circuits;

    /** Found when somebody asks first: then all circuits are built. */
    private List<Fed> all = List.of();

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

    /** A module's feed on its sheet. */
    private record Fed(LiveCircuit on, Gauge gauge) {}

    private List<Fed> all() {
        if (all.isEmpty()) {
            all =
                    circuits.live().stream()
                            .flatMap(
                                    its ->
                                            its.circuit().gauges().stream()
                                                    .filter(Gauge::feedsModule)
                                                    .map(g -> new Fed(its, g)))
                            .toList();
        }
        return all;
    }

    /** Those that are silent at this moment. */
    Set<String> silent() {
        return all().stream()
                .filter(f -> f.gauge().isSilent(circuits.share(f.on(), f.gauge())))
                .map(f -> f.gauge().module())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /**
     * What arrives at a module, as a share of what does while nothing is broken; 1 for one whose
     * feed is not described.
     *
     * @param volts at the battery
     */
    double fed(String module, double volts) {
        return all().stream()
                .filter(f -> f.gauge().module().equals(module))
                .findFirst()
                .map(f -> circuits.share(f.on(), f.gauge()) / volts / right(f))
                .orElse(1.0);
    }

    /** Share for each volt of the battery while nothing is broken. */
    private double right(Fed f) {
        return circuits.shareWhole(f.on(), f.gauge()) / GaugeState.TYPICAL_VOLTS;
    }
}
