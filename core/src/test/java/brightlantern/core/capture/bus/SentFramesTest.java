package brightlantern.core.capture.bus;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.network.ExpectedFrames;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Frames of a station, held against what is described. */
class SentFramesTest {
    private static final ExpectedFrames EXPECTED = new ExpectedFrames(10, 8, 8);

    private static SentFrames sent(int frames, double everyMs, int bytes) {
        List<CanFrame> its =
                IntStream.range(0, frames)
                        .mapToObj(
                                i ->
                                        new CanFrame(
                                                i * everyMs / 1000,
                                                0x110,
                                                false,
                                                new byte[bytes],
                                                false,
                                                Optional.empty(),
                                                true,
                                                true,
                                                i,
                                                i + 1))
                        .toList();
        return SentFrames.of("Brakes", EXPECTED, its);
    }

    @Test
    void asDescribedNothingIsSaid() {
        assertThat(sent(6, 10.6, 8).odd()).isEmpty();
        assertThat(sent(1, 0, 8).odd()).isEmpty();
        assertThat(sent(0, 0, 8).bytes()).isEqualTo("–");
    }

    @Test
    void tooOftenTooSeldomAndOtherLengthsAreTold() {
        assertThat(sent(20, 2.5, 8).odd())
                .contains("Brakes sends too often: every 2.5 ms, expected every 10.0");
        assertThat(sent(3, 20, 8).odd())
                .contains("Brakes sends too seldom: every 20.0 ms, expected every 10.0");
        assertThat(sent(6, 10, 4).odd()).contains("Brakes sends frames of 4 bytes, expected 8");
    }
}
