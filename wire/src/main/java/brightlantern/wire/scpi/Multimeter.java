package brightlantern.wire.scpi;

import brightlantern.wire.WireException;
import java.net.InetSocketAddress;
import java.time.Duration;

/**
 * A meter for volts, steady or not, ohms, and amps by a clamp (SCPI-1999 vol. 2, MEASure), by its
 * {@link CommandProfile}. Some switch their lead from point to point and hang a load on it by
 * themselves; of those that do not know such a command (SCPI-1999 vol. 2, error -113) somebody
 * holds the lead.
 */
public final class Multimeter implements AutoCloseable {
    private static final String UNDEFINED_HEADER = "-113";

    private final ScpiClient client;
    private final Runnable closed;
    private final CommandProfile profile = CommandProfile.standard(CommandProfile.Kind.METER);
    private boolean switches = true;

    /** Whether it was told to switch something that it was not told to let go of. */
    private boolean holds;

    /**
     * @throws WireException when the instrument is not reached
     */
    public Multimeter(InetSocketAddress address, Duration wait) throws WireException {
        this(address, wait, () -> {});
    }

    /**
     * @param closed what happens once it is closed, whatever came before
     * @throws WireException when the instrument is not reached
     */
    public Multimeter(InetSocketAddress address, Duration wait, Runnable closed)
            throws WireException {
        client = new ScpiClient(address, wait);
        this.closed = closed;
    }

    /**
     * Who made it, its model, number and version, parted by commas (IEEE 488.2, 10.14).
     *
     * @throws WireException when it does not answer
     */
    public String identity() throws WireException {
        return client.query("*IDN?");
    }

    /**
     * Switches the lead to a point, where it can.
     *
     * @throws WireException when there is no such point, or the meter is lost
     */
    public void at(String point) throws WireException {
        // where the answer is lost it may have switched all the same
        holds = true;
        switches = knows(profile.command("point", "place", point));
        holds = switches;
    }

    /** Whether it switched its lead by itself; otherwise somebody holds it. */
    public boolean switches() {
        return switches;
    }

    /**
     * Hangs a load on the point.
     *
     * @param name of the load; nothing is hung on by a meter that cannot
     * @throws WireException when it refuses
     */
    public void load(String name) throws WireException {
        knows(profile.command("load", "load", name));
    }

    private boolean knows(String command) throws WireException {
        try {
            client.command(command);
            return true;
        } catch (WireException refused) {
            if (refused.getMessage().contains(": " + UNDEFINED_HEADER + ",")) {
                return false;
            }
            throw refused;
        }
    }

    /**
     * Volts, now.
     *
     * @throws WireException when it is overloaded, answers something else, or is lost
     */
    public double volts() throws WireException {
        return client.number(profile.command("volts"));
    }

    /**
     * Volts of what alternates, its root mean square without the steady part.
     *
     * @throws WireException when it is overloaded, answers something else, or is lost
     */
    public double alternating() throws WireException {
        return client.number(profile.command("alternating"));
    }

    /**
     * How often a second what it sees repeats itself, Hz; infinite where nothing does.
     *
     * @throws WireException when it answers something else, or is lost
     */
    public double frequency() throws WireException {
        return client.numberOrOverload(profile.command("frequency"));
    }

    /**
     * Share of the time that it is above its middle, in percent; infinite where nothing repeats
     * itself.
     *
     * @throws WireException when it answers something else, or is lost
     */
    public double duty() throws WireException {
        return client.numberOrOverload(profile.command("duty"));
    }

    /**
     * Ohms, now; infinite where nothing goes through (SCPI-1999 vol. 1, 7.2.1.4: 9.9E37).
     *
     * @throws WireException when it has nothing to measure, answers something else, or is lost
     */
    public double ohms() throws WireException {
        return client.numberOrOverload(profile.command("ohms"));
    }

    /**
     * Amps of a direct current, now.
     *
     * @throws WireException when it is overloaded, answers something else, or is lost
     */
    public double amps() throws WireException {
        return client.number(profile.command("amps"));
    }

    /** Lets go of what it switched. */
    public void release() throws WireException {
        holds = false;
        if (switches) {
            client.command(profile.command("free"));
        }
    }

    /** Ends the connection; what a reading that failed has left hanging is let go of first. */
    @Override
    public void close() {
        try {
            if (holds) {
                release();
            }
        } catch (WireException lost) {
            // nobody can tell it any more
        } finally {
            client.close();
            closed.run();
        }
    }
}
