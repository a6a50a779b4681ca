package brightlantern.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.scpi.CommandProfile;
import brightlantern.wire.scpi.ScpiClient;
import java.io.ByteArrayInputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.junit.jupiter.api.Test;

/** Definite-length blocks as instruments send them, whole and torn. */
class ScpiBlockTest {
    /** Asks an instrument that sends this, and hangs up then or stays silent. */
    private static byte[] asked(String sends, boolean hangsUp) throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getByName("127.0.71.9"));
                ScpiClient client =
                        new ScpiClient(
                                new InetSocketAddress("127.0.71.9", server.getLocalPort()),
                                Duration.ofMillis(300));
                Socket instrument = server.accept()) {
            instrument.getOutputStream().write(sends.getBytes(StandardCharsets.ISO_8859_1));
            if (hangsUp) {
                instrument.shutdownOutput();
            }
            return client.block("DATA?", 1000);
        }
    }

    @Test
    void aWholeBlockIsItsBytes() throws Exception {
        assertThat(asked("#14ab\nd\n", false))
                .isEqualTo("ab\nd".getBytes(StandardCharsets.US_ASCII));
        assertThat(asked("#3002\u0000\u00ff\n", false)).containsExactly(0, 0xFF);
    }

    @Test
    void aTornOneIsToldByWhatIsMissing() {
        assertThatThrownBy(() -> asked("#210abc", true))
                .isInstanceOf(WireFormatException.class)
                .hasMessageContaining("10 bytes")
                .hasMessageContaining("end of the connection");
        assertThatThrownBy(() -> asked("#210abc", false)).isInstanceOf(SilenceException.class);
        assertThatThrownBy(() -> asked("9.91E37\n", false)).hasMessageContaining("no block");
        assertThatThrownBy(() -> asked("#41001", false)).hasMessageContaining("up to 1000 bytes");
        assertThatThrownBy(() -> asked("#2x1a", false)).hasMessageContaining("'x1'");
        assertThatThrownBy(() -> asked("#12abcd\n", false)).hasMessageContaining("more bytes");
    }

    @Test
    void aProfileThatLacksACommandIsRefused() {
        assertThatThrownBy(
                        () ->
                                CommandProfile.read(
                                        CommandProfile.Kind.OSCILLOSCOPE,
                                        new ByteArrayInputStream(
                                                "start = INIT\n"
                                                        .getBytes(StandardCharsets.ISO_8859_1))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("lacks the command 'connect'");
        assertThat(CommandProfile.standard(CommandProfile.Kind.OSCILLOSCOPE)).isNotNull();
    }
}
