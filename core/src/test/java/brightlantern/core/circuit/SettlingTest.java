package brightlantern.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.OptionalDouble;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;

/** Figures of a meter, eight a second. */
class SettlingTest {
    private static final double EVERY = 0.125;

    private final Random noise = new Random(4);

    /** The seconds after which it is taken, and what; nothing within ten. */
    private double[] taken(boolean held, OptionalDouble before, DoubleUnaryOperator volts) {
        Settling settling = new Settling(held, before);
        for (double t = 0; t < 10; t += EVERY) {
            OptionalDouble mean =
                    settling.add(t, volts.applyAsDouble(t) + 0.003 * noise.nextGaussian());
            if (mean.isPresent()) {
                return new double[] {t, mean.getAsDouble()};
            }
        }
        return new double[0];
    }

    @Test
    void whatStaysIsTakenAfterASecond() {
        double[] taken = taken(true, OptionalDouble.empty(), t -> 12.31);
        assertThat(taken[0]).isCloseTo(0.9, within(0.15));
        assertThat(taken[1]).isCloseTo(12.31, within(0.005));
    }

    @Test
    void whatCreepsIsWaitedFor() {
        double[] taken = taken(true, OptionalDouble.empty(), t -> 5 + 4 * Math.exp(-t));
        assertThat(taken[0]).isGreaterThan(3);
        assertThat(taken[1]).isCloseTo(5, within(0.15));
        assertThat(taken(true, OptionalDouble.empty(), t -> 8 + Math.sin(3 * t))).isEmpty();
    }

    @Test
    void aLeadInTheAirIsNoReading() {
        assertThat(taken(true, OptionalDouble.empty(), t -> 0.01)).isEmpty();
        // one that the meter switches cannot
        assertThat(taken(false, OptionalDouble.of(0.01), t -> 0.01)[1]).isCloseTo(0, within(0.02));
        // lifted, then put down
        assertThat(taken(true, OptionalDouble.empty(), t -> t < 3 ? 0.01 : 11.8)[0])
                .isGreaterThan(3.7);
    }

    @Test
    void aLeadThatSomebodyHoldsHasToLeaveItsPointFirst() {
        OptionalDouble before = OptionalDouble.of(12.3);
        assertThat(taken(true, before, t -> 12.3)).isEmpty();
        assertThat(taken(true, before, t -> t < 2 ? 12.3 : t < 2.6 ? 0.02 : 12.28)[1])
                .isCloseTo(12.28, within(0.01));
    }
}
