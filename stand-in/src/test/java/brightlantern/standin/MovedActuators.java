package brightlantern.standin;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.procedure.actuator.ActuatorRun;
import brightlantern.core.signal.Condition;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/** Actuators driven from end to end by their outputs, timed, and measured while they move. */
final class MovedActuators {
    private static final int STROKES = 4;
    private static final double STROKE_SECONDS = 1.0;
    private static final double EVERY_SECONDS = 0.03;

    /** Of the readings of a stroke this one tells what is lost while it really moves. */
    private static final double QUANTILE = 0.8;

    /** Who waits for a gate looks so often, and gives up after so long. */
    private static final double LOOKED_SECONDS = 60;

    private static final double MOST_SECONDS = 900;

    private final StandInVehicle v;
    private final VehicleDescription d;

    MovedActuators(StandInVehicle vehicle) {
        this.v = vehicle;
        this.d = vehicle.description();
    }

    /** A run as the program judges it; empty when it cannot be judged. */
    Optional<Evidence> run(Check.Run check) {
        Actuator a = d.actuator(check.actuator()).orElseThrow();
        if (!areOpen(a.gates())) {
            return Optional.empty();
        }
        List<ActuatorRun.Sample> samples = new ArrayList<>();
        double begin = v.simulation().seconds();
        move(
                List.of(a),
                command ->
                        samples.add(
                                new ActuatorRun.Sample(
                                        v.simulation().seconds() - begin,
                                        EVERY_SECONDS / 4,
                                        command,
                                        v.reading(a.feedback()))));
        double supply = v.reading("engine.supply");
        ActuatorRun.Verdict verdict = ActuatorRun.judge(a, samples, supply);
        return verdict.judged()
                ? Optional.of(
                        new Evidence.Run(
                                a.id(),
                                List.of(a.id()),
                                Double.isFinite(verdict.moveSeconds()) ? verdict.moveSeconds() : -1,
                                verdict.deviation(),
                                supply,
                                verdict.passed()))
                : Optional.empty();
    }

    Evidence reading(Check.Reading check) {
        Circuit circuit = d.circuit(check.circuit()).orElseThrow();
        List<Actuator> moving =
                d.actuators().stream()
                        .filter(a -> a.circuit().equals(circuit.id()))
                        .filter(a -> check.moving().contains(a.motor()))
                        .toList();
        v.simulation().driver(v.simulation().driver().key(2));
        v.live(1);
        v.simulation().hang(check.point(), Load.named(check.load()));
        v.live(0.1);
        double supply = v.reading("body.supply");
        double pole = circuit.point(check.point()).side().equals("earth") ? 0 : supply;
        List<Double> drops = new ArrayList<>();
        if (moving.isEmpty()) {
            drops.add(Math.abs(volts(check.point()) - pole));
        } else {
            move(moving, command -> drops.add(Math.abs(volts(check.point()) - pole)));
        }
        v.simulation().hang("", Load.NOTHING);
        drops.sort(null);
        double drop = drops.get((int) (QUANTILE * (drops.size() - 1)));
        double volts = pole == 0 ? drop : supply - drop;
        ProbeCondition condition =
                new ProbeCondition(Load.named(check.load()), check.moving().stream().findFirst());
        return new Evidence.Reading(
                circuit.id(),
                check.point(),
                check.load(),
                check.moving(),
                volts,
                supply,
                condition
                        .healthy(new SharedPoints(d.circuits()), circuit, check.point(), supply)
                        .holds(volts));
    }

    /** Stops the engine, turns the key on, and waits for what has to cool down. */
    private boolean areOpen(List<Condition> gates) {
        if (v.simulation().running()) {
            v.driver(Driver.away().key(0));
            v.live(1);
        }
        v.driver(Driver.away().key(2));
        v.live(1);
        for (double waited = 0; waited < MOST_SECONDS && !hold(gates); waited += LOOKED_SECONDS) {
            v.live(LOOKED_SECONDS);
        }
        return hold(gates);
    }

    private boolean hold(List<Condition> gates) {
        return gates.stream()
                .allMatch(
                        g ->
                                v.reading(g.value()) >= g.min().orElse(Double.NEGATIVE_INFINITY)
                                        && v.reading(g.value())
                                                <= g.max().orElse(Double.POSITIVE_INFINITY));
    }

    private double volts(String point) {
        return v.simulation().volts(point).orElseThrow();
    }

    private interface Look {
        void at(double command);
    }

    /** From end to end and back; what is looked at begins with the second stroke. */
    private void move(List<Actuator> actuators, Look look) {
        v.simulation().driver(v.simulation().driver().key(2));
        v.live(1);
        for (int stroke = 0; stroke <= STROKES; stroke++) {
            for (Actuator a : actuators) {
                outlet(a).take().accept(OptionalDouble.of(to(a, stroke)));
            }
            for (double t = 0; t < STROKE_SECONDS; t += EVERY_SECONDS) {
                v.live(EVERY_SECONDS);
                if (stroke > 0) {
                    look.at(to(actuators.get(0), stroke));
                }
            }
        }
        actuators.forEach(a -> outlet(a).take().accept(OptionalDouble.empty()));
    }

    private static double to(Actuator a, int stroke) {
        return stroke % 2 == 0 ? a.low() : a.high();
    }

    private Part.Outlet outlet(Actuator a) {
        return v.simulation().plant().outlets().stream()
                .filter(o -> o.did() == a.did())
                .findFirst()
                .orElseThrow();
    }
}
