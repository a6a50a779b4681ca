package brightlantern.core.sweep;

import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;

/**
 * The day a module was made, identifier F18B (ISO 14229-1:2013 table C.1). The standard leaves its
 * form to the maker: packed decimals with a year of two or four digits, or letters.
 */
public final class ProductionDate {
    private static final int CENTURY = 2000;

    private ProductionDate() {}

    /** The day as 2021-03-17; letters as they are; what is neither as hexadecimal bytes. */
    public static String text(byte[] raw) {
        if (raw.length > 4 && printable(raw)) {
            return new String(raw, StandardCharsets.US_ASCII).trim();
        }
        try {
            if (raw.length == 4) {
                return LocalDate.of(
                                100 * decimal(raw[0]) + decimal(raw[1]),
                                decimal(raw[2]),
                                decimal(raw[3]))
                        .toString();
            }
            if (raw.length == 3) {
                return LocalDate.of(CENTURY + decimal(raw[0]), decimal(raw[1]), decimal(raw[2]))
                        .toString();
            }
        } catch (DateTimeException noDay) {
            // told as bytes below
        }
        StringBuilder bytes = new StringBuilder();
        for (byte b : raw) {
            bytes.append(bytes.length() == 0 ? "" : " ").append("%02X".formatted(b));
        }
        return bytes.toString();
    }

    private static boolean printable(byte[] raw) {
        for (byte b : raw) {
            if (b < 0x20 || b > 0x7E) {
                return false;
            }
        }
        return true;
    }

    private static int decimal(byte b) {
        int high = b >> 4 & 0x0F;
        int low = b & 0x0F;
        if (high > 9 || low > 9) {
            throw new DateTimeException("not a packed decimal");
        }
        return 10 * high + low;
    }
}
