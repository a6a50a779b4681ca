package brightlantern.standin.plant;

import brightlantern.core.circuit.Characteristic;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Value;
import java.util.LinkedHashSet;
import java.util.Set;

/** What modules see at their pins: the values of sensors, and faults that they set codes for. */
final class ModulePins {
    /** Nearer to what it should be nobody sees a difference, as a share of the reference. */
    private static final double SAME_SHARE = 0.01;

    private final Circuits circuits;
    private final PinWatch pins = new PinWatch();
    private double sinceLook;

    ModulePins(Circuits circuits) {
        this.circuits = circuits;
    }

    /** Values that sensors tell. */
    Set<String> values() {
        Set<String> values = new LinkedHashSet<>();
        circuits.live()
                .forEach(
                        i ->
                                i.circuit().gauges().stream()
                                        .filter(g -> !g.feedsModule())
                                        .map(Gauge::value)
                                        .filter(v -> !v.isEmpty())
                                        .forEach(values::add));
        return values;
    }

    /**
     * A value as its module tells it, by what arrives at its pin.
     *
     * @param felt what the sensor feels, in the value's own unit
     */
    double told(Value value, double felt) {
        Senses.Sense its = circuits.senses().of(value.id()).orElse(null);
        if (its == null) {
            return felt;
        }
        double off =
                circuits.share(its.on(), its.gauge()) - circuits.shareWhole(its.on(), its.gauge());
        Characteristic c = its.characteristic();
        return Math.abs(off) < SAME_SHARE ? felt : c.figureAt(c.shareAt(felt) + off);
    }

    /** Lets the modules look at what is on, now and then. */
    void watch(double seconds, Part.Watcher watcher) {
        sinceLook += seconds;
        if (sinceLook < PinWatch.LOOK_SECONDS) {
            return;
        }
        for (LiveCircuit its : circuits.live()) {
            for (Gauge g : its.circuit().gauges()) {
                if (!g.module().isEmpty() && circuits.isOn(its, g)) {
                    pins.look(g, circuits.share(its, g), sinceLook, watcher);
                }
            }
        }
        sinceLook = 0;
    }

    void keyOn() {
        pins.forget();
    }

    /** Codes that they set by what they see. */
    Set<String> monitored() {
        Set<String> codes = new LinkedHashSet<>();
        circuits.live().forEach(its -> codes.addAll(PinWatch.codes(its.circuit())));
        return codes;
    }
}
