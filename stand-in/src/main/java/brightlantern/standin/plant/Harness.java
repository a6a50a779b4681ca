package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Voltages;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The harness of this one vehicle: every part a little off its drawing, faults in place, the
 * meter's load where it hangs.
 */
final class Harness {
    /** Parts of one type scatter by so much (one standard deviation). */
    private static final double SCATTER = 0.02;

    /** A tenth of what the finest range of a workshop meter shows. */
    private static final double SAME_VOLTS = 1e-4;

    private final Circuit circuit;
    private final CircuitModel model;
    private final Faults faults;
    private final Map<String, Double> scatter = new HashMap<>();
    private final Set<String> relays;
    private String loadedPoint = "";
    private Load load = Load.NOTHING;
    private Voltages volts = node -> 0;
    private double restingAt = Double.NaN;
    private List<Fault> restingWith = List.of();

    Harness(Circuit circuit, Faults faults, Random random) {
        this.circuit = circuit;
        this.faults = faults;
        List<Component> built = new ArrayList<>();
        for (Segment s : circuit.segments()) {
            built.add(s.with(s.ohm() * SCATTER * random.nextGaussian()));
        }
        for (MotorPart motor : circuit.motors()) {
            scatter.put(motor.id(), 1 + SCATTER * random.nextGaussian());
            built.add(motor);
        }
        model = new CircuitModel(circuit, built);
        relays =
                circuit.segments().stream()
                        .filter(s -> s.kind() == SegmentKind.RELAY)
                        .map(Segment::id)
                        .collect(Collectors.toSet());
    }

    double scatter(String motor) {
        return scatter.get(motor);
    }

    MotorPart motor(String id) {
        return circuit.motor(id);
    }

    void hang(String point, Load what) {
        loadedPoint = point;
        load = what;
    }

    /** With the relays open nothing moves: solved again only when something has changed. */
    void rest(double supplyVolts) {
        boolean same =
                load == Load.NOTHING
                        && faults.inCircuits() == restingWith
                        && Math.abs(supplyVolts - restingAt) < SAME_VOLTS;
        if (!same) {
            restingWith = faults.inCircuits();
            solve(OperatingState.idle(supplyVolts).open(relays));
            restingAt = load == Load.NOTHING ? supplyVolts : Double.NaN;
        }
    }

    /** With the relays closed, the motors driven so. */
    void drive(double supplyVolts, Map<String, OperatingState.Drive> drives) {
        solve(OperatingState.idle(supplyVolts).driven(drives));
        restingAt = Double.NaN;
    }

    private void solve(OperatingState state) {
        OperatingState loaded =
                load != Load.NOTHING && knows(loadedPoint)
                        ? state.loaded(loadedPoint, load)
                        : state;
        volts = model.next(loaded, faults.inCircuits(), volts);
    }

    double volts(String point) {
        return volts.at(point);
    }

    boolean knows(String point) {
        return model.knows(point);
    }

    double across(String motorId) {
        MotorPart part = motor(motorId);
        return volts(part.from()) - volts(part.to());
    }
}
