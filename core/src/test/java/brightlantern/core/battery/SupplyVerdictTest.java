package brightlantern.core.battery;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the supply allows, at every limit and on either side of it. */
class SupplyVerdictTest {
    @ParameterizedTest
    @CsvSource({
        "15.3, false, false, Too high",
        "15.2, false, true, Charger connected",
        "15.2, true, true, Charging",
        "13.0, false, true, Charger connected",
        "13.0, true, true, Charging",
        "12.99, true, false, The engine runs and nothing charges",
        "12.99, false, true, Enough for short work",
        "12.2, false, true, Enough for short work",
        "12.19, false, false, 'Low, and no charger'",
        "11.5, false, false, 'Low, and no charger'",
        "11.49, false, false, Too low",
        "11.49, true, false, Too low",
        "0, false, false, Too low",
        "-3, false, false, Too low",
    })
    void everyLimit(double volts, boolean engineRuns, boolean good, String words) {
        SupplyVerdict verdict = SupplyVerdict.of(volts, engineRuns);
        assertThat(verdict.good()).isEqualTo(good);
        assertThat(verdict.words()).startsWith(words);
    }

    @Test
    void whatIsNotKnownIsNotGood() {
        assertThat(SupplyVerdict.of(Double.NaN, true).good()).isFalse();
        assertThat(SupplyVerdict.of(Double.POSITIVE_INFINITY, false).words())
                .startsWith("Too high");
    }
}
