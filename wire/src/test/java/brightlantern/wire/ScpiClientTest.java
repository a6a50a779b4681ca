package brightlantern.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.scpi.ScpiClient;
import brightlantern.wire.scpi.ScpiLine;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A meter's client over a real socket, against an instrument that says what a test wrote down. */
class ScpiClientTest {
    private static final Duration WAIT = Duration.ofMillis(300);
    private static final String HANG_UP = "\u0000";

    private final Map<String, String> answers = new ConcurrentHashMap<>();
    private ServerSocket server;
    private ScpiClient client;

    @BeforeEach
    void open() throws Exception {
        server = new ServerSocket(0, 5, InetAddress.getByName("127.0.0.1"));
        Thread thread = new Thread(this::serve, "instrument");
        thread.setDaemon(true);
        thread.start();
        client = new ScpiClient((InetSocketAddress) server.getLocalSocketAddress(), WAIT);
    }

    @AfterEach
    void close() throws IOException {
        client.close();
        server.close();
    }

    private void serve() {
        try (Socket socket = server.accept()) {
            BufferedReader in =
                    new BufferedReader(
                            new InputStreamReader(
                                    socket.getInputStream(), StandardCharsets.US_ASCII));
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                String answer = answers.getOrDefault(line, "");
                if (answer.equals(HANG_UP)) {
                    return;
                }
                socket.getOutputStream().write(answer.getBytes(StandardCharsets.US_ASCII));
            }
        } catch (IOException gone) {
            // the test is over
        }
    }

    @Test
    void aNumberIsReadInEveryFormThatTheStandardAllows() throws Exception {
        answers.put("MEAS:VOLT:DC?", "+1.24800E+01\n");
        answers.put("MEAS:RES?", " 40\r\n");
        assertThat(client.number("MEAS:VOLT:DC?")).isEqualTo(12.48);
        assertThat(client.number("MEAS:RES?")).isEqualTo(40);
    }

    @ParameterizedTest
    @ValueSource(strings = {"9.9E37", "-9.9E37", "9.91E37", "Infinity", "NaN"})
    void anOverloadIsNoReading(String told) {
        answers.put("MEAS:VOLT:DC?", told + "\n");
        assertThatThrownBy(() -> client.number("MEAS:VOLT:DC?"))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("overloaded or has nothing to measure");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "twelve", "12,4", "12.4 V", "1.2.3"})
    void whatIsNoNumberIsQuoted(String told) {
        answers.put("MEAS:VOLT:DC?", told + "\n");
        assertThatThrownBy(() -> client.number("MEAS:VOLT:DC?"))
                .isInstanceOf(WireFormatException.class)
                .hasMessageContaining("a number in answer to 'MEAS:VOLT:DC?'")
                .hasMessageContaining("'" + told + "'");
    }

    @Test
    void aRefusedCommandIsToldWithTheInstrumentsWords() throws Exception {
        answers.put("SYST:ERR?", "0,\"No error\"\n");
        client.command("ROUT:CLOS (@1)");
        answers.put("SYST:ERR?", "-222,\"Data out of range\"\n");
        assertThatThrownBy(() -> client.command("ROUT:CLOS (@99)"))
                .hasMessageContaining("refused 'ROUT:CLOS (@99)'")
                .hasMessageContaining("Data out of range");
    }

    @Test
    void silenceAHangUpAndABrokenLineAreToldApart() {
        assertThatThrownBy(() -> client.query("*IDN?"))
                .isInstanceOf(SilenceException.class)
                .hasMessageContaining("did not answer '*IDN?'");
        answers.put("*TST?", "half a li");
        assertThatThrownBy(() -> client.query("*TST?")).isInstanceOf(SilenceException.class);
        answers.put("*OPC?", HANG_UP);
        assertThatThrownBy(() -> client.query("*OPC?"))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("closed the connection");
        assertThatThrownBy(() -> client.query("*IDN?")).isInstanceOf(WireException.class);
    }

    @Test
    void aLineWithoutEndTakesNoMemory() {
        answers.put("*IDN?", "x".repeat(10 * ScpiLine.MAX_LENGTH));
        assertThatThrownBy(() -> client.query("*IDN?"))
                .isInstanceOf(WireFormatException.class)
                .hasMessageContaining("the end of the line");
    }

    @Test
    void nobodyThereIsToldWithTheAddress() throws Exception {
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        assertThatThrownBy(
                        () ->
                                new ScpiClient(new InetSocketAddress("127.0.0.1", port), WAIT)
                                        .close())
                .hasMessageContaining("No instrument answers at 127.0.0.1:" + port);
    }
}
