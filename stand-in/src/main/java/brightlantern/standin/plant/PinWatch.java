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

    /** By gauge, for how long each of its bands has been seen, or has not, s. */
    private final Map<String, double[]> failing = new HashMap<>();

    private final Map<String, double[]> holding = new HashMap<>();

    /**
     * Looks at a gauge.
     *
     * @param now in which of its bands it stands
     * @param seconds since the last look
     */
    void look(Gauge g, Band now, double seconds, Part.Watcher watcher) {
        double[] failing = counts(this.failing, g);
        double[] holding = counts(this.holding, g);
        for (int i = 0; i < failing.length; i++) {
            Band b = g.bands().get(i);
            if (b.code().isEmpty()) {
                continue;
            }
            boolean fails = b == now;
            double before = (fails ? failing : holding)[i];
            failing[i] = fails ? before + seconds : 0;
            holding[i] = fails ? 0 : before + seconds;
            if (before < SET_SECONDS && before + seconds >= SET_SECONDS) {
                watcher.report(g.module(), b.code(), fails);
            }
        }
    }

    /** Whether a module sets a code by what it sees there. */
    static boolean isWatched(Gauge g) {
        return !g.module().isEmpty() && g.bands().stream().anyMatch(b -> !b.code().isEmpty());
    }

    private static double[] counts(Map<String, double[]> of, Gauge g) {
        return of.computeIfAbsent(g.id(), id -> new double[g.bands().size()]);
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
