package brightlantern.app;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Frames of eight random bytes as bits on a wire (ISO 11898-1), dominant as true. */
final class WireBits {
    private static final int POLYNOMIAL = 0x4599;

    private WireBits() {}

    /** A frame that somebody takes, with the pause behind it. */
    static boolean[] frame(int id, Random random) {
        List<Boolean> plain = new ArrayList<>();
        put(plain, id, 12);
        put(plain, 0, 3);
        put(plain, 8, 4);
        for (int i = 0; i < 8; i++) {
            put(plain, random.nextInt(256), 8);
        }
        int crc = 0;
        for (boolean dominant : plain) {
            boolean next = dominant == ((crc >> 14 & 1) == 1);
            crc = crc << 1 & 0x7FFF;
            crc = next ? crc ^ POLYNOMIAL : crc;
        }
        put(plain, crc, 15);
        List<Boolean> wire = new ArrayList<>();
        int run = 0;
        for (boolean b : plain) {
            if (run == 5) {
                wire.add(!wire.get(wire.size() - 1));
                run = 1;
                run = b == wire.get(wire.size() - 1) ? run + 1 : 1;
            } else {
                run = !wire.isEmpty() && b == wire.get(wire.size() - 1) ? run + 1 : 1;
            }
            wire.add(b);
        }
        if (run == 5) {
            wire.add(!wire.get(wire.size() - 1));
        }
        wire.add(false);
        wire.add(true);
        for (int i = 0; i < 11; i++) {
            wire.add(false);
        }
        boolean[] all = new boolean[wire.size()];
        for (int i = 0; i < all.length; i++) {
            all[i] = wire.get(i);
        }
        return all;
    }

    private static void put(List<Boolean> bits, int value, int count) {
        for (int i = count - 1; i >= 0; i--) {
            bits.add((value >> i & 1) == 0);
        }
    }
}
