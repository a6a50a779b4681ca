package brightlantern.standin.plant;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Characteristic;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What modules see at their pins: the values of sensors, and faults that they set codes for. */
final class ModulePins {
    /** Nearer to what it should be nobody sees a difference, as a share of the reference. */
    private static final double SAME_SHARE = 0.01;

    private final Circuits circuits;
    private final PinWatch pins = new PinWatch();
    private final List<Watched> watched = new ArrayList<>();
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
        if (watched.isEmpty()) {
            circuits.live().forEach(its -> watched.add(new Watched(its)));
        }
        watched.forEach(w -> look(w, watcher));
        sinceLook = 0;
    }

    private void look(Watched w, Part.Watcher watcher) {
        for (int i = 0; i < w.gauges.size(); i++) {
            Gauge g = w.gauges.get(i);
            if (circuits.isOn(w.its, g)) {
                w.anew(circuits.solved(w.its));
                if (w.bands[i] == null) {
                    w.bands[i] = g.at(circuits.share(w.its, g));
                }
                pins.look(g, w.bands[i], sinceLook, watcher);
            }
        }
    }

    /** What modules watch of a circuit, and what they see there as long as nothing changes. */
    private static final class Watched {
        final LiveCircuit its;
        final List<Gauge> gauges;
        final Band[] bands;
        private Map<String, Double> volts;

        Watched(LiveCircuit its) {
            this.its = its;
            gauges = its.circuit().gauges().stream().filter(PinWatch::isWatched).toList();
            bands = new Band[gauges.size()];
        }

        /** Forgets what was seen when it was solved anew since. */
        void anew(Map<String, Double> now) {
            if (now != volts) {
                Arrays.fill(bands, null);
                volts = now;
            }
        }
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
