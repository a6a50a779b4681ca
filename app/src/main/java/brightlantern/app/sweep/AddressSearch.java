package brightlantern.app.sweep;

import brightlantern.app.link.VehicleLink;
import brightlantern.core.vehicle.UnknownVehicle;
import brightlantern.wire.NotThereException;
import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.transport.Transport;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentSkipListSet;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;

/**
 * Finds the modules of a vehicle that nobody described, by asking each address that makers may use
 * whether somebody is there. Each is asked once, briefly, and with nothing that changes anything
 * (tester present); a few at a time, so that the vehicle's buses keep their breath.
 */
final class AddressSearch {
    private static final int AT_ONCE = 8;

    /** A module in reach answers tester present within P2, 50 ms by ISO 14229-2. */
    private static final Duration PATIENCE = Duration.ofMillis(60);

    private final VehicleLink link;
    private final AtomicInteger next = new AtomicInteger();
    private final Set<Integer> found = new ConcurrentSkipListSet<>();
    private final int size =
            UnknownVehicle.ADDRESSES.stream().mapToInt(UnknownVehicle.Range::size).sum();

    AddressSearch(VehicleLink link) {
        this.link = link;
    }

    /** How far it has come, in words. */
    String progress() {
        return "Looking for modules: %,d of %,d addresses asked, %d found."
                .formatted(Math.min(size, next.get()), size, found.size());
    }

    /** What was found so far, in rising order. */
    List<Integer> found() {
        return List.copyOf(found);
    }

    /**
     * Asks all addresses, or those before it is stopped.
     *
     * @throws WireException when the vehicle is lost meanwhile; what was found until then stays
     */
    void run(BooleanSupplier stopped) throws WireException, InterruptedException {
        Transport transport = link.transport();
        ExecutorService askers = Executors.newFixedThreadPool(AT_ONCE);
        try {
            List<Future<?>> all = new ArrayList<>();
            for (int i = 0; i < AT_ONCE; i++) {
                all.add(
                        askers.submit(
                                () -> {
                                    int index = next.getAndIncrement();
                                    while (index < size
                                            && !stopped.getAsBoolean()
                                            && transport.isOpen()) {
                                        ask(transport, address(index));
                                        index = next.getAndIncrement();
                                    }
                                    return null;
                                }));
            }
            for (Future<?> one : all) {
                one.get();
            }
        } catch (ExecutionException broken) {
            throw new WireException(
                    "The search for modules broke off: " + broken.getCause(), broken);
        } finally {
            askers.shutdownNow();
        }
        if (!transport.isOpen()) {
            throw new WireException(
                    "The connection to the vehicle was lost after %,d addresses"
                            .formatted(next.get()));
        }
    }

    private static int address(int index) {
        int left = index;
        for (UnknownVehicle.Range range : UnknownVehicle.ADDRESSES) {
            if (left < range.size()) {
                return range.from() + left;
            }
            left -= range.size();
        }
        throw new IllegalArgumentException("address number " + index);
    }

    private void ask(Transport transport, int address) {
        try {
            new UdsClient(transport, new LogicalAddress(address), UdsTimings.STANDARD)
                    .present(PATIENCE);
            found.add(address);
        } catch (NegativeResponseException refuses) {
            // who refuses is there
            found.add(address);
        } catch (NotThereException | SilenceException nobody) {
            transport.forget(new LogicalAddress(address));
        } catch (WireException unclear) {
            // a gateway that turns an address down in another way has nobody there for us
            transport.forget(new LogicalAddress(address));
        }
    }
}
