package brightlantern.core.signal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TypedFigureTest {
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    12.4 | 12.4
                    12,4 V | 12.4
                    47 mV | 0.047
                    47mv | 0.047
                    1,2k | 1200
                    -0.3 | -0.3
                    −0.3 v | -0.3
                    .5 | 0.5
                    250 µV | 0.00025
                    3e-3 | 0.003
                    2 M | 2000000
                    """)
    void isUnderstood(String typed, double volts) {
        assertThat(TypedFigure.of("Reading", typed, "V"))
                .isCloseTo(volts, within(1e-9 * Math.abs(volts)));
    }

    @ParameterizedTest(name = "''{0}''")
    @ValueSource(strings = {"", "twelve", "1.234,5", "47 mA", "12 Ω", "1e999", "NaN", "5 5", "k"})
    void whatIsNoFigureIsNamed(String typed) {
        assertThatThrownBy(() -> TypedFigure.of("Reading", typed, "V"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith("Reading: expected a number in V")
                .hasMessageContaining("'" + typed + "'");
    }

    /** Nobody means a thousandth of a bar by "5 m". */
    @ParameterizedTest(name = "{0} in {1}")
    @CsvSource({"5 m, bar", "3k, °C", "2 psi, bar", "12 M, MPa"})
    void whatIsNotElectricalHasNoPrefix(String typed, String unit) {
        assertThatThrownBy(() -> TypedFigure.of("Your instrument", typed, unit))
                .hasMessage(
                        "Your instrument: expected a number in "
                                + unit
                                + ", found '"
                                + typed
                                + "'.");
        assertThat(TypedFigure.of("Your instrument", "12,5 " + unit, unit)).isEqualTo(12.5);
    }

    @ParameterizedTest(name = "''{0}''")
    @ValueSource(strings = {"OL", "ol", "O.L", "-OL", "overload"})
    void beyondTheRangeIsTold(String typed) {
        assertThatThrownBy(() -> TypedFigure.of("Reading", typed, "V"))
                .hasMessageContaining("range of the instrument is too small");
    }
}
