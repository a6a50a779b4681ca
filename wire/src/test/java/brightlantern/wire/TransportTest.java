package brightlantern.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.transport.IpAddress;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.transport.ModuleAddress;
import brightlantern.wire.transport.Transport;
import brightlantern.wire.transport.VehicleAddress;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import org.junit.jupiter.api.Test;

/** UDS needs a transport and no more: a queue in memory will do. */
class TransportTest {
    /** Answers what was put into it, one answer for each request. */
    private static final class Memory implements Transport {
        final Deque<Bytes> answers = new ArrayDeque<>();
        final Deque<Bytes> sent = new ArrayDeque<>();

        @Override
        public boolean isOpen() {
            return true;
        }

        @Override
        public ModuleAddress module(int number) {
            return new LogicalAddress(number);
        }

        @Override
        public void send(ModuleAddress to, Bytes request) {
            sent.add(request);
        }

        @Override
        public Bytes receive(ModuleAddress from, Duration wait) throws WireException {
            if (answers.isEmpty()) {
                throw new SilenceException("No answer: " + from.words());
            }
            return answers.remove();
        }

        @Override
        public List<Bytes> unasked(ModuleAddress from) {
            return List.of();
        }

        @Override
        public void forget(ModuleAddress address) {
            sent.clear();
        }

        @Override
        public void close() {
            answers.clear();
        }
    }

    private final Memory memory = new Memory();
    private final UdsClient client =
            new UdsClient(memory, new LogicalAddress(0x1003), UdsTimings.STANDARD);

    @Test
    void requestsAndAnswersAreMatchedWhateverCarriesThem() throws Exception {
        memory.answers.add(Bytes.hex("7F 22 78"));
        memory.answers.add(Bytes.hex("62 F1 90 41"));
        assertThat(client.request(Bytes.hex("22 F1 90"))).isEqualTo(Bytes.hex("62 F1 90 41"));
        assertThat(memory.sent).containsExactly(Bytes.hex("22 F1 90"));
        memory.answers.add(Bytes.hex("7F 22 31"));
        assertThatThrownBy(() -> client.request(Bytes.hex("22 F1 91")))
                .isInstanceOf(NegativeResponseException.class);
        assertThatThrownBy(() -> client.request(Bytes.hex("22 F1 92")))
                .isInstanceOf(SilenceException.class)
                .hasMessageContaining("module 1003");
    }

    @Test
    void addressesCheckThemselves() {
        assertThat(VehicleAddress.parse(" 192.0.2.7 ")).isEqualTo(new IpAddress("192.0.2.7"));
        assertThatThrownBy(() -> VehicleAddress.parse("no such place!"))
                .hasMessageContaining("'no such place!'")
                .hasMessageContaining("expected a host name or IP address");
        assertThatThrownBy(() -> new LogicalAddress(0x10000)).hasMessageContaining("16 bits");
    }
}
