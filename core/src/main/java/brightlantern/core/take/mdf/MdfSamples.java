package brightlantern.core.take.mdf;

import java.nio.ByteBuffer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;

/** Raw samples of a channel out of the records of its group. */
final class MdfSamples {
    /** More different texts than this are no states. */
    static final int MOST_WORDS = 200;

    private MdfSamples() {}

    /** Texts of fixed length as states, each one a number; {@link #MOST_WORDS} of them at most. */
    static Map<Integer, String> texts(
            MdfChannel c, ByteBuffer bytes, int[] records, double[] into) {
        Charset letters =
                switch (c.type()) {
                    case 6 -> StandardCharsets.ISO_8859_1;
                    case 8 -> StandardCharsets.UTF_16LE;
                    case 9 -> StandardCharsets.UTF_16BE;
                    default -> StandardCharsets.UTF_8;
                };
        Map<String, Integer> numbers = new LinkedHashMap<>();
        byte[] one = new byte[Math.max(0, c.bits() / 8)];
        for (int i = 0; i < records.length && numbers.size() < MOST_WORDS; i++) {
            int at = records[i] + c.byteOffset();
            if (at < 0 || at + one.length > bytes.limit()) {
                into[i] = Double.NaN;
                continue;
            }
            bytes.get(at, one);
            String text = new String(one, letters);
            int end = text.indexOf('\0');
            into[i] =
                    numbers.computeIfAbsent(
                            (end < 0 ? text : text.substring(0, end)).trim(), t -> numbers.size());
        }
        Map<Integer, String> words = new LinkedHashMap<>();
        numbers.forEach((text, n) -> words.put(n, text));
        return words;
    }

    static boolean numbers(MdfChannel c, ByteBuffer bytes, int[] records, double[] into) {
        boolean whole = c.type() >= 0 && c.type() <= 3 && c.bits() >= 1 && c.bits() <= 64;
        boolean real = (c.type() == 4 || c.type() == 5) && (c.bits() == 32 || c.bits() == 64);
        int length = (c.bitOffset() + c.bits() + 7) / 8;
        if (!whole && !real || c.byteOffset() < 0 || length > 8) {
            return false;
        }
        boolean big = c.type() == 1 || c.type() == 3 || c.type() == 5;
        for (int i = 0; i < records.length; i++) {
            int at = records[i] + c.byteOffset();
            if (at + length > bytes.limit()) {
                return false;
            }
            long raw = 0;
            for (int b = 0; b < length; b++) {
                long one = bytes.get(big ? at + length - 1 - b : at + b) & 0xFFL;
                raw |= one << (8 * b);
            }
            raw >>>= c.bitOffset();
            if (real) {
                into[i] =
                        c.bits() == 64
                                ? Double.longBitsToDouble(raw)
                                : Float.intBitsToFloat((int) raw);
            } else if (c.type() >= 2) {
                into[i] = raw << (64 - c.bits()) >> (64 - c.bits());
            } else {
                raw = c.bits() == 64 ? raw : raw & (1L << c.bits()) - 1;
                into[i] = raw >= 0 ? raw : raw * 1.0 + 0x1p64;
            }
        }
        return true;
    }
}
