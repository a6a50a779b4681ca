package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class CharacteristicTest {
    private static final VehicleDescription VAN = Vehicles.portage();

    /** A sensor with its sheet. */
    private record Sensor(Circuit on, Gauge gauge, Characteristic its) {
        @Override
        public String toString() {
            return gauge.id();
        }
    }

    static Stream<Sensor> sensors() {
        return VAN.circuits().stream()
                .filter(c -> !c.sources().isEmpty())
                .flatMap(
                        c ->
                                c.gauges().stream()
                                        .filter(g -> g.by() == Gauge.By.MODULE)
                                        .flatMap(
                                                g ->
                                                        VAN
                                                                .value(g.value())
                                                                .flatMap(
                                                                        v ->
                                                                                Characteristic.of(
                                                                                        c, g, v))
                                                                .map(k -> new Sensor(c, g, k))
                                                                .stream()));
    }

    private static Sensor sensor(String id) {
        return sensors().filter(s -> s.gauge().id().equals(id)).findFirst().orElseThrow();
    }

    @ParameterizedTest
    @MethodSource("sensors")
    void atRestItIsAsItIsDrawnAndItsFigureComesBack(Sensor s) {
        Characteristic c = s.its();
        assertThat(c.shareAt(c.rest())).isEqualTo(c.share());
        assertThat(c.timesAt(c.share())).isEqualTo(1, within(1e-12));
        for (int i = 1; i < 20; i++) {
            double figure = c.least() + (c.most() - c.least()) * i / 20;
            assertThat(c.figureAt(c.shareAt(figure))).isCloseTo(figure, within(1e-9 * c.most()));
            assertThat(c.shareAt(figure)).isBetween(0.05, 0.95);
        }
    }

    /** Where its circuit is solved, the module sees the share that the characteristic wants. */
    @ParameterizedTest
    @MethodSource("sensors")
    void theModuleSeesWhatItFeels(Sensor s) {
        for (double share : List.of(0.1, 0.3, 0.6, 0.9)) {
            OperatingState state =
                    OperatingState.idle(GaugeState.TYPICAL_VOLTS).feeling(s.its().at(share));
            Voltages volts = new FaultTable(s.on(), state).with(Optional.empty());
            assertThat(s.gauge().share(s.on(), volts, List.of()))
                    .as("%s at %s", s, share)
                    .isCloseTo(share, within(0.01));
        }
    }

    @ParameterizedTest
    @CsvSource({"-40, 1", "-39, 1", "214, 0", "20, 0.5217"})
    void atAnEndOfItsRangeAllOrNothingArrives(double celsius, double share) {
        assertThat(sensor("coolant-sensor").its().arrives(celsius)).isCloseTo(share, within(1e-3));
    }

    private ExpectedReading reads(String sensor, double told, String point, List<Fault> faults) {
        Circuit on = sensor(sensor).on();
        String value = sensor(sensor).gauge().value();
        Sensed sensed = Sensed.at(on, point, VAN::value, Map.of(value, told)).orElseThrow();
        return sensed.reads(
                point,
                GaugeState.TYPICAL_VOLTS,
                faults,
                felt ->
                        new FaultTable(
                                        on,
                                        OperatingState.idle(GaugeState.TYPICAL_VOLTS).feeling(felt))
                                .with(faults.stream().findFirst()));
    }

    @Test
    void aSoundSensorReadsWhatItsModuleTells() {
        for (double celsius : List.of(0.0, 20.0, 90.0)) {
            double share = sensor("coolant-sensor").its().shareAt(celsius);
            ExpectedReading reads = reads("coolant-sensor", celsius, "X83.1", List.of());
            assertThat(reads.volts()).isCloseTo(5 * share, within(0.02));
            assertThat(reads.tolerance()).isLessThan(0.2);
        }
    }

    @Test
    void ohmsInItsWireAreSeenBetweenWhatIsToldAndWhatIsRead() {
        List<Fault> corroded = List.of(new Fault.Series("W-coolant-sensor", 800));
        double told = 20;
        // the module sees the sensor and the wire together: 0.522 of 5 V over 2200 Ω
        double amps = 5 * (1 - sensor("coolant-sensor").its().shareAt(told)) / 2200;
        double atModule = reads("coolant-sensor", told, "X1.12", corroded).volts();
        double atSensor = reads("coolant-sensor", told, "X83.1", corroded).volts();
        assertThat(atModule - atSensor).isCloseTo(800 * amps, within(0.03));
    }

    @Test
    void behindAnOpenWireNobodyKnowsWhatTheSensorTells() {
        List<Fault> open = List.of(new Fault.Series("W-rail-sensor", Fault.Series.OPEN_OHM));
        ExpectedReading reads = reads("rail-sensor", 0, "X87.2", open);
        assertThat(reads.tolerance()).isGreaterThan(0.8);
        assertThat(reads("rail-sensor", 0, "X1.43", open).volts()).isCloseTo(0, within(0.05));
    }

    @Test
    void whoSharesOnlyReferenceOrEarthIsNotAtItsSignal() {
        Circuit on = sensor("rail-sensor").on();
        assertThat(Sensed.valueAt(on, "X87.2")).contains("rail.pressure");
        assertThat(Sensed.valueAt(on, "X1.44")).contains("oil.pressure");
        assertThat(Sensed.valueAt(on, "X1.41")).isEmpty();
        assertThat(Sensed.valueAt(on, "X87.3")).isEmpty();
        assertThat(Sensed.valueAt(VAN.circuit("low-beam").orElseThrow(), "F41")).isEmpty();
    }
}
