package brightlantern.standin.plant;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;

/** How modules watch their pins: what they see for long enough sets a code, or lets it rest. */
final class PinWatch {
    /** Modules look at their pins so often, s. */
    static final double LOOK_SECONDS = 0.25;

    /** They believe what they see after so long, s. */
    static final double SET_SECONDS = 1;

    /** Band of a gauge → for how long it has been seen, or has not, s. */
    private final Map<String, Double> failing = new HashMap<>();

    private final Map<String, Double> holding = new HashMap<>();

    /**
     * Looks at a gauge.
     *
     * @param share of its reference
     * @param seconds since the last look
     */
    void look(Gauge g, double share, double seconds, Part.Watcher watcher) {
        Band now = g.at(share);
        for (Band b : g.bands()) {
            if (b.code().isEmpty()) {
                continue;
            }
            boolean fails = b.equals(now);
            String key = g.id() + " " + b.id();
            Map<String, Double> counts = fails ? failing : holding;
            (fails ? holding : failing).remove(key);
            double before = counts.getOrDefault(key, 0.0);
            counts.put(key, before + seconds);
            if (before < SET_SECONDS && before + seconds >= SET_SECONDS) {
                watcher.report(g.module(), b.code(), fails);
            }
        }
    }

    /** With a new key cycle all is looked at anew. */
    void forget() {
        failing.clear();
        holding.clear();
    }

    /** Module and code of all that is watched in a circuit. */
    static Set<String> codes(Circuit circuit) {
        Set<String> codes = new LinkedHashSet<>();
        for (Gauge g : circuit.gauges()) {
            g.bands().stream()
                    .filter(b -> !b.code().isEmpty())
                    .forEach(b -> codes.add(g.module() + " " + b.code()));
        }
        return codes;
    }
}
