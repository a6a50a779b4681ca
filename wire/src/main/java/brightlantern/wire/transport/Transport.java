package brightlantern.wire.transport;

import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import java.time.Duration;
import java.util.List;

/** An open way to the modules of one vehicle. Safe for use by several threads. */
public interface Transport extends AutoCloseable {
    boolean isOpen();

    /**
     * Where it reaches a module that its description knows by a number.
     *
     * @throws IllegalArgumentException when no module can have that number here
     */
    ModuleAddress module(int number);

    /**
     * Hands a request over, and drops older answers of that module.
     *
     * @throws brightlantern.wire.NotThereException when nobody has that address
     * @throws WireException when the request was not taken over, or the way broke
     */
    void send(ModuleAddress to, Bytes request) throws WireException;

    /**
     * The next answer of a module.
     *
     * @throws brightlantern.wire.SilenceException when none comes in time
     * @throws WireException when the way broke meanwhile
     */
    Bytes receive(ModuleAddress from, Duration wait) throws WireException;

    /** Answers of a module that nobody waited for since it was asked the last time. */
    List<Bytes> unasked(ModuleAddress from);

    /** Keeps nothing more of an address at which nobody is. */
    void forget(ModuleAddress address);

    @Override
    void close();
}
