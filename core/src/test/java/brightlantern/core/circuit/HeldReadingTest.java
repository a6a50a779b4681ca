package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;

class HeldReadingTest {
    private static HeldReading alternating(double volts) {
        return new HeldReading(
                3,
                13.6,
                14.4,
                14.05,
                OptionalDouble.of(volts),
                OptionalDouble.of(1180),
                OptionalDouble.of(48));
    }

    @Test
    void allOfItStandsInOneSentence() {
        assertThat(alternating(0.31).sentence())
                .isEqualTo(
                        "13.60 to 14.40 V over 3 s, 14.05 V on the mean; 0.310 V of it alternates, 1180 times a second, high for 48 % of it");
    }

    @Test
    void whatTheMeterCannotTellIsLeftOut() {
        OptionalDouble none = OptionalDouble.empty();
        assertThat(new HeldReading(10, 0.1, 0.1, 0.1, none, none, none).sentence())
                .isEqualTo("0.10 to 0.10 V over 10 s, 0.10 V on the mean");
        assertThatThrownBy(() -> new HeldReading(10, 1, 2, Double.NaN, none, none, none))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void rippleAtTheBatteryIsADiodeWhereItIsCharged() {
        assertThat(alternating(0.31).means(Circuit.PLUS, true)).contains("a diode that is gone");
        assertThat(alternating(0.03).means(Circuit.PLUS, true)).contains("as it should");
        assertThat(alternating(0.08).means(Circuit.PLUS, true)).contains("more than usual");
        assertThat(alternating(0.31).means(Circuit.PLUS, false)).isEmpty();
        assertThat(alternating(0.31).means("G12", true)).isEmpty();
    }
}
