package brightlantern.core.sweep;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class ProductionDateTest {
    @Test
    void packedDecimalsWithTwoOrFourDigitsOfTheYear() {
        assertThat(ProductionDate.text(new byte[] {0x20, 0x21, 0x03, 0x17}))
                .isEqualTo("2021-03-17");
        assertThat(ProductionDate.text(new byte[] {0x19, 0x12, 0x31})).isEqualTo("2019-12-31");
    }

    @Test
    void lettersStayAndNonsenseIsShownAsItIs() {
        assertThat(ProductionDate.text("2021-W11".getBytes())).isEqualTo("2021-W11");
        assertThat(ProductionDate.text(new byte[] {0x20, 0x21, 0x13, 0x40}))
                .isEqualTo("20 21 13 40");
        assertThat(ProductionDate.text(new byte[] {0x2A, 0x21, 0x03, 0x17}))
                .isEqualTo("2A 21 03 17");
        assertThat(ProductionDate.text(new byte[0])).isEmpty();
    }
}
