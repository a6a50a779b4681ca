package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FilamentTest {
    /** What a part adds between two nodes: amps + siemens · volts. */
    private static final class Added implements Equations {
        private double amps;
        private double siemens;

        @Override
        public void resistor(String a, String b, double ohm) {
            current(a, b, 0, 1 / ohm);
        }

        @Override
        public void current(String a, String b, double amps, double siemens) {
            this.amps += amps;
            this.siemens += siemens;
        }

        double at(double volts) {
            return amps + siemens * volts;
        }
    }

    private static double amps(Filament f, double volts) {
        Added its = new Added();
        f.stamp(its, "a", "b", volts);
        return its.at(volts);
    }

    private static Added tangent(Filament f, double volts) {
        Added its = new Added();
        f.tangent(its, "a", "b", volts);
        return its;
    }

    /** R at 12 V, ohms in its way, volts across both. */
    @ParameterizedTest
    @CsvSource({
        "2.6, 0, 12",
        "2.6, 0, 3",
        "2.6, 0, -7",
        "28.8, 5, 12",
        "2.6, 40, 12",
        "2.6, 0, 0.1",
        "2.6, 0, 40"
    })
    void theTangentMeetsItAndGoesItsWay(double ohm, double more, double volts) {
        Filament f = new Filament(ohm, more);
        Added its = tangent(f, volts);
        assertThat(its.at(volts)).isCloseTo(amps(f, volts), within(1e-12));
        double step = 1e-5;
        double slope = (amps(f, volts + step) - amps(f, volts - step)) / (2 * step);
        assertThat(its.siemens).isCloseTo(slope, within(1e-6));
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.5, 2, 6, 12, 16})
    void fromTheColdOnItsCurrentBendsDown(double volts) {
        Filament f = new Filament(2.6, 0);
        for (double at = 0.1; at < 16; at += 0.5) {
            assertThat(tangent(f, at).at(volts)).isGreaterThanOrEqualTo(amps(f, volts) - 1e-12);
        }
    }

    @Test
    void whatIsNotKnownYetIsCold() {
        Added its = tangent(new Filament(10, 0), Double.NaN);
        assertThat(its.amps).isZero();
        assertThat(its.siemens).isCloseTo(1 / (10 * Filament.COLDEST), within(1e-12));
    }

    /** A lamp that hangs in the air swings to neither side. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 1e3, 1e6, 1e9})
    void behindAnyResistanceItComesToRest(double ohm) {
        Circuit beam = Vehicles.portage().circuit("low-beam").orElseThrow();
        Fault fault = new Fault.Series("F41", ohm);
        OperatingState on = OperatingState.idle(12.4).moving(Set.of(beam.settings().get(0).id()));
        Voltages quick = new FaultTable(beam, on).with(Optional.of(fault));
        CircuitModel.Solution full = new CircuitModel(beam).solve(on, List.of(fault));
        full.volts().forEach((p, v) -> assertThat(quick.at(p)).as(p).isCloseTo(v, within(1e-5)));
    }
}
