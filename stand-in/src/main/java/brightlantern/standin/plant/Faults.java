package brightlantern.standin.plant;

import brightlantern.core.circuit.Fault;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** What is broken in a stand-in at this moment. Repairs take entries away. */
public final class Faults {
    private final Map<String, Double> seriesOhm = new ConcurrentHashMap<>();
    private final Map<String, Double> drag = new ConcurrentHashMap<>();
    private volatile List<Fault> inCircuits = List.of();
    private volatile double hoseLeak;
    private volatile boolean trailerLampOpen;

    /** Extra resistance in a segment of the harness, in ohms. */
    public Faults series(String segment, double ohm) {
        seriesOhm.put(segment, ohm);
        drawn();
        return this;
    }

    /** Load of a motor multiplied. */
    public Faults drag(String motor, double factor) {
        drag.put(motor, factor);
        return this;
    }

    /** Share of the compressor's pressure rise that escapes, 0..1. */
    public Faults hoseLeak(double share) {
        hoseLeak = share;
        return this;
    }

    public Faults trailerLampOpen(boolean open) {
        trailerLampOpen = open;
        return this;
    }

    /** Mends whatever was wrong at a segment or motor. */
    public void mend(String place) {
        seriesOhm.remove(place);
        drag.remove(place);
        drawn();
    }

    private void drawn() {
        inCircuits =
                seriesOhm.entrySet().stream()
                        .<Fault>map(e -> new Fault.Series(e.getKey(), e.getValue()))
                        .toList();
    }

    /**
     * Those of the harness, another list after every change; what drags at a motor is felt by the
     * motor itself.
     */
    List<Fault> inCircuits() {
        return inCircuits;
    }

    double drag(String motor) {
        return drag.getOrDefault(motor, 1.0);
    }

    double hoseLeak() {
        return hoseLeak;
    }

    boolean trailerLampOpen() {
        return trailerLampOpen;
    }
}
