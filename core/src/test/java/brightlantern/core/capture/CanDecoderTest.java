package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.capture.bus.CanDecoder;
import brightlantern.core.capture.bus.CanFrame;
import brightlantern.core.network.BitRate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Frames written bit by bit as the standard says, and read out of samples again. */
class CanDecoderTest {
    private static final int KBIT = 500;
    private static final BitRate CLASSICAL = new BitRate(KBIT, 0);
    private static final BitRate FLEXIBLE = new BitRate(KBIT, 2000);
    private static final int[] CODED = {0, 1, 2, 3, 4, 5, 6, 7, 8, 12, 16, 20, 24, 32, 48, 64};

    /** Powers in the polynomials of frames with flexible data rate. */
    private static final int[] FEW = {17, 16, 14, 13, 11, 6, 4, 3, 1, 0};

    private static final int[] MANY = {21, 20, 13, 11, 7, 4, 3, 0};

    /** A bit on the wire, and how long it is, in bits at the slower rate. */
    private record Sent(boolean dominant, double length) {}

    /**
     * A frame with flexible data rate.
     *
     * @param switchesAt where in its bit the sender switches
     */
    private static List<Sent> flexible(
            int id,
            boolean extended,
            byte[] data,
            CanFrame.Fd fd,
            boolean taken,
            double switchesAt) {
        List<Integer> bits = new ArrayList<>();
        put(bits, 0, 1);
        if (extended) {
            put(bits, id >> 18, 11);
            put(bits, 0b11, 2);
            put(bits, id & 0x3FFFF, 18);
            put(bits, 0b010, 3);
        } else {
            put(bits, id, 11);
            put(bits, 0b0010, 4);
        }
        int switches = bits.size();
        put(bits, fd.faster() ? 1 : 0, 1);
        put(bits, fd.passive() ? 1 : 0, 1);
        int code = 0;
        while (CODED[code] < data.length) {
            code++;
        }
        put(bits, code, 4);
        for (byte b : data) {
            put(bits, b & 0xFF, 8);
        }
        double fast = fd.faster() ? KBIT / 2000.0 : 1;
        List<Sent> all = new ArrayList<>();
        List<Integer> covered = new ArrayList<>();
        int run = 0;
        int last = -1;
        int stuffed = 0;
        for (int i = 0; i < bits.size(); i++) {
            int bit = bits.get(i);
            if (run == 5) {
                last = 1 - last;
                all.add(new Sent(last == 0, i > switches ? fast : 1));
                covered.add(last);
                stuffed++;
                run = 1;
            }
            double length = i < switches ? 1 : fast;
            length = i == switches && fast < 1 ? switchesAt + (1 - switchesAt) * fast : length;
            all.add(new Sent(bit == 0, length));
            covered.add(bit);
            run = bit == last ? run + 1 : 1;
            last = bit;
        }
        int gray = stuffed % 8 ^ stuffed % 8 >> 1;
        List<Integer> tail = new ArrayList<>();
        put(tail, gray << 1 | Integer.bitCount(gray) % 2, 4);
        covered.addAll(tail);
        int[] powers = data.length <= 16 ? FEW : MANY;
        put(tail, remainder(covered, powers, true), powers[0]);
        for (int i = 0; i < tail.size(); i++) {
            if (i % 4 == 0) {
                all.add(new Sent(last == 1, fast));
            }
            last = tail.get(i);
            all.add(new Sent(last == 0, fast));
        }
        all.add(new Sent(false, switchesAt * fast + 1 - switchesAt));
        all.add(new Sent(taken, 1));
        for (int i = 0; i < 8 + 3; i++) {
            all.add(new Sent(false, 1));
        }
        return all;
    }

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
        // x^15 + x^14 + x^10 + x^8 + x^7 + x^4 + x^3 + 1
        put(bits, remainder(bits, new int[] {15, 14, 10, 8, 7, 4, 3, 0}, false), 15);
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

