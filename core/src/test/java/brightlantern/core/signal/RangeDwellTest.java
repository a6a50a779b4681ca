package brightlantern.core.signal;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.signal.RangeDwell.Told;
import org.junit.jupiter.api.Test;

class RangeDwellTest {
    private final RangeDwell dwell = new RangeDwell();

    @Test
    void aJitterIsNotTold() {
        dwell.after(Told.IN, 0);
        assertThat(dwell.after(Told.IN, 1)).isEqualTo(Told.IN);
        for (double t = 1.2; t < 4; t += 0.4) {
            assertThat(dwell.after(Told.OUT, t)).as("at %.1f s", t).isEqualTo(Told.IN);
            assertThat(dwell.after(Told.IN, t + 0.2)).isEqualTo(Told.IN);
        }
    }

    @Test
    void whatStaysIsToldAfterASecondAndNothingAtOnce() {
        assertThat(dwell.after(Told.OUT, 0)).isEqualTo(Told.NOT_JUDGED);
        assertThat(dwell.after(Told.OUT, 0.9)).isEqualTo(Told.NOT_JUDGED);
        assertThat(dwell.after(Told.OUT, 1)).isEqualTo(Told.OUT);
        assertThat(dwell.after(Told.NOT_JUDGED, 1.1)).isEqualTo(Told.NOT_JUDGED);
    }
}
