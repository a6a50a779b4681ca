package brightlantern.app.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.transport.ModuleAddress;
import brightlantern.wire.transport.Transport;
import brightlantern.wire.transport.VehicleAddress;
import brightlantern.wire.transport.VehicleNetwork;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A vehicle that is not reached, and one that is reached by two ways. */
@Timeout(60)
class VehicleLinkTest {
    private static final String VIN = "TPG22D2M6R0000101";

    private final Map<String, CommandLease> leases = new ConcurrentHashMap<>();

    private VehicleLink link(String address, VehicleNetwork network) {
        return new VehicleLink(
                VehicleAddress.kept(address),
                network,
                vin -> leases.computeIfAbsent(vin, v -> new CommandLease()));
    }

    @Test
    void oneFailureIsOneFailureForAllThatWait() throws Exception {
        int modules = 14;
        List<Thread> waiting = new CopyOnWriteArrayList<>();
        // the attempt ends once all the others wait for it
        Stub silent =
                new Stub(
                        () ->
                                waiting.stream()
                                                .filter(t -> t.getState() == Thread.State.BLOCKED)
                                                .count()
                                        == modules - 1,
                        Optional.empty());
        VehicleLink link = link("127.0.9.9", silent);
        List<String> told = new CopyOnWriteArrayList<>();
        for (int i = 1; i <= modules; i++) {
            int module = i;
            waiting.add(
                    new Thread(
                            () -> {
                                try {
                                    link.module(module);
                                } catch (WireException failed) {
                                    told.add(failed.getMessage());
                                }
                            }));
        }
        waiting.forEach(Thread::start);
        for (Thread asker : waiting) {
            asker.join();
        }
        assertThat(told).hasSize(modules).containsOnly("Routing activation was not answered.");
        assertThat(silent.opened.get()).isEqualTo(1);

        waiting.clear();
        silent.fails = () -> true;
        assertThatThrownBy(link::transport).isInstanceOf(WireException.class);
        assertThat(silent.opened.get()).isEqualTo(2);
    }

    @Test
    void aVehicleIsCommandedByOneWhateverWayLeadsThere() throws Exception {
        Stub van = new Stub(null, Optional.of(VIN));
        VehicleLink one = link("127.0.9.1", van);
        VehicleLink other = link("shop-van", van);
        one.lease().claim("ann");
        one.transport();
        assertThat(one.lease().holder()).contains("ann");
        other.transport();
        assertThatThrownBy(() -> other.lease().claim("bob"))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("ann is commanding this vehicle now");
        VehicleLink elsewhere = link("127.0.9.2", new Stub(null, Optional.empty()));
        elsewhere.transport();
        elsewhere.lease().claim("bob");
    }

    /** A network with one vehicle, that activates no routing when it is silent. */
    private static final class Stub implements VehicleNetwork {
        private final AtomicInteger opened = new AtomicInteger();
        private final Optional<String> vin;

        /** Until this holds an attempt goes on, and then it fails; null when it is answered. */
        private volatile BooleanSupplier fails;

        Stub(BooleanSupplier fails, Optional<String> vin) {
            this.fails = fails;
            this.vin = vin;
        }

        @Override
        public boolean canReach(VehicleAddress address) {
            return true;
        }

        @Override
        public boolean isAmong(VehicleAddress address, Collection<String> texts) {
            return texts.contains(address.text());
        }

        @Override
        public String place(VehicleAddress address) {
            return address.text();
        }

        @Override
        public Optional<String> vin(VehicleAddress address, Duration wait) {
            return vin;
        }

        @Override
        public Transport open(VehicleAddress address, Duration wait) throws WireException {
            opened.incrementAndGet();
            if (fails != null) {
                while (!fails.getAsBoolean()) {
                    Thread.onSpinWait();
                }
                throw new WireException("Routing activation was not answered.");
            }
            return new Open();
        }

        @Override
        public List<Heard> ask(Collection<VehicleAddress> addresses, Duration wait) {
            return List.of();
        }

        @Override
        public AutoCloseable listen(String bind, Consumer<Heard> heard) {
            return () -> {};
        }

        @Override
        public Optional<Boolean> ready(VehicleAddress address, Duration wait) {
            return Optional.empty();
        }
    }

    /** A way on which nothing is said. */
    private static final class Open implements Transport {
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
            throw new WireException("Nothing is said here.");
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
}
