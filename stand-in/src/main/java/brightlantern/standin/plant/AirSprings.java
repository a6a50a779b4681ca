package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleSupplier;

/**
 * Four air springs with a compressor and a reservoir: height in mm from pressure times area against
 * the load on the corner; pressures in kPa. Valves stay shut while the module does not hear the
 * messages that it needs.
 */
public final class AirSprings implements Part {
    private static final String[] CORNERS = {
        "front-left", "front-right", "rear-left", "rear-right"
    };
    private static final double LEVEL = 120;
    private static final double DOWN = 20;
    private static final int LEVELLING = 0x0801;
    private static final int CONDITIONS = 0x22;
    private static final int IDLE = 0;
    private static final int RUNNING = 1;
    private static final int DONE = 2;
    private static final double MM_PER_KPA = 0.35;

    private final double[] kpa = {610, 605, 520, 525};
    private final double[] load = {610, 605, 520, 525};
    private final BooleanSupplier hears;
    private double reservoir = 1350;
    private double compressor;
    private boolean pumping;
    private volatile boolean lowering;
    private volatile int state = IDLE;

    /**
     * @param hears whether the module gets the messages without which it does not level
     */
    public AirSprings(BooleanSupplier hears) {
        this.hears = hears;
    }

    private double height(int corner) {
        return LEVEL + (kpa[corner] - load[corner]) * MM_PER_KPA;
    }

    /**
     * Levelling on request: all corners down, and up again to their height. It refuses while it
     * does not hear what it needs.
     */
    @Override
    public Map<Integer, Doing> doings() {
        return Map.of(
                LEVELLING,
                new Doing() {
                    @Override
                    public String module() {
                        return "air-springs";
                    }

                    @Override
                    public int start() {
                        return begin();
                    }

                    @Override
                    public void stop() {
                        lowering = false;
                        state = state == RUNNING ? IDLE : state;
                    }

                    @Override
                    public int[] result() {
                        return new int[] {state};
                    }
                });
    }

    private synchronized int begin() {
        if (!hears.getAsBoolean()) {
            return CONDITIONS;
        }
        lowering = true;
        state = RUNNING;
        return 0;
    }

    @Override
    public synchronized void step(Whole w, double dt) {
        boolean may = w.driver().key() == 2 && hears.getAsBoolean();
        double wanted = lowering ? LEVEL - DOWN : LEVEL;
        boolean there = true;
        for (int c = 0; c < kpa.length; c++) {
            double off = wanted - height(c);
            there &= Math.abs(off) <= 2.5;
            if (may && Math.abs(off) > 2) {
                double flow = Math.max(-25, Math.min(25, off)) * dt;
                flow = flow > 0 && reservoir < kpa[c] + 50 ? 0 : flow;
                kpa[c] += flow;
                reservoir -= flow > 0 ? flow * 0.4 : 0;
            }
        }
        if (there) {
            state = !lowering && state == RUNNING ? DONE : state;
            lowering = false;
        }
        pumping = w.running() && may && (reservoir < 1200 || pumping && reservoir < 1500);
        compressor += ((pumping ? 24 + reservoir / 120 : 0) - compressor) * Math.min(1, dt / 0.3);
        reservoir += pumping ? 9 * dt : 0;
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        for (int c = 0; c < CORNERS.length; c++) {
            int its = c;
            s.put("height." + CORNERS[c], () -> height(its));
            s.put("spring." + CORNERS[c], () -> kpa[its]);
        }
        s.put("springs.reservoir", () -> reservoir);
        s.put("springs.compressor", () -> compressor);
        return s;
    }

    @Override
    public synchronized void fail(String mode, String of, double size) {
        if (mode.equals("rear-low")) {
            kpa[2] -= size;
            kpa[3] -= size;
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}
