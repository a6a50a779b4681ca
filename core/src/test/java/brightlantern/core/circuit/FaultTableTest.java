package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Faults hung on a solved circuit come to what the circuit solved anew comes to. */
class FaultTableTest {
    private static final double SUPPLY = 12.4;

    private record Case(Circuit circuit, OperatingState state, Optional<Fault> fault) {}

    private static List<Case> drawn(int each, Random random) {
        List<Case> all = new ArrayList<>();
        for (VehicleDescription d : Vehicles.all().map(Vehicles::named).toList()) {
            for (Circuit c : d.circuits()) {
                for (int i = 0; i < each; i++) {
                    List<Component> parts = c.components();
                    Component part = parts.get(random.nextInt(parts.size()));
                    double ohm = 0.01 * Math.pow(1e8, random.nextDouble());
                    all.add(
                            new Case(
                                    c,
                                    state(c, random),
                                    random.nextInt(5) == 0
                                            ? Optional.empty()
                                            : Optional.of(new Fault.Series(part.id(), ohm))));
                }
            }
        }
        return all;
    }

    private static OperatingState state(Circuit c, Random random) {
        OperatingState state = OperatingState.idle(SUPPLY);
        if (!c.settings().isEmpty()) {
            return state.moving(Set.of(c.settings().get(random.nextInt(c.settings().size())).id()));
        }
        List<ProbePoint> points = c.points();
        state =
                state.loaded(
                        points.get(random.nextInt(points.size())).id(),
                        Load.values()[random.nextInt(Load.values().length)]);
        return c.motors().isEmpty() || random.nextBoolean()
                ? state
                : state.moving(Set.of(c.motors().get(0).id()));
    }

    @Test
    void agreesWithTheFullSolutionInEveryCircuit() {
        List<Case> cases = drawn(6, new Random(20261127));
        assertThat(cases).hasSizeGreaterThan(300);
        for (Case one : cases) {
            List<Fault> faults = one.fault().map(List::of).orElse(List.of());
            CircuitModel.Solution full = new CircuitModel(one.circuit()).solve(one.state(), faults);
            Voltages fast = new FaultTable(one.circuit(), one.state()).with(one.fault());
            full.volts()
                    .forEach(
                            (point, volts) ->
                                    assertThat(fast.at(point))
                                            .as(
                                                    "%s at %s, %s",
                                                    one.circuit().id(), point, one.fault())
                                            .isCloseTo(
                                                    volts,
                                                    within(1e-6 * Math.max(1, Math.abs(volts)))));
        }
    }
}
