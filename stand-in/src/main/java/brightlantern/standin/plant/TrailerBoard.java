package brightlantern.standin.plant;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.DoubleSupplier;

/**
 * The trailer module as something that can be swapped: what it was told, whether the plug of the
 * tow bar's socket sits on it, and its own check of both.
 */
public final class TrailerBoard implements Part {
    public static final String MODULE = "trailer";
    public static final String NOT_CONFIGURED = "B2A10-55";
    private static final int SELF_CHECK = 0x0202;
    private static final int ERASE = 0xFF00;
    private static final int VIN = 0xF190;
    private static final int FITTED = 0x0610;
    private static final int LAMPS = 0x0611;
    private static final int CHARGE_LIMIT = 0x0612;
    private static final int BLANK = 0xFF;
    private static final int REFUSED_VALUE = 0x31;

    private final int[] vin;
    private final int[] fitted = {0x05};
    private final int[] lamps = {0x01};
    private final int[] chargeLimit = {30};
    private boolean plug = true;
    private int finding;

    /**
     * @param vin that it was told when the vehicle was built
     */
    public TrailerBoard(String vin) {
        byte[] text = vin.getBytes(StandardCharsets.US_ASCII);
        this.vin = new int[text.length];
        for (int i = 0; i < text.length; i++) {
            this.vin[i] = text[i];
        }
    }

    @Override
    public void step(Whole w, double dt) {
        // nothing in it moves
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        return Map.of();
    }

    private boolean blank() {
        return vin[0] == BLANK || fitted[0] == BLANK || lamps[0] == BLANK;
    }

    private synchronized void erase() {
        for (int[] item : List.of(vin, fitted, lamps, chargeLimit)) {
            Arrays.fill(item, BLANK);
        }
    }

    @Override
    public List<Memory> memories() {
        return List.of(
                memory(VIN, vin, 0x5A),
                memory(FITTED, fitted, 0x1F),
                memory(LAMPS, lamps, 2),
                memory(CHARGE_LIMIT, chargeLimit, 60));
    }

    /**
     * @param most each byte at most
     */
    private Memory memory(int did, int[] item, int most) {
        return new Memory(
                MODULE,
                did,
                () -> item.clone(),
                bytes -> {
                    if (bytes.length != item.length
                            || Arrays.stream(bytes).anyMatch(b -> b > most && b != BLANK)) {
                        return REFUSED_VALUE;
                    }
                    synchronized (this) {
                        System.arraycopy(bytes, 0, item, 0, item.length);
                    }
                    return 0;
                });
    }

    @Override
    public Map<Integer, Doing> doings() {
        return Map.of(
                SELF_CHECK,
                Doing.at(
                        MODULE,
                        () -> {
                            finding = blank() ? 2 : plug ? 0 : 1;
                            return 0;
                        },
                        () -> new int[] {finding}),
                ERASE,
                Doing.at(
                        MODULE,
                        () -> {
                            erase();
                            return 0;
                        },
                        () -> new int[0]));
    }

    @Override
    public void watch(double seconds, Watcher watcher) {
        watcher.report(MODULE, NOT_CONFIGURED, blank());
    }

    @Override
    public Map<String, String> acts() {
        return Map.of(
                "swap-trailer", "Fit a new trailer module",
                "plug-trailer", "Push the tow bar's plug home on the trailer module");
    }

    @Override
    public String act(String id) {
        if (id.equals("swap-trailer")) {
            erase();
            plug = false;
        } else if (id.equals("plug-trailer")) {
            plug = true;
        }
        return "";
    }

    @Override
    public Set<String> monitored() {
        return Set.of(MODULE + " " + NOT_CONFIGURED);
    }
}
