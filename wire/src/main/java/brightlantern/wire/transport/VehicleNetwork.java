package brightlantern.wire.transport;

import brightlantern.wire.WireException;
import java.io.IOException;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** A network on which vehicles are found and reached. */
public interface VehicleNetwork {
    /** A vehicle that made itself known. */
    record Heard(VehicleAddress address, String vin) {}

    /** Whether an address can be a vehicle's at all: a name that nobody knows cannot. */
    boolean canReach(VehicleAddress address);

    /** Whether an address is the same place as one of these texts, however it is written. */
    boolean isAmong(VehicleAddress address, Collection<String> texts);

    /** The same for all addresses that lead to the same place, however they are written. */
    String place(VehicleAddress address);

    /**
     * The VIN of the vehicle that answers there; empty when none answers in time.
     *
     * @throws IOException when it cannot be asked
     */
    Optional<String> vin(VehicleAddress address, Duration wait) throws IOException;

    /**
     * @throws WireException when the vehicle is not reached, stays silent or refuses
     */
    Transport open(VehicleAddress address, Duration wait) throws WireException;

    /**
     * Asks addresses who is there, and gathers what comes back within the time. One that cannot be
     * reached hides none of the others.
     *
     * @throws IOException when nothing can be sent at all
     */
    List<Heard> ask(Collection<VehicleAddress> addresses, Duration wait) throws IOException;

    /**
     * Hears vehicles that announce themselves, until it is closed.
     *
     * @param bind local address to listen on
     * @throws IOException when that cannot be had
     */
    AutoCloseable listen(String bind, Consumer<Heard> heard) throws IOException;

    /**
     * Whether a vehicle says that it is ready for diagnosis; empty when it does not tell.
     *
     * @throws IOException when it cannot be reached
     */
    Optional<Boolean> ready(VehicleAddress address, Duration wait) throws IOException;
}
