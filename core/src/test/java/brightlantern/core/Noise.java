package brightlantern.core;

import java.util.Random;

/** What no careful person would ever type or send: seeded, so that it comes again. */
public final class Noise {
    private Noise() {}

    /** Up to so many bytes. */
    public static byte[] bytes(Random random, int most) {
        byte[] bytes = new byte[random.nextInt(most + 1)];
        random.nextBytes(bytes);
        return bytes;
    }

    /** Words of a language in any order, and letters of any alphabet between them. */
    public static String text(Random random, String... words) {
        StringBuilder text = new StringBuilder();
        for (int i = random.nextInt(14); i > 0; i--) {
            if (random.nextInt(4) == 0) {
                text.appendCodePoint(random.nextInt(Character.MAX_CODE_POINT));
            } else {
                text.append(words[random.nextInt(words.length)]);
            }
            if (random.nextBoolean()) {
                text.append(' ');
            }
        }
        return text.toString();
    }
}
