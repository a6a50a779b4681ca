package brightlantern.core.emission;

import java.util.ArrayList;
import java.util.List;

/**
 * Which monitors have come to a result since the codes were cleared; PID 01 of SAE J1979, read as
 * identifier F401.
 *
 * @param lamp whether the MIL is asked for
 * @param codes number of emission codes that are confirmed, 0..127
 * @param compression whether the engine ignites by compression
 * @param monitors those that are fitted
 */
public record Readiness(boolean lamp, int codes, boolean compression, List<Monitor> monitors) {
    private static final int BYTES = 4;

    private static final String[] ALWAYS = {"Misfire", "Fuel system", "Electrical parts"};
    private static final String[] SPARK = {
        "Catalyst",
        "Heated catalyst",
        "Fuel vapour",
        "Secondary air",
        "Particulate filter",
        "Mixture sensors",
        "Mixture sensor heaters",
        "Exhaust return or valve timing"
    };
    private static final String[] COMPRESSION = {
        "Hydrocarbon catalyst",
        "Nitrogen oxide treatment",
        "",
        "Boost pressure",
        "",
        "Exhaust gas sensors",
        "Particulate filter",
        "Exhaust return or valve timing"
    };

    public Readiness {
        monitors = List.copyOf(monitors);
    }

    /**
     * @param continuous whether it runs all the time, rather than once a drive
     */
    public record Monitor(String name, boolean continuous, boolean complete) {}

    /**
     * @param raw the four bytes of PID 01
     * @throws IllegalArgumentException when there are not four
     */
    public static Readiness decode(byte[] raw) {
        if (raw.length != BYTES) {
            throw new IllegalArgumentException(
                    "readiness: expected %d bytes, found %d".formatted(BYTES, raw.length));
        }
        List<Monitor> monitors = new ArrayList<>();
        for (int bit = 0; bit < ALWAYS.length; bit++) {
            if (set(raw[1], bit)) {
                monitors.add(new Monitor(ALWAYS[bit], true, !set(raw[1], bit + 4)));
            }
        }
        boolean compression = set(raw[1], 3);
        String[] names = compression ? COMPRESSION : SPARK;
        for (int bit = 0; bit < names.length; bit++) {
            if (set(raw[2], bit)) {
                String name = names[bit].isEmpty() ? "Monitor of bit " + bit : names[bit];
                monitors.add(new Monitor(name, false, !set(raw[3], bit)));
            }
        }
        return new Readiness(set(raw[0], 7), raw[0] & 0x7F, compression, monitors);
    }

    private static boolean set(byte of, int bit) {
        return (of >> bit & 1) != 0;
    }

    /** How many monitors have not yet run to their end. */
    public long open() {
        return monitors.stream().filter(m -> !m.complete()).count();
    }
}
