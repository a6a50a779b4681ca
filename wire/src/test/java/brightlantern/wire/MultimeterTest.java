package brightlantern.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.scpi.Multimeter;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A meter of the bench that measures and knows no other command. */
class MultimeterTest {
    private final List<String> heard = new CopyOnWriteArrayList<>();
    private volatile String ohms = "+5.98000E+01";
    private volatile String refusal = "-113,\"Undefined header\"";
    private ServerSocket server;

    @BeforeEach
    void opens() throws IOException {
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        Thread answers = new Thread(this::answer, "bench-meter");
        answers.setDaemon(true);
        answers.start();
    }

    @AfterEach
    void closes() throws IOException {
        server.close();
    }

    private void answer() {
        try (Socket socket = server.accept();
                BufferedReader in =
                        new BufferedReader(
                                new InputStreamReader(
                                        socket.getInputStream(), StandardCharsets.US_ASCII))) {
            String error = "0,\"No error\"";
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                heard.add(line);
                String answer = null;
                if (line.equals("SYST:ERR?")) {
                    answer = error;
                    error = "0,\"No error\"";
                } else if (line.equals("MEAS:VOLT:DC?")) {
                    answer = "+1.23100E+01";
                } else if (line.equals("MEAS:RES?")) {
                    answer = ohms;
                } else if (line.equals("MEAS:CURR:DC?")) {
                    answer = "+9.90000E+37";
                } else {
                    error = refusal;
                }
                if (answer != null) {
                    socket.getOutputStream()
                            .write((answer + "\n").getBytes(StandardCharsets.US_ASCII));
                }
            }
        } catch (IOException closed) {
            // the test is over
        }
    }

    private Multimeter meter() throws WireException {
        return new Multimeter(
                new InetSocketAddress(server.getInetAddress(), server.getLocalPort()),
                Duration.ofSeconds(5));
    }

    @Test
    void whatItDoesNotKnowSomebodyDoesByHand() throws WireException {
        try (Multimeter meter = meter()) {
            meter.at("X30.2");
            meter.load("LAMP");
            assertThat(meter.switches()).isFalse();
            assertThat(meter.volts()).isEqualTo(12.31);
            meter.release();
        }
        assertThat(heard)
                .containsExactly(
                        "ROUT:CLOS (@X30.2)",
                        "SYST:ERR?",
                        "INP:LOAD LAMP",
                        "SYST:ERR?",
                        "MEAS:VOLT:DC?");
    }

    @Test
    void aPointThatItDoesNotHaveIsTold() throws WireException {
        refusal = "-224,\"Illegal parameter value\"";
        try (Multimeter meter = meter()) {
            assertThatThrownBy(() -> meter.at("nowhere"))
                    .isInstanceOf(WireException.class)
                    .hasMessageContaining("refused 'ROUT:CLOS (@nowhere)'")
                    .hasMessageContaining("-224");
        }
    }

    @Test
    void anOverloadOnOhmsIsAReadingAndNoNumberIsNone() throws WireException {
        try (Multimeter meter = meter()) {
            assertThat(meter.ohms()).isEqualTo(59.8);
            ohms = "+9.90000E+37";
            assertThat(meter.ohms()).isInfinite();
            ohms = "+9.91000E+37";
            assertThatThrownBy(meter::ohms)
                    .isInstanceOf(WireException.class)
                    .hasMessageContaining("nothing to measure");
            assertThatThrownBy(meter::amps)
                    .isInstanceOf(WireException.class)
                    .hasMessageContaining("overloaded");
        }
    }

    /** A lamp that is left on a wire draws its battery flat. */
    @Test
    void aReadingThatFailsLeavesNothingHanging() throws WireException {
        refusal = "0,\"No error\"";
        assertThatThrownBy(
                        () -> {
                            try (Multimeter meter = meter()) {
                                meter.at("X30.2");
                                meter.load("LAMP");
                                meter.amps();
                            }
                        })
                .hasMessageContaining("overloaded");
        assertThat(heard.subList(heard.indexOf("MEAS:CURR:DC?") + 1, heard.size()))
                .containsExactly("*RST", "SYST:ERR?");
    }
}
