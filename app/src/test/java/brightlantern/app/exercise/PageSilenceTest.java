package brightlantern.app.exercise;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class PageSilenceTest {
    private static final long SECOND = 1_000_000_000L;

    @Test
    void whatIsNotHeardIsCountedFromTheLastCall() {
        PageSilence silence = new PageSilence(-SECOND);
        assertThat(silence.look(0)).isCloseTo(1, within(1e-9));
        silence.heard(SECOND);
        for (int tenth = 1; tenth <= 52; tenth++) {
            assertThat(silence.look(SECOND + tenth * SECOND / 10))
                    .isCloseTo(tenth / 10.0, within(1e-9));
        }
    }

    @Test
    void aMachineThatSleptHasNotListened() {
        PageSilence silence = new PageSilence(0);
        silence.look(SECOND);
        assertThat(silence.look(61 * SECOND)).isCloseTo(3, within(1e-9));
        silence.heard(61 * SECOND);
        assertThat(silence.look(61 * SECOND)).isZero();
    }
}
