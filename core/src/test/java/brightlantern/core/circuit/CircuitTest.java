package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

class CircuitTest {
    private static final Circuit CIRCUIT =
            Vehicles.portage().circuit("air-actuators").orElseThrow();
    private final CircuitModel model = new CircuitModel(CIRCUIT);

    @Test
    void aDividerByHand() {
        DcNetwork network = new DcNetwork(3);
        network.held(1, 12);
        network.resistor(1, 2, 100);
        network.resistor(2, 0, 200);
        assertThat(network.solve()[2]).isCloseTo(8, within(1e-4));
    }

    /**
     * A Wheatstone bridge out of balance, currents checked by Kirchhoff's first law at both inner
     * nodes.
     */
    @RepeatedTest(200)
    void currentsAtEveryNodeAddUpToNothing(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        List<Double> r =
                random.doubles(5, Math.log(0.01), Math.log(1000)).map(Math::exp).boxed().toList();
        DcNetwork network = new DcNetwork(4);
        network.held(1, 10);
        network.resistor(1, 2, r.get(0));
        network.resistor(1, 3, r.get(1));
        network.resistor(2, 0, r.get(2));
        network.resistor(3, 0, r.get(3));
        network.resistor(2, 3, r.get(4));
        double[] v = network.solve();
        double atTwo = (v[1] - v[2]) / r.get(0) - v[2] / r.get(2) - (v[2] - v[3]) / r.get(4);
        double atThree = (v[1] - v[3]) / r.get(1) - v[3] / r.get(3) + (v[2] - v[3]) / r.get(4);
        assertThat(atTwo).isCloseTo(0, within(1e-4));
        assertThat(atThree).isCloseTo(0, within(1e-4));
        assertThat(v[2]).isBetween(0.0, 10.0);
    }

    @Test
    void theMotorsSteadyStateSolvesBothItsEquations() {
        Motor motor = new Motor(3.6, 2.0, 0.02, 39);
        double e = motor.backEmf(12);
        assertThat(motor.amps(12))
                .isCloseTo((12 - e) / 3.6, within(1e-9))
                .isCloseTo(2.0 + 0.02 * e, within(1e-9));
        assertThat(motor.backEmf(5)).isZero();
        assertThat(motor.amps(5)).isCloseTo(5 / 3.6, within(1e-9));
    }

    @Test
    void aCorrodedEarthReadsNothingAtRestAndItsDropWhileMoving() {
        List<Fault> fault = List.of(new Fault.Series("G12", 0.9));
        assertThat(model.solve(OperatingState.idle(12.4), fault).volts().get("G12"))
                .isLessThan(0.05);
        var moving = model.solve(OperatingState.idle(12.4).moving(Set.of("vane-motor")), fault);
        // Ohm: what flows through the motor flows through the stud
        double amps = moving.amps().get("vane-motor");
        assertThat(moving.volts().get("G12"))
                .isCloseTo(amps * 0.909, within(0.03))
                .isBetween(1.5, 2.0);
    }

    @RepeatedTest(60)
    void moreResistanceNeverMakesAnActuatorFaster(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        double ohm = 0.01 + 5 * random.nextDouble();
        double more = 0.01 + 5 * random.nextDouble();
        OperatingState use = OperatingState.idle(12.4).moving(Set.of("vane-motor"));
        double a =
                model.solve(use, List.of(new Fault.Series("G12", ohm))).speeds().get("vane-motor");
        double b =
                model.solve(use, List.of(new Fault.Series("G12", ohm + more)))
                        .speeds()
                        .get("vane-motor");
        assertThat(b).isLessThanOrEqualTo(a + 1e-3);
    }

    @RepeatedTest(60)
    void hiddenResistanceIsFoundAgainFromTwoReadings(RepetitionInfo nth) {
        double ohm = 0.1 + 3.9 * new Random(nth.getCurrentRepetition()).nextDouble();
        for (String point : List.of("G12", "F07")) {
            List<Fault> fault = List.of(new Fault.Series(point, ohm));
            double rest = model.solve(OperatingState.idle(12.4), fault).volts().get(point);
            double bulb =
                    model.solve(OperatingState.idle(12.4).loaded(point, Load.BULB), fault)
                            .volts()
                            .get(point);
            boolean earth = point.equals("G12");
            HiddenResistance found =
                    HiddenResistance.of(earth ? 0 : 12.4, earth ? 12.4 : 0, rest, bulb, Load.BULB);
            assertThat(found.ohm()).isCloseTo(ohm, within(0.03 + 0.03 * ohm));
        }
    }

    @Test
    void refusesToComputeFromNothing() {
        assertThatThrownBy(() -> HiddenResistance.of(0, 12, 0, 1, Load.NOTHING))
                .hasMessageContaining("under load");
        assertThatThrownBy(() -> HiddenResistance.of(0, 12, Double.NaN, 1, Load.BULB))
                .hasMessageContaining("numbers");
        assertThat(HiddenResistance.of(12, 0, 12, 0, Load.BULB).sentence()).contains("broken");
    }

    @Test
    void bothActuatorsShareSupplyAndEarthButNotTheirOwnWires() {
        assertThat(model.commonPath())
                .contains("G12", "W16", "F07", "K3")
                .doesNotContain("W12", "W13", "W14", "W15");
    }
}
