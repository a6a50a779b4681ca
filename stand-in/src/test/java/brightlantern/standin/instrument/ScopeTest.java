package brightlantern.standin.instrument;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.wire.WireException;
import brightlantern.wire.scpi.CommandProfile;
import brightlantern.wire.scpi.Oscilloscope;
import brightlantern.wire.scpi.ScpiClient;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The oscilloscope over its socket, with a ramp of one volt a second connected to it. */
class ScopeTest {
    private double volts;
    private final Scope scope =
            new Scope(
                    new Scope.Places() {
                        @Override
                        public boolean knows(String place) {
                            return List.of("ramp", "nothing", "pulses").contains(place);
                        }

                        @Override
                        public Map<String, double[]> feel(
                                Iterable<String> places, double seconds, int count) {
                            Map<String, double[]> all = new HashMap<>();
                            double[] ramp = new double[count];
                            Arrays.setAll(ramp, i -> volts + i * seconds / count);
                            all.put("ramp", ramp);
                            all.put("nothing", new double[count]);
                            double[] pulses = new double[count];
                            Arrays.setAll(pulses, i -> pulse(ramp[i]));
                            all.put("pulses", pulses);
                            volts += seconds;
                            return all;
                        }
                    });

    /** One of 5 ms after half a second, one of 20 ms after a second; 4 V on 3 V. */
    private static double pulse(double seconds) {
        boolean on = seconds >= 0.5 && seconds < 0.505 || seconds >= 1 && seconds < 1.02;
        return on ? 7 : 3;
    }

    private ScpiServer server;
    private Oscilloscope client;

    @BeforeEach
    void connect() throws IOException {
        InetAddress address = InetAddress.getByName("127.0.71.8");
        server = new ScpiServer(address, Scope.PORT, scope);
        client =
                new Oscilloscope(
                        new ScpiClient(
                                new InetSocketAddress(address, Scope.PORT), Duration.ofSeconds(3)),
                        CommandProfile.standard(CommandProfile.Kind.OSCILLOSCOPE));
    }

    @AfterEach
    void hangUp() {
        client.close();
        server.close();
    }

    @Test
    void recordsFromItsTriggerWithWhatWasBefore() throws WireException {
        assertThat(client.identity()).contains("SCOPE");
        client.reset();
        client.connect(1, "ramp", 8);
        client.connect(2, "nothing", 1);
        client.prepare(0.001, 500, 100);
        client.startAt(1, 2.0, "rises", 0);
        scope.step(1.0);
        assertThat(client.state()).isEqualTo(Oscilloscope.State.WAITING);
        assertThat(client.acquired()).isZero();
        scope.step(1.2);
        assertThat(client.state()).isEqualTo(Oscilloscope.State.RECORDING);
        // what is there is fetched while it goes on
        assertThat(client.fetch(1, 0, client.acquired())).hasSizeGreaterThan(250);
        scope.step(1.0);
        assertThat(client.state()).isEqualTo(Oscilloscope.State.DONE);
        assertThat(client.acquired()).isEqualTo(500);
        double scale = client.preamble(1).scale();
        short[] steps = client.fetch(1, 0, 500);
        assertThat(steps[100] * scale).isCloseTo(2.0, within(0.006));
        assertThat(steps[0] * scale).isCloseTo(1.9, within(0.006));
        assertThat(steps[499] * scale).isCloseTo(2.399, within(0.006));
        assertThat(client.fetch(2, 0, 500)).containsOnly(0);
    }

    @ParameterizedTest(name = "{0} {1} s")
    @CsvSource({
        "rises, 0, 0.5",
        "falls, 0, 0.505",
        "longer, 0.01, 1.01",
        "shorter, 0.01, 0.505",
        "missing, 0.3, 0.3"
    })
    void beginsByWhatALaneDoes(String when, double held, double at) throws WireException {
        client.reset();
        client.connect(1, "pulses", 10);
        client.connect(2, "ramp", 10);
        client.prepare(0.001, 20, 10);
        client.startAt(1, 5, when, held);
        scope.step(1.5);
        assertThat(client.state()).isEqualTo(Oscilloscope.State.DONE);
        double begun = client.fetch(2, 10, 1)[0] * client.preamble(2).scale();
        assertThat(begun).isCloseTo(at, within(0.008));
    }

    @Test
    void leavesTheSteadyPartOutAndDampensWhatIsFast() throws WireException {
        client.reset();
        client.connect(1, "pulses", 10);
        client.connect(2, "pulses", 10);
        client.input(1, true, 0);
        client.input(2, false, 2);
        client.prepare(0.001, 1200, 0);
        client.start();
        scope.step(1.5);
        double scale = client.preamble(1).scale();
        short[] alternating = client.fetch(1, 0, 1200);
        assertThat(alternating[450] * scale).isCloseTo(0, within(0.02));
        assertThat(alternating[501] * scale).isCloseTo(4, within(0.1));
        short[] damped = client.fetch(2, 0, 1200);
        assertThat(damped[450] * scale).isCloseTo(3, within(0.02));
        assertThat(damped[503] * scale).isBetween(3.05, 3.4);
    }

    @Test
    void whatItCannotIsToldInWords() {
        assertThatThrownBy(() -> client.connect(1, "moon", 5))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("no place moon");
        assertThatThrownBy(() -> client.connect(9, "ramp", 5)).hasMessageContaining("1 to 8");
        assertThatThrownBy(() -> client.start()).hasMessageContaining("no lane is connected");
        assertThatThrownBy(() -> client.prepare(1e-9, 100, 0)).hasMessageContaining("out of range");
        assertThatThrownBy(() -> client.fetch(1, 0, 5))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("10 bytes");
    }
}
