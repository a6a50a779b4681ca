package brightlantern.core.vehicle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

class VinTest {
    @Test
    void checkDigitOfSeventeenOnesIsOne() {
        // worked by hand: the weights add up to 89, and 89 mod 11 is 1
        assertThat(new Vin("11111111111111111").expectedCheckDigit()).isEqualTo('1');
    }

    @Test
    void saysWhichCharacterIsWrong() {
        assertThatThrownBy(() -> new Vin("ZZTPG22D0M1O00417"))
                .hasMessageContaining("Character 12")
                .hasMessageContaining("'O'");
        assertThatThrownBy(() -> new Vin("ZZT")).hasMessageContaining("has 3");
    }

    @RepeatedTest(500)
    void oneChangedDigitIsNoticed(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        int serial = random.nextInt(1_000_000);
        int place = 11 + random.nextInt(6);
        String open = "ZZTPG22D0M1%06d".formatted(serial);
        String good = open.substring(0, 8) + new Vin(open).expectedCheckDigit() + open.substring(9);
        assertThat(new Vin(good).checkDigitHolds()).isTrue();
        char other = good.charAt(place) == '9' ? '0' : (char) (good.charAt(place) + 1);
        String bad = good.substring(0, place) + other + good.substring(place + 1);
        assertThat(new Vin(bad).checkDigitHolds()).isFalse();
    }

    @Test
    void theTenthCharacterTellsTheModelYearAndReturnsAfterThirty() {
        Vin vin = new Vin("ZZTPG22D0M1000417");
        Vin right =
                new Vin(
                        vin.text().substring(0, 8)
                                + vin.expectedCheckDigit()
                                + vin.text().substring(9));
        assertThat(right.modelYear(2026)).hasValue(2021);
        assertThat(right.modelYear(2020)).as("next year's models are sold").hasValue(2021);
        assertThat(right.modelYear(2019)).hasValue(1991);
        Vin wrong = new Vin(right.text().substring(0, 16) + "8");
        assertThat(wrong.modelYear(2026)).as("its check digit does not hold").isEmpty();
    }
}