    /**
     * @param begins whether the register begins with a one at its top (ISO 11898-1, 10.4.2.6)
     */
    private static int remainder(List<Integer> bits, int[] powers, boolean begins) {
        int width = powers[0];
        List<Integer> rest = new ArrayList<>(bits);
        for (int i = 0; i < width; i++) {
            rest.add(0);
        }
        // a register that begins so is the same as a first bit that is the other way round
        rest.set(0, begins ? 1 - rest.get(0) : rest.get(0));
        for (int i = 0; i + width < rest.size(); i++) {
            if (rest.get(i) == 1) {
                for (int p : powers) {
                    rest.set(i + width - p, 1 - rest.get(i + width - p));
                }
            }
        }
        int value = 0;
        for (int i = rest.size() - width; i < rest.size(); i++) {
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
        return CanDecoder.read(sampled(bits, perBit, drift), 1 / (perBit * KBIT * 1000), CLASSICAL);
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
            wanted.add(
                    new CanFrame(
                            0, id, extended, data, false, Optional.empty(), true, taken, 0, 0));
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

    private static boolean[] drawn(List<Sent> bits, double perBit, double drift) {
        double all = bits.stream().mapToDouble(Sent::length).sum();
        boolean[] samples = new boolean[(int) (all * perBit * (1 + drift))];
        double end = 0;
        int at = -1;
        for (int i = 0; i < samples.length; i++) {
            while (i >= end && at + 1 < bits.size()) {
                at++;
                end += bits.get(at).length() * perBit * (1 + drift);
            }
            samples[i] = bits.get(at).dominant();
        }
        return samples;
    }

    private static List<Sent> slow(List<Boolean> bits) {
        return bits.stream().map(b -> new Sent(b, 1)).toList();
    }

    @RepeatedTest(80)
    void whatIsWrittenWithAFlexibleRateIsRead(RepetitionInfo n) {
        Random random = new Random(n.getCurrentRepetition());
        List<Sent> bits = new ArrayList<>(slow(idle(12)));
        List<CanFrame> wanted = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            boolean extended = random.nextBoolean();
            int id = random.nextInt(extended ? 1 << 29 : 1 << 11);
            boolean taken = random.nextBoolean();
            CanFrame.Fd fd = new CanFrame.Fd(random.nextInt(4) > 0, random.nextInt(4) == 0);
            boolean classical = random.nextInt(4) == 0;
            byte[] data = new byte[CODED[random.nextInt(classical ? 9 : 16)]];
            random.nextBytes(data);
            if (random.nextBoolean()) {
                Arrays.fill(data, (byte) (random.nextBoolean() ? 0 : -1));
            }
            double at = 0.75 + 0.1 * random.nextDouble();
            bits.addAll(
                    classical
                            ? slow(frame(id, extended, data, taken))
                            : flexible(id, extended, data, fd, taken, at));
            wanted.add(
                    new CanFrame(
                            0,
                            id,
                            extended,
                            data,
                            false,
                            classical ? Optional.empty() : Optional.of(fd),
                            true,
                            taken,
                            0,
                            0));
        }
        bits.addAll(slow(idle(12)));
        double perBit = 24 + 30 * random.nextDouble();
        double drift = 0.004 * (random.nextDouble() - 0.5);
        CanDecoder.Traffic traffic =
                CanDecoder.read(drawn(bits, perBit, drift), 1 / (perBit * KBIT * 1000), FLEXIBLE);
        assertThat(traffic.errors()).isEmpty();
        assertThat(traffic.frames())
                .usingRecursiveFieldByFieldElementComparatorIgnoringFields("seconds", "from", "to")
                .containsExactlyElementsOf(wanted);
    }

    @Test
    void aFlippedBitOfAFlexibleFrameIsNotTakenForAFrame() {
        List<Sent> frame =
                flexible(
                        0x155,
                        false,
                        new byte[] {1, 2, 3, 4, 5},
                        new CanFrame.Fd(true, false),
                        true,
                        0.8);
        for (int at = 1; at < frame.size() - 14; at++) {
            List<Sent> bits = new ArrayList<>(slow(idle(12)));
            List<Sent> bad = new ArrayList<>(frame);
            bad.set(at, new Sent(!bad.get(at).dominant(), bad.get(at).length()));
            bits.addAll(bad);
            bits.addAll(slow(idle(80)));
            assertThat(
                            CanDecoder.read(drawn(bits, 32, 0), 1 / (32.0 * KBIT * 1000), FLEXIBLE)
                                    .frames())
                    .as("bit %d", at)
                    .noneMatch(CanFrame::sound);
        }
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
        assertThatThrownBy(() -> CanDecoder.read(new boolean[10], 1e-6, CLASSICAL))
                .hasMessageContaining("2.0 samples a bit");
        List<Boolean> bits = idle(12);
        bits.addAll(frame(0x100, false, new byte[8], true).subList(0, 40));
        assertThat(read(bits, 10, 0).frames()).isEmpty();
        assertThat(
                        new CanFrame(
                                        0,
                                        0x1A,
                                        false,
                                        new byte[] {0, -1},
                                        false,
                                        Optional.empty(),
                                        true,
                                        true,
                                        0,
                                        0)
                                .words())
                .isEqualTo("01A 00 FF");
    }
}
