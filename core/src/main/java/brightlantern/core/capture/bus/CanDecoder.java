package brightlantern.core.capture.bus;

import java.util.ArrayList;
import java.util.List;

/**
 * Reads classical frames (ISO 11898-1) out of the samples of a wire: a frame begins with the first
 * dominant bit after the bus was idle, edges from recessive to dominant keep the reader in step,
 * and of six like bits in a row the sixth is a stuff bit or an error.
 */
public final class CanDecoder {
    /** So many recessive bits before a frame begins; end of frame and pause have ten. */
    private static final int IDLE_BITS = 7;

    /** Bits are read here, as share of their length. */
    private static final double SAMPLE_POINT = 0.7;

    /** Fewer samples a bit do not show its edges. */
    public static final double LEAST_PER_BIT = 4;

    private static final int SAME_BITS = 5;
    private static final int CRC_BITS = 15;
    private static final int CRC_POLYNOMIAL = 0x4599;

    private final boolean[] dominant;
    private final double interval;
    private final double perBit;
    private double clock;
    private int seen;
    private int run;
    private boolean last;
    private int crc;
    private boolean error;

    private CanDecoder(boolean[] dominant, double interval, double perBit) {
        this.dominant = dominant;
        this.interval = interval;
        this.perBit = perBit;
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
     * @param kbit speed in kbit/s
     * @throws IllegalArgumentException when there are fewer than {@link #LEAST_PER_BIT} samples a
     *     bit
     */
    public static Traffic read(boolean[] dominant, double interval, int kbit) {
        double perBit = 1 / (interval * kbit * 1000);
        if (!(perBit >= LEAST_PER_BIT)) {
            throw new IllegalArgumentException(
                    "%.1f samples a bit are too few; expected at least %.0f"
                            .formatted(perBit, LEAST_PER_BIT));
        }
        return new CanDecoder(dominant, interval, perBit).all();
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
        crc = 0;
        error = false;
        last = false;
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
                bits(2);
            } else {
                bits(1);
            }
            int length = Math.min(8, bits(4));
            byte[] data = new byte[remote ? 0 : length];
            for (int k = 0; k < data.length; k++) {
                data[k] = (byte) bits(8);
            }
            int computed = crc;
            int told = bits(CRC_BITS);
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
                    told == computed && !delimiter,
                    acknowledged,
                    from,
                    to);
        } catch (Broken broken) {
            return null;
        }
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
        if (run == SAME_BITS) {
            boolean stuffed = raw();
            if (stuffed == last) {
                error = true;
                throw new Broken();
            }
            last = stuffed;
            run = 1;
        }
        boolean its = raw();
        run = its == last && run > 0 ? run + 1 : 1;
        last = its;
        boolean next = !its ^ (crc >> CRC_BITS - 1 & 1) == 1;
        crc = crc << 1 & 0x7FFF;
        crc = next ? crc ^ CRC_POLYNOMIAL : crc;
        return its;
    }

    private boolean raw() throws Broken {
        double end = clock + perBit;
        int point = (int) (clock + SAMPLE_POINT * perBit);
        if (end >= dominant.length) {
            throw new Broken();
        }
        // the next edge to dominant within half a bit of its due time is the new step
        int due = (int) end;
        int reach = (int) (perBit / 2);
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
    static boolean[] sliced(double[] samples, double recessive, double dominant) {
        double middle = (recessive + dominant) / 2;
        boolean[] bits = new boolean[samples.length];
        for (int i = 0; i < bits.length; i++) {
            bits[i] = dominant > recessive ? samples[i] > middle : samples[i] < middle;
        }
        return bits;
    }
}
