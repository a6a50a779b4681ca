package brightlantern.app.sweep;

import brightlantern.app.job.FoundModules;
import brightlantern.core.vehicle.UnknownVehicle;
import brightlantern.wire.WireException;
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

    /** So many addresses are asked first at which no module can be. */
    private static final int IMPOSSIBLE = 5;

    /** More modules than this are in no vehicle; what answers beyond is not believed. */
    static final int MOST_MODULES = FoundModules.MOST;

    private final AtomicInteger next = new AtomicInteger();
    private final Set<Integer> found = new ConcurrentSkipListSet<>();
    private final int size =
            UnknownVehicle.ADDRESSES.stream().mapToInt(UnknownVehicle.Range::size).sum();

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
     * @throws WireException when the vehicle is lost meanwhile, when its gateway answers for what
     *     cannot be there, or for more modules than a vehicle has; what was found until then stays
     */
    void run(Transport transport, BooleanSupplier stopped)
            throws WireException, InterruptedException {
        refuseEchoes(transport);
        ExecutorService askers = Executors.newFixedThreadPool(AT_ONCE);
        try {
            List<Future<?>> all = new ArrayList<>();
            for (int i = 0; i < AT_ONCE; i++) {
                all.add(
                        askers.submit(
                                () -> {
                                    int index = next.getAndIncrement();
                                    while (index < size
                                            && found.size() < MOST_MODULES
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
        if (found.size() >= MOST_MODULES) {
            throw new WireException(
                    "%,d modules answered among the first %,d addresses, more than a vehicle has; the search was ended there"
                            .formatted(found.size(), next.get()));
        }
        if (!transport.isOpen()) {
            throw new WireException(
                    "The connection to the vehicle was lost after %,d addresses"
                            .formatted(next.get()));
        }
    }

    /** A gateway that answers for addresses that the standard reserves answers for all. */
    private void refuseEchoes(Transport transport) throws WireException {
        UnknownVehicle.Range reserved = UnknownVehicle.RESERVED;
        List<String> answered = new ArrayList<>();
        for (int i = 0; i < IMPOSSIBLE && transport.isOpen(); i++) {
            int address = reserved.from() + (2 * i + 1) * reserved.size() / (2 * IMPOSSIBLE);
            if (answers(transport, address)) {
                answered.add("0x%04X".formatted(address));
            }
        }
        if (answered.size() > 1) {
            throw new WireException(
                    "The vehicle answers for addresses at which no module can be ("
                            + String.join(", ", answered)
                            + "), so asking for modules tells nothing. Nothing was searched; a description of the vehicle is needed");
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
        if (answers(transport, address)) {
            found.add(address);
        }
    }

    private static boolean answers(Transport transport, int address) {
        try {
            new UdsClient(transport, transport.module(address), UdsTimings.STANDARD)
                    .present(PATIENCE);
            return true;
        } catch (NegativeResponseException refuses) {
            // who refuses is there
            return true;
        } catch (WireException nobody) {
            // a gateway that turns an address down, in whatever way, has nobody there for us
            transport.forget(transport.module(address));
            return false;
        }
    }
}
