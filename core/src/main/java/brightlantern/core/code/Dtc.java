package brightlantern.core.code;

/**
 * A three-byte diagnostic trouble code: two bytes of ISO 15031-6 / SAE J2012 and one failure type
 * byte (SAE J2012-DA).
 *
 * @param number 0..0xFFFFFF as on the wire
 */
public record Dtc(int number) {
    private static final String LETTERS = "PCBU";

    public Dtc {
        if (number < 0 || number > 0xFFFFFF) {
            throw new IllegalArgumentException("A code is a 24-bit number, not " + number);
        }
    }

    /**
     * Reads for instance {@code P0299-00}.
     *
     * @throws IllegalArgumentException says what was expected
     */
    public static Dtc parse(String text) {
        if (!text.matches("[PCBU][0-3][0-9A-F]{3}-[0-9A-F]{2}")) {
            throw new IllegalArgumentException(
                    "Expected a code like P0299-00, found '" + text + "'");
        }
        int high =
                LETTERS.indexOf(text.charAt(0)) << 14 | Integer.parseInt(text.substring(1, 5), 16);
        return new Dtc(high << 8 | Integer.parseInt(text.substring(6), 16));
    }

    @Override
    public String toString() {
        int high = number >> 8;
        return "%c%04X-%02X".formatted(LETTERS.charAt(high >> 14), high & 0x3FFF, number & 0xFF);
    }
}
