package brightlantern.standin.network;

import brightlantern.core.network.ControlModule;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;

/**
 * Every module waits for the messages of those that it watches; when they stay away for a second,
 * it says so, and when they have come for two seconds again, it takes that back.
 */
public final class MissMonitors {
    private static final double AWAY_SECONDS = 1.0;
    private static final double BACK_SECONDS = 2.0;

    private final BusWires wires;
    private final List<Pair> pairs = new ArrayList<>();

    /** Takes a monitor's result. */
    public interface Sink {
        void report(String module, String code, boolean failed);
    }

    private static final class Pair {
        final String listener;
        final String other;
        final String code;
        double away;
        double back;

        Pair(String listener, String other, String code) {
            this.listener = listener;
            this.other = other;
            this.code = code;
        }
    }

    /**
     * @param fitted whether a module is there at all; nobody waits for what is not fitted
     */
    public MissMonitors(VehicleDescription description, BusWires wires, Predicate<String> fitted) {
        this.wires = wires;
        for (ControlModule listener : description.modules()) {
            for (String other : listener.watches()) {
                description
                        .module(other)
                        .filter(o -> !o.missed().isEmpty())
                        .filter(o -> fitted.test(o.id()) && fitted.test(listener.id()))
                        .ifPresent(o -> pairs.add(new Pair(listener.id(), o.id(), o.missed())));
            }
        }
    }

    /**
     * A turn of all monitors.
     *
     * @param dt seconds since the turn before
     */
    public void watch(double seconds, double dt, Sink sink) {
        for (Pair pair : pairs) {
            if (!wires.alive(pair.listener, seconds)) {
                pair.away = 0;
                pair.back = 0;
            } else if (wires.gets(pair.other, pair.listener, seconds)) {
                pair.away = 0;
                pair.back += dt;
                if (pair.back >= BACK_SECONDS && pair.back < BACK_SECONDS + dt) {
                    sink.report(pair.listener, pair.code, false);
                }
            } else {
                pair.back = 0;
                pair.away += dt;
                if (pair.away >= AWAY_SECONDS && pair.away < AWAY_SECONDS + dt) {
                    sink.report(pair.listener, pair.code, true);
                }
            }
        }
    }

    /** Begins anew, as after the key was turned on. */
    public void reset() {
        pairs.forEach(
                p -> {
                    p.away = 0;
                    p.back = 0;
                });
    }
}
