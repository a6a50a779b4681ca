package brightlantern.core.capture.bus;

import brightlantern.core.capture.Lane;
import brightlantern.core.network.BitRate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Reads frames (ISO 11898-1), classical ones and those with flexible data rate, out of the samples
 * of a wire: a frame begins with the first dominant bit after the bus was idle, edges from
 * recessive to dominant keep the reader in step, and of six like bits in a row the sixth is a stuff
 * bit or an error.
 */
public final class CanDecoder {
    /** So many recessive bits before a frame begins; end of frame and pause have ten. */
    private static final int IDLE_BITS = 7;

    /** Bits are read here, as share of their length. */
    private static final double SAMPLE_POINT = 0.7;

    /** Fewer samples a bit do not show its edges. */
    public static final double LEAST_PER_BIT = 4;

    /** At this share of its length the bit that switches the rate is read by whoever sends. */
    private static final double SWITCHES_AT = 0.8;

    private static final int SAME_BITS = 5;

    /** Bytes by their length code, above eight. */
    private static final int[] LENGTHS = {12, 16, 20, 24, 32, 48, 64};

    private final boolean[] dominant;
    private final double interval;
    private final double perBit;

    /** Samples of a bit of data at the faster rate; 0 where there is none. */
    private final double perFast;

    /** Samples of the bits that are read now. */
    private double pace;

    private double clock;
    private int seen;
    private int run;
    private boolean last;
    private int stuffed;
    private final List<Checksum> sums = new ArrayList<>();
    private boolean error;

    private CanDecoder(boolean[] dominant, double interval, double perBit, double perFast) {
        this.dominant = dominant;
        this.interval = interval;
        this.perBit = perBit;
        this.perFast = perFast;
    }

    /**
     * What was read.
     *
     * @param errors places, in samples, at which six like bits broke a frame off
     */
    public record Traffic(List<CanFrame> frames, List<Integer> errors) {
        public Traffic {
            frames = List.copyOf(frames);
            errors = List.copyOf(errors);
        }
    }

    /**
     * @param dominant by sample
     * @param interval seconds between samples
     * @throws IllegalArgumentException when there are fewer than {@link #LEAST_PER_BIT} samples a
     *     bit
     */
    public static Traffic read(boolean[] dominant, double interval, BitRate rate) {
        double least = 1 / (interval * rate.fastest() * 1000);
        if (!(least >= LEAST_PER_BIT)) {
            throw new IllegalArgumentException(
                    "%.1f samples a bit are too few; expected at least %.0f"
                            .formatted(least, LEAST_PER_BIT));
        }
        return new CanDecoder(
                        dominant,
                        interval,
                        1 / (interval * rate.kbit() * 1000),
                        rate.dataKbit() > 0 ? 1 / (interval * rate.dataKbit() * 1000) : 0)
                .all();
    }

    private Traffic all() {
        List<CanFrame> frames = new ArrayList<>();
        List<Integer> errors = new ArrayList<>();
        int i = 0;
        double idle = IDLE_BITS * perBit;
        int quiet = 0;
        while (i < dominant.length) {
            if (!dominant[i]) {
                quiet++;
                i++;
                continue;
            }
            if (quiet < idle) {
                quiet = 0;
                i++;
                continue;
            }
            begin(i);
            CanFrame frame = frame(i);
            if (frame != null) {
                frames.add(frame);
                i = frame.to();
            } else if (error) {
                errors.add(seen);
                i = Math.max(i + 1, seen);
            } else {
                // the capture ends within it
                break;
            }
            quiet = 0;
        }
        return new Traffic(frames, errors);
    }

    private void begin(int at) {
        clock = at;
        seen = at;
        run = 0;
        stuffed = 0;
        pace = perBit;
        error = false;
        last = false;
        sums.clear();
        sums.add(Checksum.classical());
        if (perFast > 0) {
            sums.add(Checksum.ofFew());
            sums.add(Checksum.ofMany());
        }
    }

    private CanFrame frame(int from) {
        try {
            bit();
            int id = bits(11);
            boolean remote = bits(1) == 1;
            boolean extended = bits(1) == 1;
            if (extended) {
                id = id << 18 | bits(18);
                remote = bits(1) == 1;
            }
            boolean flexible = bits(1) == 1 && perFast > 0;
            if (flexible) {
                return flexible(from, id, extended);
            }
            bits(extended ? 1 : 0);
            int length = Math.min(8, bits(4));
            byte[] data = data(remote ? 0 : length);
            int computed = sums.get(0).value();
            int told = bits(sums.get(0).width());
            int to = seen;
            if (run == SAME_BITS && raw() == last) {
                error = true;
                throw new Broken();
            }
            // from here on no bits are stuffed
            boolean delimiter = raw();
            boolean acknowledged = raw();
            return new CanFrame(
                    from * interval,
                    id,
                    extended,
                    data,
                    remote,
                    Optional.empty(),
                    told == computed && !delimiter,
                    acknowledged,
                    from,
                    to);
        } catch (Broken broken) {
            return null;
        }
    }

