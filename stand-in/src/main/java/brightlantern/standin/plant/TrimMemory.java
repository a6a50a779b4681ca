package brightlantern.standin.plant;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/** The trim codes of the injectors, which the engine module keeps. */
public final class TrimMemory implements Part {
    private static final int FIRST = 0x0701;
    private static final int BYTES = 4;

    /** Six characters of an alphabet of 31. */
    private static final long CODES = 887_503_681L;

    private static final int REFUSED_VALUE = 0x31;
    private static final int CONDITIONS = 0x22;

    private final int[][] codes;
    private boolean turning;

    public TrimMemory(int cylinders, long seed) {
        Random random = new Random(seed);
        codes = new int[cylinders][];
        for (int i = 0; i < cylinders; i++) {
            codes[i] = bytes((long) (random.nextDouble() * CODES));
        }
    }

    private static int[] bytes(long code) {
        return new int[] {
            (int) (code >> 24) & 0xFF,
            (int) (code >> 16) & 0xFF,
            (int) (code >> 8) & 0xFF,
            (int) code & 0xFF
        };
    }

    @Override
    public void step(Whole w, double dt) {
        turning = w.rpm() > 0;
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        return Map.of();
    }

    @Override
    public List<Memory> memories() {
        List<Memory> memories = new ArrayList<>();
        for (int i = 0; i < codes.length; i++) {
            int its = i;
            memories.add(
                    new Memory(
                            "engine",
                            FIRST + i,
                            () -> codes[its].clone(),
                            bytes -> write(its, bytes)));
        }
        return memories;
    }

    private int write(int cylinder, int[] bytes) {
        long code = 0;
        for (int b : bytes) {
            code = code << 8 | b;
        }
        if (turning) {
            return CONDITIONS;
        }
        if (bytes.length != BYTES || code >= CODES) {
            return REFUSED_VALUE;
        }
        codes[cylinder] = bytes.clone();
        return 0;
    }
}
