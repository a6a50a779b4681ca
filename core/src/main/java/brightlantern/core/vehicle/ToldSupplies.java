package brightlantern.core.vehicle;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.Value;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Values by which modules tell what arrives at them: whom to ask where one does not answer. */
public final class ToldSupplies {
    private ToldSupplies() {}

    /**
     * In the order in which they are asked: one of each bus, then the next of each, as a bus may be
     * silent as a whole.
     *
     * @param besides id of a module that is not asked
     */
    public static List<Value> of(VehicleDescription d, String besides) {
        Map<String, Deque<Value>> byBus = new LinkedHashMap<>();
        for (Circuit c : d.circuits()) {
            for (Gauge g : c.gauges()) {
                if (g.feedsModule() && !g.module().equals(besides)) {
                    String bus = d.module(g.module()).map(ControlModule::bus).orElse("");
                    d.value(g.value())
                            .ifPresent(
                                    v ->
                                            byBus.computeIfAbsent(bus, b -> new ArrayDeque<>())
                                                    .add(v));
                }
            }
        }
        List<Value> all = new ArrayList<>();
        while (byBus.values().stream().anyMatch(its -> !its.isEmpty())) {
            byBus.values().stream()
                    .filter(its -> !its.isEmpty())
                    .forEach(its -> all.add(its.poll()));
        }
        return all;
    }
}
