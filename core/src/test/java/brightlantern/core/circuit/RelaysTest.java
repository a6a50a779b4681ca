package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Contacts follow the current through their coil, and both ways to compute that agree. */
class RelaysTest {
    private static final Circuit LOW =
            Vehicles.named("oriel-heron").circuit("low-beam").orElseThrow();

    private static final OperatingState ON = OperatingState.idle(12.4).moving(Set.of("K41-on"));

    private static double out(OperatingState state, Fault... faults) {
        return new CircuitModel(LOW).solve(state, List.of(faults)).volts().get("K41.out");
    }

    @Test
    void itIsClosedWhileItsCoilTakesCurrent() {
        assertThat(out(OperatingState.idle(12.4))).isLessThan(0.5);
        assertThat(out(ON)).isGreaterThan(11.5);
    }

    @ParameterizedTest
    @ValueSource(strings = {"K41-coil", "W-K41-coil", "S41-control"})
    void whatIsOpenOnTheWayOfTheCoilLetsGo(String part) {
        assertThat(out(ON, new Fault.Series(part, Fault.Series.OPEN_OHM))).isLessThan(0.5);
        // the coil of 90 Ω holds with 0.55 of its volts: 70 Ω more are too many, 40 are not
        assertThat(out(ON, new Fault.Series(part, 100))).isLessThan(0.5);
        assertThat(out(ON, new Fault.Series(part, 40))).isGreaterThan(11.5);
    }

    @Test
    void weldedContactsNeedNoCoil() {
        assertThat(out(OperatingState.idle(12.4), new Fault.Stuck("K41"))).isGreaterThan(11.5);
        assertThat(out(OperatingState.idle(12.4), new Fault.Stuck("S41-control")))
                .as("a switch that stays closed pulls it all the time")
                .isGreaterThan(11.5);
    }

    /** A supply that is too low lets a relay go, whatever it is told. */
    @Test
    void aFlatBatteryLetsGo() {
        OperatingState flat = OperatingState.idle(6).moving(Set.of("K41-on"));
        assertThat(out(flat)).isLessThan(0.5);
    }

    static Stream<Fault> faults() {
        return LOW.components().stream()
                .flatMap(
                        p ->
                                Stream.of(0.3, 30.0, 95.0, Fault.Series.OPEN_OHM)
                                        .map(ohm -> new Fault.Series(p.id(), ohm)));
    }

    @ParameterizedTest
    @MethodSource("faults")
    void theFastWayAgrees(Fault fault) {
        for (OperatingState state : List.of(OperatingState.idle(12.4), ON)) {
            Map<String, Double> full = new CircuitModel(LOW).solve(state, List.of(fault)).volts();
            Voltages fast = new FaultTable(LOW, state).with(Optional.of(fault));
            full.forEach(
                    (point, volts) ->
                            assertThat(Math.abs(fast.at(point) - volts))
                                    .as("%s with %s: %.4f V", point, fault, volts)
                                    .isLessThan(0.01));
        }
    }
}
