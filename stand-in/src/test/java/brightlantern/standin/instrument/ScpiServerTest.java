package brightlantern.standin.instrument;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Load;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.Socket;
import java.net.SocketException;
import java.nio.charset.StandardCharsets;
import java.util.OptionalDouble;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The meter as any client of the standards speaks to it, line by line. */
class ScpiServerTest {
    private final AtomicReference<String> hung = new AtomicReference<>("");
    private ScpiServer meter;
    private Socket socket;
    private BufferedReader answers;

    @BeforeEach
    void connect() throws IOException {
        InetAddress address = InetAddress.getByName("127.0.71.7");
        meter =
                new ScpiServer(
                        address,
                        Meter.PORT,
                        new Meter(
                                p ->
                                        p.equals("G12")
                                                ? OptionalDouble.of(1.75)
                                                : OptionalDouble.empty(),
                                (point, load) -> hung.set(point + " " + load)));
        connectAgain();
    }

    private void connectAgain() throws IOException {
        socket = new Socket(InetAddress.getByName("127.0.71.7"), Meter.PORT);
        socket.setSoTimeout(3000);
        answers =
                new BufferedReader(
                        new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
    }

    @AfterEach
    void hangUp() throws IOException {
        socket.close();
        meter.close();
    }

    private void tell(String line) throws IOException {
        socket.getOutputStream().write((line + "\n").getBytes(StandardCharsets.US_ASCII));
    }

    private String ask(String line) throws IOException {
        tell(line);
        return answers.readLine();
    }

    /** Nobody fills its memory with a line that never ends; the next client is served. */
    @Test
    void hangsUpOnALineThatNeverEnds() throws IOException {
        tell("A".repeat(100_000));
        try {
            assertThat(answers.read()).isEqualTo(-1);
        } catch (SocketException reset) {
            assertThat(reset).hasMessageContaining("reset");
        }
        hangUp();
        connect();
        assertThat(ask("*IDN?")).startsWith("LARKSPUR YARD,");
    }

    @Test
    void knowsTheMandatoryCommonCommands() throws IOException {
        assertThat(ask("*IDN?")).startsWith("LARKSPUR YARD,");
        assertThat(ask("*TST?")).isEqualTo("0");
        assertThat(ask("*ESR?")).as("switched on").isEqualTo("128");
        tell("*OPC");
        assertThat(ask("*ESR?")).as("complete").isEqualTo("1");
        assertThat(ask("*ESR?")).as("taken").isEqualTo("0");
        tell("*WAI");
        assertThat(ask("*OPC?")).isEqualTo("1");
        tell("*SRE 255");
        assertThat(ask("*SRE?")).as("bit 6 cannot be enabled").isEqualTo("191");
        tell("*ESE 300");
        assertThat(ask("*ESE?;SYST:ERR?"))
                .startsWith("0;-222,\"Data out of range; found 300, expected 0 to 255");
    }

    @Test
    void errorsShowInTheStatusByteUntilTheyAreRead() throws IOException {
        tell("*CLS;*ESE 32;*SRE 32");
        assertThat(ask("*STB?")).isEqualTo("0");
        tell("JUMP:HIGH");
        // an error waits, its event is summed up, and service is asked for
        assertThat(ask("*STB?")).isEqualTo(String.valueOf(4 + 32 + 64));
        assertThat(ask("SYSTEM:ERROR:NEXT?")).startsWith("-113,\"Undefined header");
        assertThat(ask("*ESR?")).isEqualTo("32");
        assertThat(ask("*STB?;:SYST:ERR?")).isEqualTo("0;0,\"No error\"");
    }

    @Test
    void takesSeveralCommandsInALineInShortAndLongForm() throws IOException {
        assertThat(ask("ROUT:CLOS (@G12);CLOS?;:INPUT:LOAD lamp;:MEASURE:VOLTAGE:DC?"))
                .matches("\\(@G12\\);\\+1\\.7[45]\\d+E\\+00");
        assertThat(hung.get()).isEqualTo("G12 " + Load.LAMP);
        // a later one stands beside the one before it, unless it begins at the root
        tell("ROUT:CLOS (@G12);MEAS:VOLT?");
        assertThat(ask("*RST;:SYST:ERR?")).startsWith("-113,\"Undefined header; ROUT:MEAS:VOLT?");
    }

    /** Its clients come and go; who has gone does not take the leads out of another's hands. */
    @Test
    void whoHangsUpLateDisturbsNobody() throws Exception {
        ask("*IDN?");
        Socket before = socket;
        BufferedReader itsAnswers = answers;
        connectAgain();
        assertThat(ask("ROUT:CLOS (@G12);:MEAS:VOLT?")).startsWith("+1.7");
        before.shutdownOutput();
        assertThat(itsAnswers.readLine()).as("its end").isNull();
        before.close();
        assertThat(ask("MEAS:VOLT?")).startsWith("+1.7");
        hung.set("");
        socket.shutdownOutput();
        assertThat(answers.readLine()).as("the end of the last").isNull();
        assertThat(hung.get()).isEqualTo(" " + Load.NOTHING);
        socket.close();
        connectAgain();
        assertThat(ask("ROUT:CLOS?")).as("the last laid them down").isEqualTo("(@)");
    }
}
