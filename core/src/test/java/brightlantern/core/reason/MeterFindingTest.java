package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What somebody types from a meter tells the outcome of a finding. */
class MeterFindingTest {
    private static final VehicleDescription FINCH =
            CircuitSuspects.added(NetworkSuspects.added(Vehicles.named("oriel-finch")));

    private static MeterFinding finding(String id) {
        return MeterFinding.of(FINCH, id).orElseThrow();
    }

    /** A lamp of 21 W has 6.9 Ω hot and a fifth of that cold. */
    @ParameterizedTest(name = "{0} of {1}")
    @CsvSource({
        "1.4, gauge-brake-left-ohms, right",
        "'1,3 Ω', gauge-brake-left-ohms, right",
        "4, gauge-brake-left-ohms, worn",
        "OL, gauge-brake-left-ohms, open",
        "2.2M, gauge-brake-left-ohms, open",
        "0.1, gauge-brake-left-ohms, shorted",
        "60.4, wires-drive, both",
        "118, wires-drive, one",
        "92, wires-drive, between",
        "3, wires-drive, low",
        "O.L, wires-drive, none",
        "0.31k, wires-drive, none",
        "30 mV, W-oil-sensor-lost, nothing",
        "-200m, W-oil-sensor-lost, some"
    })
    void tellsTheOutcome(String typed, String finding, String outcome) {
        String id = finding.endsWith("-lost") ? "gauge-" + finding : finding;
        assertThat(finding(id).read("Your meter", typed).id()).isEqualTo(outcome);
    }

    @Test
    void whatCannotBeReadIsSaid() {
        MeterFinding lamp = finding("gauge-brake-left-ohms");
        assertThatThrownBy(() -> lamp.read("Your meter", "-3"))
                .hasMessage(
                        "Your meter: nothing has -3 Ω. Voltage at the pins does that: switch the supply off, unplug the part, and read again.");
        assertThatThrownBy(() -> lamp.read("Your meter", "warm"))
                .hasMessageContaining("expected a number in Ω")
                .hasMessageContaining("'warm'");
        assertThatThrownBy(() -> finding("gauge-W-oil-sensor-lost").read("Your meter", "OL"))
                .hasMessageContaining("too small");
        assertThat(MeterFinding.of(FINCH, "gauge-brake-left")).as("eyes tell it").isEmpty();
        assertThat(MeterFinding.of(FINCH, "none")).isEmpty();
    }
}
