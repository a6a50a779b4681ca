package brightlantern.app.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.circuit.Load;
import brightlantern.standin.instrument.Meter;
import brightlantern.standin.instrument.ScpiServer;
import brightlantern.wire.WireException;
import brightlantern.wire.scpi.Multimeter;
import java.net.InetAddress;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;

/** Two people with one meter: each reads at a point of his own, one after the other. */
class HandMeterTest {
    private final HandMeter meters = new HandMeter(null);

    private static Meter meter() {
        return new Meter(
                at -> at.isEmpty() ? OptionalDouble.empty() : OptionalDouble.of(at.length()),
                (String point, Load load) -> {});
    }

    @Test
    void aLeadIsAtOnePointAtATime() throws Exception {
        try (ScpiServer server = new ScpiServer(InetAddress.getLoopbackAddress(), 0, meter())) {
            String address = "127.0.0.1:" + server.port();
            try (Multimeter first = meters.open(address)) {
                first.at("X1");
                // who waits for too long is told so
                assertThatThrownBy(() -> other(address))
                        .hasMessageContaining("in use")
                        .hasMessageContaining(address);
                assertThat(first.volts()).isBetween(1.9, 2.1);
                first.release();
            }
            assertThat(other(address)).isBetween(3.9, 4.1);
            // a meter that is not there is nobody's either
            server.close();
            assertThatThrownBy(() -> other(address)).isInstanceOf(WireException.class);
            assertThatThrownBy(() -> other(address)).isInstanceOf(WireException.class);
        }
    }

    private double other(String address) throws Exception {
        try (Multimeter its = meters.open(address)) {
            its.at("X1.2");
            return its.volts();
        }
    }
}
