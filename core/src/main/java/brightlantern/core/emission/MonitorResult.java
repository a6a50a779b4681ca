package brightlantern.core.emission;

import brightlantern.core.code.WordTable;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * What one test of one monitor measured last, and between which limits it passes; identifier F600 +
 * monitor, eight bytes a test as service 06 of SAE J1979 has them.
 *
 * @param monitor number of the monitor, 1..255
 * @param test number of its test
 * @param unit after scaling; empty for a bare number
 * @param ran whether the test has run since the codes were cleared; figures are 0 before
 */
public record MonitorResult(
        int monitor,
        int test,
        String name,
        double value,
        double min,
        double max,
        String unit,
        boolean ran) {
    /** Identifier to which the number of a monitor is added. */
    public static final int IDENTIFIER = 0xF600;

    private static final int BYTES = 8;

    /** Scaling identifiers from here on are signed. */
    private static final int SIGNED_FROM = 0x80;

    private static final Map<String, String> SCALINGS =
            WordTable.load(MonitorResult.class, "scalings.csv");
    private static final Map<String, String> MONITORS =
            WordTable.load(MonitorResult.class, "monitors.csv");

    /** Whether the reading lies within its limits. */
    public boolean passed() {
        return ran && value >= min && value <= max;
    }

    /** The name of a monitor by SAE J1979-DA in our words. */
    public static String nameOf(int monitor) {
        return MONITORS.getOrDefault(
                "%02X".formatted(monitor),
                monitor >= 0xA2 && monitor <= 0xAD
                        ? "Misfires of cylinder " + (monitor - 0xA1)
                        : "Monitor %02X".formatted(monitor));
    }

    /**
     * @param raw the answer to F600 + monitor, eight bytes a test
     * @throws IllegalArgumentException when a test is cut short
     */
    public static List<MonitorResult> decode(int monitor, byte[] raw) {
        if (raw.length % BYTES != 0) {
            throw new IllegalArgumentException(
                    "results of monitor %02X: expected %d bytes a test, found %d bytes"
                            .formatted(monitor, BYTES, raw.length));
        }
        List<MonitorResult> results = new ArrayList<>();
        for (int i = 0; i < raw.length; i += BYTES) {
            int scaling = raw[i + 1] & 0xFF;
            String[] row =
                    SCALINGS.getOrDefault("%02X".formatted(scaling), "1,0,raw").split(",", -1);
            double scale = Double.parseDouble(row[0]);
            double offset = Double.parseDouble(row[1]);
            int value = word(raw, i + 2, scaling);
            int min = word(raw, i + 4, scaling);
            int max = word(raw, i + 6, scaling);
            results.add(
                    new MonitorResult(
                            monitor,
                            raw[i] & 0xFF,
                            nameOf(monitor),
                            value * scale + offset,
                            min * scale + offset,
                            max * scale + offset,
                            row[2],
                            value != 0 || min != 0 || max != 0));
        }
        return results;
    }

    private static int word(byte[] raw, int at, int scaling) {
        int word = (raw[at] & 0xFF) << 8 | raw[at + 1] & 0xFF;
        return scaling >= SIGNED_FROM ? (short) word : word;
    }

    /**
     * Which of the next 32 monitors a module has, from its answer to F600, F620, F640 and so on.
     *
     * @param base 0, 0x20, 0x40 and so on
     * @throws IllegalArgumentException when there are not four bytes
     */
    public static List<Integer> supported(int base, byte[] raw) {
        if (raw.length != 4) {
            throw new IllegalArgumentException(
                    "list of monitors from %02X: expected 4 bytes, found %d"
                            .formatted(base, raw.length));
        }
        List<Integer> found = new ArrayList<>();
        for (int place = 1; place <= 32; place++) {
            if ((raw[(place - 1) / 8] >> (7 - (place - 1) % 8) & 1) != 0) {
                found.add(base + place);
            }
        }
        return found;
    }
}
