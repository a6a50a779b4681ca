package brightlantern.wire.scpi;

import brightlantern.wire.WireException;
import brightlantern.wire.WireFormatException;
import java.nio.ByteBuffer;

/**
 * An oscilloscope on a TCP socket, by its {@link CommandProfile}. It records by itself once it is
 * started, and what is there already can be fetched meanwhile. One thread at a time.
 */
public final class Oscilloscope implements AutoCloseable {
    /** Bits of the operation status (SCPI-1999, volume 1, clause 9.3.2). */
    private static final int SWEEPING = 1 << 3;

    private static final int WAITING = 1 << 5;

    /** Most that is fetched at once, samples. */
    public static final int MOST = 100_000;

    private final ScpiClient client;
    private final CommandProfile profile;

    /** What it is about. */
    public enum State {
        WAITING,
        RECORDING,
        DONE
    }

    /**
     * How steps are told as numbers: step × scale + offset.
     *
     * @param scale above 0
     */
    public record Preamble(double scale, double offset) {}

    public Oscilloscope(ScpiClient client, CommandProfile profile) {
        this.client = client;
        this.profile = profile;
    }

    /** Maker, model, serial number and version. */
    public String identity() throws WireException {
        return client.query("*IDN?");
    }

    /** As it was switched on, no lane connected. */
    public void reset() throws WireException {
        client.command("*RST");
        client.command(profile.command("free"));
        client.command(profile.command("format"));
    }

    /**
     * @param lane 1 to 8
     * @param range what it takes to either side, in the unit of its probe
     */
    public void connect(int lane, String place, double range) throws WireException {
        client.command(profile.command("connect", "lane", lane, "place", place));
        client.command(profile.command("range", "lane", lane, "number", range));
    }

    /**
     * @param interval seconds between samples
     * @param before samples of them before the trigger
     */
    public void prepare(double interval, int points, int before) throws WireException {
        client.command(profile.command("interval", "number", interval));
        client.command(profile.command("points", "number", points));
        client.command(profile.command("before", "number", before));
    }

    /** Begins at once. */
    public void start() throws WireException {
        client.command(profile.command("at-once"));
        client.command(profile.command("start"));
    }

    /**
     * @param alternating whether the steady part is left out
     * @param filter Hz above which it is dampened; 0 for none
     */
    public void input(int lane, boolean alternating, double filter) throws WireException {
        client.command(
                profile.command("coupling", "lane", lane, "coupling", alternating ? "AC" : "DC"));
        client.command(profile.command("filter", "lane", lane, "number", filter));
    }

    /**
     * Begins when a lane does something at a level.
     *
     * @param when rises, falls, longer, shorter or missing
     * @param held seconds, for the last three
     */
    public void startAt(int lane, double level, String when, double held) throws WireException {
        client.command(profile.command("by-lane"));
        client.command(profile.command(when, "number", held));
        client.command(profile.command("level", "lane", lane, "number", level));
        client.command(profile.command("start"));
    }

    public void stop() throws WireException {
        client.command(profile.command("stop"));
    }

    public State state() throws WireException {
        int bits = (int) client.number(profile.command("state"));
        return (bits & WAITING) != 0
                ? State.WAITING
                : (bits & SWEEPING) != 0 ? State.RECORDING : State.DONE;
    }

    /** Samples of each lane that are there. */
    public int acquired() throws WireException {
        return (int) client.number(profile.command("acquired"));
    }

    /**
     * @throws WireFormatException when it is not two finite numbers, the first above 0
     */
    public Preamble preamble(int lane) throws WireException {
        String text = client.query(profile.command("preamble", "lane", lane));
        String[] parts = text.split(",");
        try {
            double scale = Double.parseDouble(parts[0]);
            double offset = Double.parseDouble(parts[1]);
            if (scale > 0 && Double.isFinite(scale) && Double.isFinite(offset)) {
                return new Preamble(scale, offset);
            }
        } catch (NumberFormatException | IndexOutOfBoundsException wrong) {
            // told below
        }
        throw new WireFormatException(
                0, "size of a step above 0 and offset, with a comma between", "'" + text + "'");
    }

    /**
     * Steps of a lane.
     *
     * @param from sample, below {@link #acquired}
     * @param count at most {@link #MOST}
     * @throws WireFormatException when it sends another number of them
     */
    public short[] fetch(int lane, int from, int count) throws WireException {
        byte[] block =
                client.block(
                        profile.command("data", "lane", lane, "from", from, "count", count),
                        2 * MOST);
        if (block.length != 2 * count) {
            throw new WireFormatException(
                    0, 2 * count + " bytes of lane " + lane, block.length + " bytes");
        }
        short[] steps = new short[count];
        ByteBuffer.wrap(block).asShortBuffer().get(steps);
        return steps;
    }

    @Override
    public void close() {
        client.close();
    }
}
