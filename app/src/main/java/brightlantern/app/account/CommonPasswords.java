package brightlantern.app.account;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Passwords that are tried first: common words with digits around them, repeated and running
 * characters, the account's own name (NIST SP 800-63B, clause 5.1.1.2).
 */
final class CommonPasswords {
    private static final String LIST = "/common-passwords.txt";

    /** Digits and signs that people write for letters, and those letters. */
    private static final String SIGNS = "013457@$!";

    private static final String LETTERS = "oieastasi";

    /** So many different characters a password has at least. */
    private static final int LEAST_DIFFERENT = 4;

    private static final Set<String> WORDS = words();

    private CommonPasswords() {}

    private static Set<String> words() {
        try (InputStream in = CommonPasswords.class.getResourceAsStream(LIST);
                BufferedReader lines =
                        new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
            return lines.lines().collect(Collectors.toUnmodifiableSet());
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** Why a password would be guessed soon, in a sentence; empty when it would not. */
    static Optional<String> why(String password, String account) {
        String low = password.toLowerCase(Locale.ROOT);
        String bare = low.replaceAll("^[^a-z]+|[^a-z]+$", "");
        if (low.chars().distinct().count() < LEAST_DIFFERENT || runs(low)) {
            return Optional.of("Password: its characters only repeat or follow each other.");
        }
        if (!account.isEmpty() && low.contains(account)) {
            return Optional.of("Password: expected one without the account's name in it.");
        }
        return WORDS.contains(bare) || WORDS.contains(spelled(low)) || WORDS.contains(spelled(bare))
                ? Optional.of("Password: it is one of those that are tried first; choose another.")
                : Optional.empty();
    }

    /** Whether each character is the next one of the alphabet, or the one before. */
    private static boolean runs(String text) {
        int step = text.charAt(1) - text.charAt(0);
        if (Math.abs(step) > 1) {
            return false;
        }
        for (int i = 1; i < text.length(); i++) {
            if (text.charAt(i) - text.charAt(i - 1) != step) {
                return false;
            }
        }
        return true;
    }

    private static String spelled(String text) {
        StringBuilder letters = new StringBuilder();
        for (char c : text.toCharArray()) {
            int i = SIGNS.indexOf(c);
            letters.append(i < 0 ? c : LETTERS.charAt(i));
        }
        return letters.toString().replaceAll("[^a-z]+$", "");
    }
}
