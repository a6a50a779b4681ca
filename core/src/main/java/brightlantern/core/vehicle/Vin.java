package brightlantern.core.vehicle;

import java.util.Locale;
import java.util.OptionalInt;

/**
 * A vehicle identification number of 17 characters, ISO 3779: digits and letters without I, O and
 * Q.
 *
 * @param text upper-case
 */
public record Vin(String text) {
    private static final String LETTERS = "ABCDEFGHJKLMNPRSTUVWXYZ";
    private static final String LETTER_VALUES = "12345678123457923456789";
    private static final int[] WEIGHTS = {8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2};

    /** Index of the check digit, from 0. */
    private static final int CHECK = 8;

    /** Characters that stand for model years, which return every thirty of them. */
    private static final String YEARS = "ABCDEFGHJKLMNPRSTVWXY123456789";

    private static final int FIRST_YEAR = 1980;

    /** Index of the model year, from 0. */
    private static final int YEAR = 9;

    /**
     * @throws IllegalArgumentException names the character and its place (from 1)
     */
    public Vin {
        text = text.trim().toUpperCase(Locale.ROOT);
        if (text.length() != 17) {
            throw new IllegalArgumentException(
                    "A VIN has 17 characters; '" + text + "' has " + text.length() + ".");
        }
        for (int i = 0; i < 17; i++) {
            char c = text.charAt(i);
            if ((c < '0' || c > '9') && LETTERS.indexOf(c) < 0) {
                throw new IllegalArgumentException(
                        "Character "
                                + (i + 1)
                                + " of VIN '"
                                + text
                                + "' is '"
                                + c
                                + "'; expected a digit or a letter other than I, O and Q.");
            }
        }
    }

    /**
     * The check digit that the other 16 characters ask for, '0'..'9' or 'X' (49 CFR 565.15(c), also
     * ISO 3779 annex).
     */
    public char expectedCheckDigit() {
        int sum = 0;
        for (int i = 0; i < 17; i++) {
            char c = text.charAt(i);
            int value = c <= '9' ? c - '0' : LETTER_VALUES.charAt(LETTERS.indexOf(c)) - '0';
            sum += value * WEIGHTS[i];
        }
        int rest = sum % 11;
        return rest == 10 ? 'X' : (char) ('0' + rest);
    }

    /**
     * Whether the ninth character is the check digit of the others (ISO 3779 leaves it to makers;
     * the weights are those of 49 CFR 565).
     */
    public boolean checkDigitHolds() {
        return text.charAt(CHECK) == expectedCheckDigit();
    }

    /**
     * The model year that the tenth character stands for, the latest that is not after the next
     * year's models; empty where the check digit does not hold, for then its maker does not follow
     * the table (49 CFR 565.15(d), table VII).
     *
     * @param now the year in which it is asked
     */
    public OptionalInt modelYear(int now) {
        int code = YEARS.indexOf(text.charAt(YEAR));
        if (code < 0 || !checkDigitHolds()) {
            return OptionalInt.empty();
        }
        int year = FIRST_YEAR + code;
        while (year + YEARS.length() <= now + 1) {
            year += YEARS.length();
        }
        return OptionalInt.of(year);
    }

    @Override
    public String toString() {
        return text;
    }
}
