package brightlantern.core.capture;

import java.io.ByteArrayOutputStream;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/**
 * Steps of a lane as few bytes: differences, small ones near zero whatever their sign, their low
 * and high bytes apart, and all of it deflated (RFC 1951).
 */
public final class PackedSteps {
    private PackedSteps() {}

    /**
     * Steps as bytes. Quick before small: what is recorded has to be packed as fast as it comes,
     * and the last fifteenth of its size would cost four times as long.
     */
    public static byte[] pack(short[] steps) {
        byte[] plain = new byte[2 * steps.length];
        int before = 0;
        for (int i = 0; i < steps.length; i++) {
            short difference = (short) (steps[i] - before);
            before = steps[i];
            int folded = (difference << 1 ^ difference >> 15) & 0xFFFF;
            plain[i] = (byte) folded;
            plain[steps.length + i] = (byte) (folded >> 8);
        }
        Deflater deflater = new Deflater(Deflater.BEST_SPEED, true);
        try {
            deflater.setInput(plain);
            deflater.finish();
            ByteArrayOutputStream out = new ByteArrayOutputStream(steps.length);
            byte[] buffer = new byte[8192];
            while (!deflater.finished()) {
                out.write(buffer, 0, deflater.deflate(buffer));
            }
            return out.toByteArray();
        } finally {
            deflater.end();
        }
    }

    /**
     * @param count of the steps that were packed
     * @throws IllegalArgumentException when the bytes are not {@code count} packed steps
     */
    public static short[] unpack(byte[] packed, int count) {
        short[] steps = new short[count];
        unpack(packed, count, steps, 0);
        return steps;
    }

    /**
     * The same into a place of their own.
     *
     * @param to takes them from {@code at} on
     */
    public static void unpack(byte[] packed, int count, short[] to, int at) {
        byte[] plain = new byte[2 * count];
        Inflater inflater = new Inflater(true);
        try {
            inflater.setInput(packed);
            int got = 0;
            while (got < plain.length && !inflater.finished() && !inflater.needsInput()) {
                got += inflater.inflate(plain, got, plain.length - got);
            }
            if (got < plain.length) {
                throw new IllegalArgumentException(
                        "Expected " + count + " packed samples, found " + got / 2);
            }
        } catch (DataFormatException torn) {
            throw new IllegalArgumentException("Packed samples are torn: " + torn.getMessage());
        } finally {
            inflater.end();
        }
        short before = 0;
        for (int i = 0; i < count; i++) {
            int folded = plain[i] & 0xFF | (plain[count + i] & 0xFF) << 8;
            before += (short) (folded >>> 1 ^ -(folded & 1));
            to[at + i] = before;
        }
    }
}
