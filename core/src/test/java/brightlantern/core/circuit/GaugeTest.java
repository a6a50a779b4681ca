package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GaugeTest {
    private final VehicleDescription van = Vehicles.portage();

    private Gauge gauge(String id) {
        return van.circuits().stream()
                .flatMap(c -> c.gauges().stream())
                .filter(g -> g.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({"-40, high", "-38, high", "-20, within", "90, within", "205, within", "214, low"})
    void aTemperatureAtAnEndOfItsRangeIsNone(double celsius, String band) {
        Gauge coolant = gauge("coolant-sensor");
        Value value = van.value(coolant.value()).orElseThrow();
        assertThat(coolant.isToldByValue()).isTrue();
        assertThat(coolant.told(value, celsius).id()).isEqualTo(band);
    }

    @Test
    void noPressureMayBeAPressure() {
        assertThat(gauge("oil-pressure-sensor").isToldByValue()).isFalse();
        assertThat(gauge("rail-sensor").isToldByValue()).isFalse();
    }

    /** Bar by an instrument of one's own, by the module, and whether a dead sensor fits that. */
    @ParameterizedTest
    @CsvSource({"0, 0, true", "0.004, 0, true", "3, 3.01, false", "3, 0, true", "0, 5, false"})
    void atRestTwoFiguresOfNothingDoNotSpeakForTheSensor(double felt, double told, boolean dead) {
        Gauge oil = gauge("oil-pressure-sensor-compared");
        Value value = van.value(oil.value()).orElseThrow();
        double bar = oil.most(value) / 10;
        Circuit its =
                van.circuits().stream().filter(c -> c.gauges().contains(oil)).findFirst().get();
        Characteristic characteristic = Characteristic.of(its, oil, value).orElseThrow();
        Band shown = oil.compared(characteristic, value, felt * bar / 3, told * bar / 3);
        assertThat(oil.begin(shown) < 0).isEqualTo(dead);
        assertThat(oil.band(shown.id()).map(Band::well)).contains(shown.well());
    }

    @Test
    void aFaultInsideALampTakesItsVoltageAlthoughThePinsHaveIt() {
        Circuit lowBeam = van.circuit("low-beam").orElseThrow();
        GaugeState state = new GaugeState(lowBeam, GaugeState.TYPICAL_VOLTS);
        Fault burnt = new Fault.Series("low-left", Fault.Series.OPEN_OHM);
        assertThat(state.wrong(Optional.of(burnt)))
                .extracting(Gauge::id)
                .containsExactly("low-left");
        assertThat(state.wrong(Optional.empty())).isEmpty();
    }

    @Test
    void whatTwoLampsShareDarkensBothAndWhatOneHasOnlyThatOne() {
        Wiring wiring = van.wiring();
        GaugeState state =
                new GaugeState(wiring.circuit("low-beam").orElseThrow(), GaugeState.TYPICAL_VOLTS);
        assertThat(state.edge("F41").orElseThrow()).isLessThan(2);
        assertThat(state.wrong(Optional.of(new Fault.Series("F41", 5)))).hasSize(2);
        assertThat(state.wrong(Optional.of(new Fault.Series("W-low-right", 5))))
                .extracting(Gauge::id)
                .containsExactly("low-right");
        assertThat(wiring.alike("low-left"))
                .containsExactlyInAnyOrder("low-left", "C-X30.2", "C-X30.5");
        assertThat(wiring.alike("F41")).containsExactly("F41");
        assertThat(wiring.with("G101")).hasSizeGreaterThan(4);
    }
}
