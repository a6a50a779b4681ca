package brightlantern.core.configuration;

import java.util.Locale;
import java.util.Optional;

/**
 * The code that stands on an injector and tells how much it deviates from its fellows: six
 * characters and a check character, of an alphabet of 31 in which nothing looks like anything else.
 * The check is the sum of place times value modulo 31, a prime, so any one wrong character and any
 * two that changed places are found (the principle of ISO/IEC 7064).
 */
public final class TrimCode {
    private static final String ALPHABET = "23456789ABCDEFGHJKLMNPQRSTUVWXY";
    private static final int BASE = ALPHABET.length();
    private static final int LENGTH = 6;
    private static final int BYTES = 4;

    private TrimCode() {}

    /** The check character that belongs to the first six characters. */
    public static char check(String code) {
        int sum = 0;
        for (int i = 0; i < LENGTH; i++) {
            sum += (i + 1) * ALPHABET.indexOf(code.charAt(i));
        }
        return ALPHABET.charAt(sum % BASE);
    }

    /**
     * The bytes of a code as typed, as hexadecimal digits; blanks and hyphens count for nothing.
     *
     * @throws IllegalArgumentException says which character is wrong, or that the check is
     */
    public static String coded(String typed) {
        String code = typed.replaceAll("[\\s-]", "").toUpperCase(Locale.ROOT);
        for (int i = 0; i < code.length(); i++) {
            if (ALPHABET.indexOf(code.charAt(i)) < 0) {
                throw new IllegalArgumentException(
                        "expected digits 2 to 9 and letters without I, O and Z, found '%c' at place %d"
                                .formatted(code.charAt(i), i + 1));
            }
        }
        if (code.length() != LENGTH + 1) {
            throw new IllegalArgumentException(
                    "expected %d characters and a check character, found %d"
                            .formatted(LENGTH, code.length()));
        }
        if (code.charAt(LENGTH) != check(code)) {
            throw new IllegalArgumentException(
                    "the check character '%c' does not belong to '%s'; one character was misread or two changed places"
                            .formatted(code.charAt(LENGTH), code.substring(0, LENGTH)));
        }
        long number = 0;
        for (int i = 0; i < LENGTH; i++) {
            number = number * BASE + ALPHABET.indexOf(code.charAt(i));
        }
        return "%08X".formatted(number);
    }

    /** A code as it stands on the injector; empty when the bytes are none. */
    static Optional<String> told(String hex) {
        if (hex.length() != 2 * BYTES) {
            return Optional.empty();
        }
        long number = Long.parseLong(hex, 16);
        StringBuilder code = new StringBuilder();
        for (int i = 0; i < LENGTH; i++) {
            code.insert(0, ALPHABET.charAt((int) (number % BASE)));
            number /= BASE;
        }
        return number > 0
                ? Optional.empty()
                : Optional.of(code.toString() + check(code.toString()));
    }
}
