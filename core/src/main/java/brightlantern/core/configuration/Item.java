package brightlantern.core.configuration;

import brightlantern.core.signal.Words;
import brightlantern.core.vehicle.Vin;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * One thing that a module is told, written as one identifier (0x2E, ISO 14229-1 clause 10.7). Bytes
 * are given as upper-case hexadecimal digits.
 *
 * @param did identifier on the wire
 * @param bytes of its value
 * @param words bit number (options) or raw number (choices) → what it means
 * @param scale physical = raw × scale
 * @param least and most: of a number, in its unit
 */
public record Item(
        String id,
        String name,
        int did,
        Kind kind,
        int bytes,
        Map<Integer, String> words,
        double scale,
        String unit,
        double least,
        double most) {
    private static final HexFormat HEX = HexFormat.of().withUpperCase();
    private static final int VIN_BYTES = 17;
    private static final int TRIM_BYTES = 4;

    public enum Kind {
        VIN,
        /** What is fitted, a bit each. */
        OPTIONS,
        CHOICE,
        NUMBER,
        /** Trim code of an injector, see {@link TrimCode}. */
        TRIM
    }

    public Item {
        words = Collections.unmodifiableMap(new TreeMap<>(words));
        bytes = kind == Kind.VIN ? VIN_BYTES : kind == Kind.TRIM ? TRIM_BYTES : bytes;
    }

    /** Whether a module that nobody has told anything holds this. */
    public boolean blank(String hex) {
        return hex.matches("(FF)*");
    }

    /** What the bytes mean, in words. */
    public String told(String hex) {
        if (blank(hex)) {
            return "not set";
        }
        if (hex.length() != 2 * bytes) {
            return "%s, expected %d: %s"
                    .formatted(Words.count(hex.length() / 2, "byte"), bytes, hex);
        }
        return switch (kind) {
            case VIN -> new String(HEX.parseHex(hex), StandardCharsets.US_ASCII);
            case TRIM -> TrimCode.told(hex).orElse("no trim code: " + hex);
            case OPTIONS -> {
                List<String> set = new ArrayList<>();
                long raw = Long.parseLong(hex, 16);
                for (int bit = 0; bit < 8 * bytes; bit++) {
                    if ((raw >> bit & 1) == 1) {
                        set.add(words.getOrDefault(bit, "bit " + bit + ", which is not described"));
                    }
                }
                yield set.isEmpty() ? "nothing" : String.join(", ", set);
            }
            case CHOICE -> {
                int raw = Integer.parseInt(hex, 16);
                yield words.getOrDefault(raw, raw + ", which is not described");
            }
            case NUMBER -> (plain(Long.parseLong(hex, 16) * scale) + " " + unit).trim();
        };
    }

    /**
     * The bytes of what a person typed or chose; options are separated by commas.
     *
     * @throws IllegalArgumentException names the item and says what was expected
     */
    public String coded(String typed) {
        try {
            return switch (kind) {
                case VIN -> vin(typed.trim().toUpperCase(Locale.ROOT));
                case TRIM -> TrimCode.coded(typed);
                case OPTIONS -> options(typed);
                case CHOICE -> hex(number(words, typed.trim()));
                case NUMBER -> hex(raw(typed));
            };
        } catch (IllegalArgumentException wrong) {
            throw new IllegalArgumentException(name + ": " + wrong.getMessage() + ".", wrong);
        }
    }

    private static String vin(String typed) {
        Vin vin = new Vin(typed);
        if (!vin.checkDigitHolds()) {
            throw new IllegalArgumentException(
                    "expected a VIN whose check digit is right, found '" + typed + "'");
        }
        return HEX.formatHex(typed.getBytes(StandardCharsets.US_ASCII));
    }

    private String options(String typed) {
        long raw = 0;
        for (String word : typed.split(",")) {
            if (!word.isBlank()) {
                raw |= 1L << number(words, word.trim());
            }
        }
        return hex(raw);
    }

    private static int number(Map<Integer, String> words, String word) {
        return words.entrySet().stream()
                .filter(e -> e.getValue().equals(word))
                .findFirst()
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "expected one of %s, found '%s'"
                                                .formatted(
                                                        String.join(", ", words.values()), word)))
                .getKey();
    }

    private long raw(String typed) {
        double number;
        try {
            number = Double.parseDouble(typed.trim().replace(',', '.'));
        } catch (NumberFormatException nonsense) {
            number = Double.NaN;
        }
        if (!(number >= least && number <= most)) {
            throw new IllegalArgumentException(
                    "expected a number from %s to %s %s, found '%s'"
                            .formatted(plain(least), plain(most), unit, typed));
        }
        return Math.round(number / scale);
    }

    private String hex(long raw) {
        return ("%0" + 2 * bytes + "X").formatted(raw);
    }

    private static String plain(double number) {
        return number == Math.rint(number)
                ? String.valueOf((long) number)
                : String.format(Locale.ROOT, "%.4g", number);
    }

    /**
     * What a new module is told: the vehicle's VIN, its options; empty for what only a person or
     * the old module knows.
     */
    public Optional<String> built(String vehicleVin, List<String> options) {
        return switch (kind) {
            case VIN -> Optional.of(coded(vehicleVin));
            case OPTIONS -> Optional.of(coded(String.join(",", known(options))));
            default -> Optional.empty();
        };
    }

    private List<String> known(List<String> options) {
        return options.stream().filter(words::containsValue).toList();
    }

    /** Whether these are as many bytes as it has, in upper-case hexadecimal digits. */
    public boolean fits(String hex) {
        return hex.matches("([0-9A-F]{2}){" + bytes + "}");
    }

    /** Bytes as the wire gives them. */
    public static String hex(byte[] bytes) {
        return HEX.formatHex(bytes);
    }

    /** Bytes for the wire. */
    public static byte[] bytes(String hex) {
        return Arrays.copyOf(HEX.parseHex(hex), hex.length() / 2);
    }
}
