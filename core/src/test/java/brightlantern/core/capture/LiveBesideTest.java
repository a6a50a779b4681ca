package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.take.Take;
import org.junit.jupiter.api.Test;

/** A take that began two seconds before a capture. */
class LiveBesideTest {
    private final Take.Column speed =
            new Take.Column(new double[] {0, 2.5, 3, 4, 12}, new double[] {10, 20, 30, 15, 40});

    @Test
    void whatWasToldLastHoldsUntilTheNextAndIsThenNotKnown() {
        assertThat(LiveBeside.columns(speed, 2, 0, 2, 4))
                .containsExactly(10.0, 20.0, 20.0, 30.0, 30.0, 30.0, 15.0, 30.0);
        // nothing was told for more than five seconds
        assertThat(LiveBeside.columns(speed, 2, 7.5, 9.5, 1)).containsExactly(null, null);
    }

    @Test
    void onlyWhatRanAtTheSameTimeCounts() {
        assertThat(LiveBeside.isWithin(speed, 2, 1)).isTrue();
        assertThat(LiveBeside.isWithin(speed, -20, 5)).isFalse();
        assertThat(LiveBeside.isWithin(speed, 30, 5)).isFalse();
    }
}
