package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A plan whose instrument somebody sets otherwise. */
class CaptureSettingsTest {
    private static final CapturePlan PLAN = CapturePlans.ripple();

    @Test
    void whatIsLeftEmptyStays() {
        assertThat(CaptureSettings.applied(PLAN, Map.of("every", " ", "when", ""))).isEqualTo(PLAN);
    }

    @Test
    void whatIsSaidIsSet() {
        CapturePlan set =
                CaptureSettings.applied(
                        PLAN,
                        Map.of(
                                "every", "10",
                                "seconds", "2,5",
                                "before", "20",
                                "range-1", "4",
                                "when", "SHORTER",
                                "level", "-0.2",
                                "held", "3",
                                "coupling", "ac",
                                "filter", "20000"));
        assertThat(set.interval()).isEqualTo(1e-5);
        assertThat(set.points()).isEqualTo(250_000);
        assertThat(set.before()).isEqualTo(0.2);
        assertThat(set.lanes().get(0).range()).isEqualTo(4);
        assertThat(set.trigger())
                .contains(new CapturePlan.Trigger(1, -0.2, CapturePlan.When.SHORTER, 0.003));
        assertThat(set.input()).isEqualTo(new CapturePlan.Input(true, 20_000));
        assertThat(CaptureSettings.applied(set, Map.of("when", "at-once")).trigger()).isEmpty();
    }

    @Test
    void aTransducersLineIsHalfAVoltAtNothingAndFourVoltsMoreAtItsEnd() {
        CapturePlan set =
                CaptureSettings.applied(PLAN, Map.of("per-volt-1", "400", "zero-1", "0.5"));
        ProbeOutput line = set.lanes().get(0).output();
        assertThat(line.felt(0.5)).isZero();
        assertThat(line.felt(4.5)).isEqualTo(1600);
        assertThat(line.volts(1600)).isEqualTo(4.5);
        // to either side of nothing, seen from 0 V
        assertThat(line.span(1600)).isEqualTo(4.5);
        assertThat(line.step(0.001)).isEqualTo(0.4);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "every | 0.01 | From sample to sample '0.01': expected a number from 0.05 to 1000000.",
                "every | fast | From sample to sample 'fast': expected a number",
                "seconds | 3000 | 60000000 samples; expected 4000000 or fewer",
                "range-1 | -3 | Range of lane 1 '-3': expected a number from 0.001",
                "per-volt-1 | 0 | One volt of lane 1 '0': expected a number from 0.000001 to 1000000.",
                "zero-1 | NaN | Volts at zero of lane 1 'NaN': expected a number from -100 to 100.",
                "filter | 1e9 | Filter '1e9': expected a number from 0 to 10000.",
                "when | RISES | Level '': expected a number from -1000000 to 1000000."
            })
    void whatCannotBeSetIsSaid(String key, String value, String words) {
        assertThatThrownBy(() -> CaptureSettings.applied(PLAN, Map.of(key, value)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(words);
    }
}
