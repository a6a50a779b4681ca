package brightlantern.app.sweep;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.Bytes;
import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.transport.ModuleAddress;
import brightlantern.wire.transport.Transport;
import java.time.Duration;
import java.util.List;
import java.util.function.IntPredicate;
import org.junit.jupiter.api.Test;

/** Looking for modules at a gateway that means well, and at some that do not. */
class AddressSearchTest {
    /** A gateway behind which these addresses answer tester present; all others are silent. */
    private record Gateway(IntPredicate answers) implements Transport {
        @Override
        public boolean isOpen() {
            return true;
        }

        @Override
        public ModuleAddress module(int number) {
            return new LogicalAddress(number);
        }

        @Override
        public void send(ModuleAddress to, Bytes request) {}

        @Override
        public Bytes receive(ModuleAddress from, Duration wait) throws WireException {
            if (answers.test(((LogicalAddress) from).number())) {
                return Bytes.hex("7E 00");
            }
            throw new SilenceException("No answer: " + from.words());
        }

        @Override
        public List<Bytes> unasked(ModuleAddress from) {
            return List.of();
        }

        @Override
        public void forget(ModuleAddress address) {}

        @Override
        public void close() {}
    }

    @Test
    void findsWhoAnswers() throws Exception {
        AddressSearch search = new AddressSearch();
        search.run(new Gateway(a -> a == 0x1021 || a == 0x7FFF || a == 0x0001), () -> false);
        assertThat(search.found()).containsExactly(0x0001, 0x1021, 0x7FFF);
    }

    @Test
    void whoAnswersForEveryAddressIsNotBelieved() {
        AddressSearch search = new AddressSearch();
        assertThatThrownBy(() -> search.run(new Gateway(a -> true), () -> false))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("0x8")
                .hasMessageContaining("no module can be");
        assertThat(search.found()).isEmpty();
    }

    @Test
    void moreModulesThanAVehicleHasEndTheSearch() {
        AddressSearch search = new AddressSearch();
        assertThatThrownBy(() -> search.run(new Gateway(a -> a < 0x8000), () -> false))
                .hasMessageContaining("more than a vehicle has");
        // those that were being asked at the end are kept as well
        assertThat(search.found())
                .hasSizeBetween(AddressSearch.MOST_MODULES, AddressSearch.MOST_MODULES + 8);
    }
}
