package brightlantern.core.code;

import java.util.Map;
import java.util.Optional;

/**
 * What a code says by the standards alone: letter and digits by ISO 15031-6 / SAE J2012, the
 * failure type byte by SAE J2012-DA. The words are our own.
 */
public final class StandardCodes {
    private static final Map<String, String> FAILURES =
            WordTable.load(StandardCodes.class, "failure-types.csv");
    private static final Map<String, String> MEANINGS =
            WordTable.load(StandardCodes.class, "meanings.csv");

    private StandardCodes() {}

    /** The failure type byte in words; empty for one that no standard names. */
    public static Optional<String> failure(Dtc dtc) {
        return Optional.ofNullable(FAILURES.get("%02X".formatted(dtc.number() & 0xFF)));
    }

    /** Whether the maker, not the standard, decides what the code means. */
    public static boolean makersOwn(Dtc dtc) {
        String text = dtc.toString();
        char letter = text.charAt(0);
        char first = text.charAt(1);
        return first == '1'
                || letter == 'P' && first == '3' && text.charAt(2) < '4'
                || letter != 'P' && first == '2';
    }

    /** The part of the vehicle that a code speaks of, by its letter and first digits. */
    public static String area(Dtc dtc) {
        String text = dtc.toString();
        return switch (text.charAt(0)) {
            case 'B' -> "Body";
            case 'C' -> "Chassis";
            case 'U' ->
                    switch (text.charAt(2)) {
                        case '0' -> "Network, electrical";
                        case '1', '2' -> "Network, missing messages";
                        case '3' -> "Network, software does not fit";
                        case '4', '5' -> "Network, data not valid";
                        default -> "Network";
                    };
            default ->
                    switch (text.charAt(2)) {
                        case '0', '1', '2' -> "Powertrain, fuel and air";
                        case '3' -> "Powertrain, ignition and misfires";
                        case '4' -> "Powertrain, exhaust and tank";
                        case '5' -> "Powertrain, speed, idle and supply";
                        case '6' -> "Powertrain, module and outputs";
                        case '7', '8', '9' -> "Powertrain, gearbox";
                        default -> "Powertrain, electric drive";
                    };
        };
    }

    /**
     * The best that can be said without a description, failure type included where it says more.
     */
    public static String meaning(Dtc dtc) {
        String head =
                makersOwn(dtc)
                        ? area(dtc) + ", the maker's own code"
                        : MEANINGS.getOrDefault(dtc.toString().substring(0, 5), area(dtc));
        int type = dtc.number() & 0xFF;
        return type == 0 ? head : failure(dtc).map(f -> head + ": " + f).orElse(head);
    }
}