    private byte[] data(int length) throws Broken {
        byte[] data = new byte[length];
        for (int k = 0; k < length; k++) {
            data[k] = (byte) bits(8);
        }
        return data;
    }

    /** What follows the bit that says so; its checksum covers its stuff bits as well. */
    private CanFrame flexible(int from, int id, boolean extended) throws Broken {
        bits(1);
        stuffing();
        boolean faster = !dominant(clock + SAMPLE_POINT * perBit);
        // the bit that says so ends at the faster rate already
        took(faster ? raw(SWITCHES_AT * perBit + (1 - SWITCHES_AT) * perFast, perFast) : raw());
        pace = faster ? perFast : perBit;
        boolean passive = bits(1) == 1;
        int code = bits(4);
        byte[] data = data(code <= 8 ? code : LENGTHS[code - 9]);
        Checksum sum = sums.get(data.length <= 16 ? 1 : 2);
        boolean[] told = fixed(4 + sum.width());
        int count = stuffed % 8;
        int gray = count ^ count >> 1;
        int wanted = gray << 1 | Integer.bitCount(gray) & 1;
        for (int i = 0; i < 4; i++) {
            sum.take(told[i]);
        }
        boolean right = value(told, 0, 4) == wanted && value(told, 4, sum.width()) == sum.value();
        int to = seen;
        boolean delimiter = raw(SWITCHES_AT * pace + (1 - SWITCHES_AT) * perBit, pace);
        pace = perBit;
        boolean acknowledged = raw();
        return new CanFrame(
                from * interval,
                id,
                extended,
                data,
                false,
                Optional.of(new CanFrame.Fd(faster, passive)),
                right && !delimiter,
                acknowledged,
                from,
                to);
    }

    /**
     * Bits with a fixed stuff bit, the other way round than what is before it, before each four.
     */
    private boolean[] fixed(int count) throws Broken {
        boolean[] ones = new boolean[count];
        boolean before = last;
        for (int i = 0; i < count; i++) {
            if (i % 4 == 0 && raw() == before) {
                error = true;
                throw new Broken();
            }
            before = raw();
            ones[i] = !before;
        }
        return ones;
    }

    private static int value(boolean[] ones, int from, int count) {
        int value = 0;
        for (int i = from; i < from + count; i++) {
            value = value << 1 | (ones[i] ? 1 : 0);
        }
        return value;
    }

    private int bits(int count) throws Broken {
        int value = 0;
        for (int i = 0; i < count; i++) {
            value = value << 1 | (bit() ? 0 : 1);
        }
        return value;
    }

    /** The next bit that is no stuff bit; true when it is dominant. */
    private boolean bit() throws Broken {
        stuffing();
        boolean its = raw();
        took(its);
        return its;
    }

    /** Reads over a stuff bit where one is due. */
    private void stuffing() throws Broken {
        if (run == SAME_BITS) {
            boolean stuff = raw();
            if (stuff == last) {
                error = true;
                throw new Broken();
            }
            last = stuff;
            run = 1;
            stuffed++;
            sums.stream().filter(Checksum::coversStuffBits).forEach(s -> s.take(!stuff));
        }
    }

    private void took(boolean its) {
        run = its == last && run > 0 ? run + 1 : 1;
        last = its;
        sums.forEach(s -> s.take(!its));
    }

    private boolean dominant(double at) throws Broken {
        if (at >= dominant.length) {
            throw new Broken();
        }
        return dominant[(int) at];
    }

    private boolean raw() throws Broken {
        return raw(pace, pace);
    }

    /**
     * @param length of the bit, and {@code next}, of the one after it, in samples
     */
    private boolean raw(double length, double next) throws Broken {
        double end = clock + length;
        int point = (int) (clock + SAMPLE_POINT * length);
        if (end >= dominant.length) {
            throw new Broken();
        }
        // the next edge to dominant within half a bit of its due time is the new step
        int due = (int) end;
        int reach = (int) (next / 2);
        for (int k = Math.max(1, due - reach);
                k <= Math.min(dominant.length - 1, due + reach);
                k++) {
            if (dominant[k] && !dominant[k - 1]) {
                end = k;
                break;
            }
        }
        clock = end;
        seen = (int) end;
        return dominant[point];
    }

    /** A frame that cannot be read on. */
    private static final class Broken extends Exception {
        private static final long serialVersionUID = 1L;

        Broken() {
            super("", null, false, false);
        }
    }

    /** Dominant or not, from a lane's levels: beyond the middle between both. */
    static boolean[] sliced(Lane lane, double recessive, double dominant) {
        double middle = (recessive + dominant) / 2;
        boolean[] bits = new boolean[lane.length()];
        for (int i = 0; i < bits.length; i++) {
            bits[i] = dominant > recessive ? lane.at(i) > middle : lane.at(i) < middle;
        }
        return bits;
    }
}
