package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ToolBoxTest {
    @ParameterizedTest
    @CsvSource({
        "0.5, 0.500 Ω",
        "119.8, 120 Ω",
        "999.7, 1.00 kΩ",
        "1253, 1.25 kΩ",
        "2200000, 2200.00 kΩ",
    })
    void tellsOhmsAsADisplayDoes(double ohm, String shown) {
        assertThat(ToolBox.told(ohm)).isEqualTo("Your meter reads " + shown + ".");
    }

    @ParameterizedTest
    @CsvSource({"2.1e7", "1e9", "Infinity"})
    void tellsWhatIsOpenAsOverload(double ohm) {
        assertThat(ToolBox.told(ohm)).contains("overload");
    }
}
