package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.Voltages;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/** A circuit of this one vehicle with what it came to last; solved when something has changed. */
final class LiveCircuit {
    private final Circuit circuit;
    private final CircuitModel model;
    private Optional<OperatingState> at = Optional.empty();
    private Optional<Moment> solvedFor = Optional.empty();
    private Map<String, Double> volts = Map.of();
    private Map<String, Double> wholeFelt;
    private Voltages whole;

    LiveCircuit(Circuit circuit, CircuitModel model) {
        this.circuit = circuit;
        this.model = model;
    }

    /**
     * What a solution is good for.
     *
     * @param changes how often something was switched, plugged, hung on, broken or mended
     * @param supply volts
     * @param turns whether the engine runs or is cranked
     * @param starts whether the key is held at start
     * @param felt what its sensors make of what they feel
     */
    record Moment(
            int changes, double supply, boolean turns, boolean starts, Map<String, Double> felt) {}

    Circuit circuit() {
        return circuit;
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
        return at.orElseThrow().supplyVolts();
    }

    /** Looked at some times a second, and nearly always as it was. */
    Map<String, Double> volts(
            Moment moment, Supplier<OperatingState> state, Supplier<List<Fault>> faults) {
        if (solvedFor.filter(moment::equals).isPresent()) {
            return volts;
        }
        OperatingState now = state.get();
        if (at.filter(now::equals).isEmpty()) {
            volts = model.solve(now, faults.get()).volts();
            at = Optional.of(now);
        }
        solvedFor = Optional.of(moment);
        return volts;
    }

    /** Something else is broken now. */
    void solveAgain() {
        at = Optional.empty();
    }
}
