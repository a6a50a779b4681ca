package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Loads at a point that they share, against the parallel circuit solved by hand. */
class TogetherTest {
    private static final double VOLTS = 12;

    @ParameterizedTest
    @CsvSource({"0.01, 4, 4", "1, 4, 6", "50, 12, 3", "1e9, 10, 20"})
    void conductancesAddUp(double shared, double first, double second) {
        double one = VOLTS * shared / (shared + first);
        double other = VOLTS * shared / (shared + second);
        double parallel = first * second / (first + second);
        double both = VOLTS * shared / (shared + parallel);
        Offset<Double> near = Offset.offset(1e-4);
        assertThat(SharedPoints.together(VOLTS, false, List.of(one, other))).isCloseTo(both, near);
        assertThat(SharedPoints.together(VOLTS, true, List.of(VOLTS - one, VOLTS - other)))
                .isCloseTo(VOLTS - both, near);
    }

    /** Whatever is open, nothing lies beyond the supply. */
    @ParameterizedTest
    @CsvSource({"12, 12, 12", "12, 0, 11.9999999", "11, 12, 0.5"})
    void nothingExceedsTheSupply(double a, double b, double c) {
        assertThat(SharedPoints.together(VOLTS, false, List.of(a, b, c))).isBetween(0.0, VOLTS);
    }
}
