package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.bus.CanFrame;
import brightlantern.core.capture.bus.FrameLog;
import java.io.IOException;
import java.io.StringWriter;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class FrameLogTest {
    @Test
    void aLineAFrameWithItsTimeAndHexadecimalDigits() throws IOException {
        StringWriter out = new StringWriter();
        FrameLog.write(
                List.of(
                        new CanFrame(
                                0.0125,
                                0x12,
                                false,
                                new byte[] {1, -1},
                                false,
                                Optional.empty(),
                                true,
                                true,
                                0,
                                9),
                        new CanFrame(
                                0.5,
                                0x18DAF110,
                                true,
                                new byte[0],
                                true,
                                Optional.empty(),
                                true,
                                true,
                                0,
                                9),
                        new CanFrame(
                                1,
                                0x7F0,
                                false,
                                new byte[] {10},
                                false,
                                Optional.of(new CanFrame.Fd(true, false)),
                                true,
                                true,
                                0,
                                9)),
                Instant.ofEpochMilli(1_000_250),
                "chassis",
                out);
        assertThat(out.toString().lines())
                .containsExactly(
                        "(1000.262500) chassis 012#01FF",
                        "(1000.750000) chassis 18DAF110#R",
                        "(1001.250000) chassis 7F0##10A");
    }
}
