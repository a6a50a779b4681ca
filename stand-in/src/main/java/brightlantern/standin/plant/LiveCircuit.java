package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.Voltages;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/** A circuit of this one vehicle with what it came to last; solved when something has changed. */
final class LiveCircuit {
    private final Circuit circuit;
    private final CircuitModel model;
    private final Map<String, Setting> settings = new HashMap<>();
    private final Kept rests = new Kept();
    private final Kept shaken = new Kept();
    private Kept latest = rests;
    private Map<String, Double> wholeFelt;
    private Voltages whole;

    LiveCircuit(Circuit circuit, CircuitModel model) {
        this.circuit = circuit;
        this.model = model;
        circuit.settings().forEach(s -> settings.put(s.id(), s));
    }

    /** What it came to last. */
    private static final class Kept {
        private Optional<OperatingState> at = Optional.empty();
        private Optional<Moment> solvedFor = Optional.empty();
        private Map<String, Double> volts = Map.of();
    }

    /**
     * What a solution is good for.
     *
     * @param shaken whether all that is loose is open; while it is moved, both are asked in turn
     * @param changes how often something was switched, plugged, hung on, broken or mended
     * @param supply volts
     * @param turns whether the engine runs or is cranked
     * @param starts whether the key is held at start
     * @param felt what its sensors make of what they feel
     */
    record Moment(
            boolean shaken,
            int changes,
            double supply,
            boolean turns,
            boolean starts,
            Map<String, Double> felt) {}

    Circuit circuit() {
        return circuit;
    }

    /** Its setting of an id, if it has one. */
    Optional<Setting> setting(String id) {
        return Optional.ofNullable(settings.get(id));
    }

    boolean knows(String point) {
        return model.knows(point);
    }

    /** Volts of its points when nothing is broken, unplugged or hung on, with all that is felt. */
    Voltages healthy(Map<String, Double> felt) {
        if (!felt.equals(wholeFelt)) {
            Map<String, Double> built =
                    model.solve(
                                    OperatingState.idle(GaugeState.TYPICAL_VOLTS).feeling(felt),
                                    List.of())
                            .volts();
            whole = built::get;
            wholeFelt = felt;
        }
        return whole;
    }

    /** Volts by which it was solved last; it must have been. */
    double supplyVolts() {
        return latest.at.orElseThrow().supplyVolts();
    }

    /** Looked at some times a second, and nearly always as it was. */
    Map<String, Double> volts(
            Moment moment, Supplier<OperatingState> state, Supplier<List<Fault>> faults) {
        latest = moment.shaken() ? shaken : rests;
        if (latest.solvedFor.filter(moment::equals).isPresent()) {
            return latest.volts;
        }
        OperatingState now = state.get();
        if (latest.at.filter(now::equals).isEmpty()) {
            latest.volts = model.solve(now, faults.get()).volts();
            latest.at = Optional.of(now);
        }
        latest.solvedFor = Optional.of(moment);
        return latest.volts;
    }

    /** Something else is broken now. */
    void solveAgain() {
        rests.at = Optional.empty();
        shaken.at = Optional.empty();
    }
}
