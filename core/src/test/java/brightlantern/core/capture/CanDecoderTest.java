package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.capture.bus.CanDecoder;
import brightlantern.core.capture.bus.CanFrame;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Frames written bit by bit as the standard says, and read out of samples again. */
class CanDecoderTest {
    private static final int KBIT = 500;

    /** Bits of a frame, dominant as true; the checksum by long division of the bits themselves. */
    private static List<Boolean> frame(int id, boolean extended, byte[] data, boolean taken) {
        List<Integer> bits = new ArrayList<>();
        put(bits, 0, 1);
        if (extended) {
            put(bits, id >> 18, 11);
            put(bits, 0b11, 2);
            put(bits, id & 0x3FFFF, 18);
            put(bits, 0, 3);
        } else {
            put(bits, id, 11);
            put(bits, 0, 3);
        }
        put(bits, data.length, 4);
        for (byte b : data) {
            put(bits, b & 0xFF, 8);
        }
        put(bits, remainder(bits), 15);
        List<Boolean> all = new ArrayList<>();
        int run = 0;
        int last = -1;
        for (int bit : bits) {
            if (run == 5) {
                all.add(last == 1);
                last = 1 - last;
                run = 1;
            }
            all.add(bit == 0);
            run = bit == last ? run + 1 : 1;
            last = bit;
        }
        if (run == 5) {
            all.add(last == 1);
        }
        all.add(false);
        all.add(taken);
        for (int i = 0; i < 8 + 3; i++) {
            all.add(false);
        }
        return all;
    }

    private static void put(List<Integer> bits, int value, int width) {
        for (int i = width - 1; i >= 0; i--) {
            bits.add(value >> i & 1);
        }
    }

    private static int remainder(List<Integer> bits) {
        List<Integer> rest = new ArrayList<>(bits);
        for (int i = 0; i < 15; i++) {
            rest.add(0);
        }
        // x^15 + x^14 + x^10 + x^8 + x^7 + x^4 + x^3 + 1
        int[] powers = {15, 14, 10, 8, 7, 4, 3, 0};
        for (int i = 0; i + 15 < rest.size(); i++) {
            if (rest.get(i) == 1) {
                for (int p : powers) {
                    rest.set(i + 15 - p, 1 - rest.get(i + 15 - p));
                }
            }
        }
        int value = 0;
        for (int i = rest.size() - 15; i < rest.size(); i++) {
            value = value << 1 | rest.get(i);
        }
        return value;
    }

    /**
     * @param perBit samples a bit
     * @param drift by how much the sender's clock is off, as a share
     */
    private static boolean[] sampled(List<Boolean> bits, double perBit, double drift) {
        double each = perBit * (1 + drift);
        boolean[] samples = new boolean[(int) (bits.size() * each)];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = bits.get(Math.min(bits.size() - 1, (int) (i / each)));
        }
        return samples;
    }

    private static List<Boolean> idle(int count) {
        List<Boolean> all = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            all.add(false);
        }
        return all;
    }

    private static CanDecoder.Traffic read(List<Boolean> bits, double perBit, double drift) {
        return CanDecoder.read(sampled(bits, perBit, drift), 1 / (perBit * KBIT * 1000), KBIT);
    }

    @RepeatedTest(40)
    void whatIsWrittenIsRead(RepetitionInfo n) {
        Random random = new Random(n.getCurrentRepetition());
        List<Boolean> bits = idle(12);
        List<CanFrame> wanted = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            boolean extended = random.nextBoolean();
            int id = random.nextInt(extended ? 1 << 29 : 1 << 11);
            byte[] data = new byte[random.nextInt(9)];
            random.nextBytes(data);
            boolean taken = random.nextBoolean();
            bits.addAll(frame(id, extended, data, taken));
            wanted.add(new CanFrame(0, id, extended, data, false, true, taken, 0, 0));
        }
        bits.addAll(idle(12));
        double perBit = 5 + 15 * random.nextDouble();
        double drift = 0.01 * (random.nextDouble() - 0.5);
        CanDecoder.Traffic traffic = read(bits, perBit, drift);
        assertThat(traffic.errors()).isEmpty();
        assertThat(traffic.frames())
                .usingRecursiveFieldByFieldElementComparatorIgnoringFields("seconds", "from", "to")
                .containsExactlyElementsOf(wanted);
    }

    @Test
    void aFlippedBitIsNotTakenForAFrame() {
        int wrong = 0;
        List<Boolean> frame = frame(0x2A5, false, new byte[] {1, 2, 3, 4}, true);
        for (int at = 1; at < frame.size() - 14; at++) {
            List<Boolean> bits = idle(12);
            List<Boolean> bad = new ArrayList<>(frame);
            bad.set(at, !bad.get(at));
            bits.addAll(bad);
            bits.addAll(idle(30));
            CanDecoder.Traffic traffic = read(bits, 10, 0);
            wrong += traffic.frames().stream().anyMatch(CanFrame::sound) ? 1 : 0;
        }
        assertThat(wrong).isZero();
    }

    @Test
    void tooFewSamplesAreRefusedAndAnEndIsAnEnd() {
        assertThatThrownBy(() -> CanDecoder.read(new boolean[10], 1e-6, KBIT))
                .hasMessageContaining("2.0 samples a bit");
        List<Boolean> bits = idle(12);
        bits.addAll(frame(0x100, false, new byte[8], true).subList(0, 40));
        assertThat(read(bits, 10, 0).frames()).isEmpty();
        assertThat(
                        new CanFrame(0, 0x1A, false, new byte[] {0, -1}, false, true, true, 0, 0)
                                .words())
                .isEqualTo("01A 00 FF");
    }
}
