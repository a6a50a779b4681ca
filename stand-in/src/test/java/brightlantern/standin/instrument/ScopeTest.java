package brightlantern.standin.instrument;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.wire.WireException;
import brightlantern.wire.scpi.Oscilloscope;
import brightlantern.wire.scpi.ScopeProfile;
import brightlantern.wire.scpi.ScpiClient;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The oscilloscope over its socket, with a ramp of one volt a second connected to it. */
class ScopeTest {
    private double volts;
    private final Scope scope =
            new Scope(
                    new Scope.Places() {
                        @Override
                        public boolean knows(String place) {
                            return place.equals("ramp") || place.equals("nothing");
                        }

                        @Override
                        public Map<String, double[]> feel(
                                Iterable<String> places, double seconds, int count) {
                            Map<String, double[]> all = new HashMap<>();
                            double[] ramp = new double[count];
                            Arrays.setAll(ramp, i -> volts + i * seconds / count);
                            all.put("ramp", ramp);
                            all.put("nothing", new double[count]);
                            volts += seconds;
                            return all;
                        }
                    });
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
                        ScopeProfile.standard());
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
        client.startAt(1, 2.0);
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
